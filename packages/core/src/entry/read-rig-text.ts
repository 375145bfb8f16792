import { catalogue, type CatalogueEntry } from '../catalogue/types.ts';
import type { Show } from '../model/documents.ts';
import { Draft } from './draft.ts';
import { type End, EndReader } from './end-reader.ts';
import type { Direction } from './jack-words.ts';
import { LinkReader } from './link-reader.ts';
import { misread, misreadingOf } from './misread.ts';
import type { Choices, RigText, TextRow } from './rig-text.ts';
import { type Statement, statementsOf } from './statements.ts';
import { type Takes, takesOf } from './takes.ts';

export interface Reading {
  readonly choices?: Choices;
  /** The unit of a length without one; metres where absent. */
  readonly bare?: 'm' | 'ft';
  /** The types that names may mean; the generic ones where absent. */
  readonly library?: readonly CatalogueEntry[];
}

/** Reads a text against a rig. Never throws; pure. */
export function readRigText(
  show: Show,
  text: string,
  { choices = {}, bare = 'm', library = catalogue }: Reading = {},
): RigText {
  const draft = new Draft(show, library);
  const names = Object.values(show.rig.devices).map(({ name }) => name);
  const statements = statementsOf(text, bare, names);
  const takes = takesOf(statements);
  const rows = statements.map((statement) => readStatement(draft, statement, choices, takes));
  return { rows, devices: draft.devices };
}

function readStatement(draft: Draft, statement: Statement, choices: Choices, takes: Takes): TextRow {
  const forget = draft.mark();
  const keyOf = (at: string, what: string): string => `${statement.typed}|${at}|${what}`;
  const ends = new EndReader(draft, keyOf, choices, takes);
  const links = new LinkReader(draft, keyOf, choices, statement.carries ?? 'signal');
  const isPiece = statement.stops.length === 1 && !statement.loop && statement.carries === undefined;
  const reader = new StatementReader(draft, statement, ends, links);
  const wrong = misreadingOf(() => (isPiece ? reader.piece() : reader.run()));
  if (!wrong) return { statement, adds: ends.adds, cables: links.cables, known: links.known };
  forget();
  return { statement, adds: [], cables: [], known: 0, wrong };
}

class StatementReader {
  constructor(
    private readonly draft: Draft,
    private readonly statement: Statement,
    private readonly ends: EndReader,
    private readonly links: LinkReader,
  ) {}

  /** A piece alone is a piece more, also where one is called so. */
  piece(): void {
    for (const [i, said] of this.statement.stops[0].entries()) {
      const { count, typed } = counted(said);
      for (let n = 0; n < count; n += 1) this.draft.speakOf(this.ends.addNew(typed, `${i}`));
    }
  }

  /** Ends, and a cable between each and the next. */
  run(): void {
    const { stops, loop, lengths } = this.statement;
    if (stops.flat().includes('')) misread({ code: 'empty-end', typed: this.statement.typed });
    const ends = stops.map((stop, at) => stop.map((typed, i) => this.ends.end(typed, `${at}.${i}`)));
    const all = loop ? this.intoLoop(ends) : ends;
    for (const end of all[0]) this.needs(end, 'out');
    for (const end of all.at(-1)!) this.needs(end, 'in');
    const metres = loop ? [null, ...lengths] : lengths;
    if (all.length < 2) misread({ code: 'empty-end', typed: this.statement.typed });
    for (let at = 0; at + 1 < all.length; at += 1)
      this.links.link(
        all[at],
        all[at + 1],
        metres[at] ?? null,
        `${at}`,
        this.statement.stereo[loop ? at - 1 : at] ?? false,
      );
    for (const end of ends.flat()) this.draft.speakOf(end.device);
    if (loop) this.draft.speakOf(all[0][0].device);
  }

  /** A jack named at an end of the run is one that the signal goes that way through. */
  private needs(end: End, direction: Direction): void {
    if (end.words[direction] !== '' && this.links.isAssumed(end, direction)) this.links.refuse(end, direction);
  }

  /** A run in a loop begins at its send and ends at its return. */
  private intoLoop(ends: readonly (readonly End[])[]): readonly (readonly End[])[] {
    const { device: words, number } = this.statement.loop!;
    const device = words === '' ? this.ends.switcherSpokenOf(`${number}:`) : this.ends.deviceOf(words, 'loop').device;
    const end: End = {
      typed: `${device.name} ${number}`,
      device,
      words: { in: `return ${number}`, out: `send ${number}` },
    };
    return [[end], ...ends, [end]];
  }
}

/** `2 guitars`, `3 x drive`: so many; a number of loops is none. */
function counted(said: string): { readonly count: number; readonly typed: string } {
  const found = /^(\d{1,2})\s*[x×]?\s+(.+)$/i.exec(said);
  if (!found || Number(found[1]) === 0 || /^(loops?|inputs?|outputs?|channels?)\b/i.test(found[2]))
    return { count: 1, typed: said };
  const [, count, rest] = found;
  return { count: Number(count), typed: Number(count) > 1 ? rest.replace(/(?<!s)s$/i, '') : rest };
}
