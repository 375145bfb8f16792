import { catalogue, type CatalogueEntry, findTypes } from '../catalogue/types.ts';
import type { Show } from '../model/documents.ts';
import { jacksNamed } from './jack-words.ts';
import { readRigText } from './read-rig-text.ts';

/** What may be meant by the words before the caret. */
export interface Completion {
  /** The stretch of the text that an option takes the place of. */
  readonly from: number;
  readonly to: number;
  readonly options: readonly CompletionOption[];
}

export interface CompletionOption {
  readonly text: string;
  readonly is: 'device' | 'jack' | 'type';
}

const delimiters = /[>;:\n\r\t+/=(]|→|⇒/;
const most = 8;

/** Completes the words that end at the caret: a device of the rig or of the text, a jack of it, a type. */
export function completeRigText(
  show: Show,
  text: string,
  caret: number,
  library: readonly CatalogueEntry[] = catalogue,
): Completion {
  let from = caret;
  while (from > 0 && !delimiters.test(text[from - 1])) from -= 1;
  while (from < caret && text[from] === ' ') from += 1;
  const typed = text.slice(from, caret);
  const none = { from, to: caret, options: [] };
  if (typed.trim().length < 1) return none;
  const lineStart = Math.max(text.lastIndexOf('\n', from - 1), text.lastIndexOf(';', from - 1)) + 1;
  const { devices } = readRigText(show, text.slice(0, lineStart), { library });
  const said = typed.toLowerCase();
  const named = devices
    .filter(({ name }) => said.startsWith(`${name.toLowerCase()} `))
    .sort((a, b) => b.name.length - a.name.length)[0] as (typeof devices)[number] | undefined;
  const options: CompletionOption[] = [];
  if (named) {
    const rest = said.slice(named.name.length).trim();
    const jacks = named.anatomy.jacks;
    const fitting =
      rest === '' ? jacks : [...jacksNamed(jacks, rest), ...jacks.filter((jack) => begins(jack.label, rest))];
    for (const jack of new Set(fitting)) options.push({ text: `${named.name} ${jack.label}`, is: 'jack' });
  } else {
    for (const { name } of devices) if (begins(name, said)) options.push({ text: name, is: 'device' });
    // A device that is there is meant by its name: no new piece is offered for it.
    const isThere = devices.some(({ name }) => name.toLowerCase() === said.trim());
    if (!isThere) for (const { type } of findTypes(typed, library)) options.push({ text: type.name, is: 'type' });
  }
  const other = options.filter(({ text: whole }) => whole.toLowerCase() !== said);
  return { from, to: caret, options: other.slice(0, most) };
}

/** Whether some word of a name begins so. */
const begins = (name: string, typed: string): boolean =>
  name.toLowerCase().startsWith(typed) || name.toLowerCase().includes(` ${typed}`);
