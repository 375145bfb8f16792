import { jacksOf } from '../model/jacks.ts';
import { nameShape } from '../model/rig.ts';
import type { Problem } from '../units/problem.ts';
import type { Draft, DraftDevice } from './draft.ts';
import { guessType } from './guess-type.ts';
import { type Direction, isJackAlone, jacksNamed } from './jack-words.ts';
import { misread } from './misread.ts';
import type { AddedDevice, Choices } from './rig-text.ts';
import type { Takes } from './takes.ts';

/** One end of a link as it was understood: a device, and the jacks that it may mean. */
export interface End {
  readonly typed: string;
  readonly device: DraftDevice;
  /** Words for its jack on the way in and on the way out; empty: not said. */
  readonly words: Readonly<Record<Direction, string>>;
}

/** Finds the devices that the words of one statement mean, and adds those that are not there. */
export class EndReader {
  readonly adds: AddedDevice[] = [];

  constructor(
    private readonly draft: Draft,
    private readonly keyOf: (at: string, what: string) => string,
    private readonly choices: Choices,
    private readonly takes: Takes,
  ) {}

  /** What one end was typed as, understood. */
  end(typed: string, key: string): End {
    const [whole, exit] = typed.split(/\s+\/\s+/, 2);
    const { device, rest } = this.deviceOf(whole, key);
    return {
      typed,
      device,
      words: exit === undefined ? { in: rest, out: rest } : { in: rest, out: exit },
    };
  }

  /** The device that words begin with, and what they say of its jack. */
  deviceOf(typed: string, key: string): { readonly device: DraftDevice; readonly rest: string } {
    const said = typed.toLowerCase();
    const named = this.draft.devices
      .filter(
        (device) =>
          said.startsWith(device.said) && (said.length === device.said.length || said[device.said.length] === ' '),
      )
      .sort((a, b) => b.name.length - a.name.length)[0] as DraftDevice | undefined;
    if (named) {
      const rest = typed.slice(named.name.length).trim();
      if (rest === '' || jacksNamed(named.anatomy.jacks, rest).length > 0) return { device: named, rest };
      if (isJackAlone(rest)) return misread({ code: 'no-jack', typed: rest, device: named.name, direction: 'out' });
    }
    // `left cabinet = cabinet` is a name, whatever it begins with.
    if (isJackAlone(typed) && !/[=(]/.test(typed)) return { device: this.subjectOf(typed), rest: typed };
    const short = this.byBeginning(typed);
    if (short) return short;
    const { name, jack } = this.withJack(typed);
    return { device: this.addNew(name, key), rest: jack };
  }

  /** Of a new piece the words at the end that name a jack of what it is: `amp input`. */
  private withJack(typed: string): { readonly name: string; readonly jack: string } {
    const words = /[=(]/.test(typed) ? [] : typed.split(/\s+/);
    for (let n = 1; n < words.length; n += 1) {
      const [name, jack] = [words.slice(0, n).join(' '), words.slice(n).join(' ')];
      const guess = guessType(name, this.takes.get(name.toLowerCase()), this.draft.library);
      const mayBeJack = isJackAlone(jack) || /^[a-h]$/i.test(jack) || guess?.isSure === true;
      if (guess && mayBeJack && jacksNamed(jacksOf(guess.entry.type), jack).length > 0) return { name, jack };
    }
    return { name: typed, jack: '' };
  }

  /** Whose jack is meant where only the jack is said: the switcher spoken of last, else what has an insert. */
  private subjectOf(words: string): DraftDevice {
    const having = this.draft.recent().filter(({ anatomy }) => jacksNamed(anatomy.jacks, words).length > 0);
    return (
      having.find(({ anatomy }) => anatomy.controller !== undefined) ??
      having.find(({ anatomy }) => (anatomy.inserts ?? []).length > 0) ??
      misread({ code: 'no-subject', typed: words })
    );
  }

  /** A device by the beginnings of its words: `comp`, `drive s`. The words after it name a jack. */
  private byBeginning(typed: string): { readonly device: DraftDevice; readonly rest: string } | undefined {
    const words = typed.toLowerCase().split(/\s+/);
    for (let n = words.length; n > 0; n -= 1) {
      const found = this.draft.devices.filter((device) => beginsAlike(device.words, words, n));
      const rest = words.slice(n).join(' ');
      const having = rest === '' ? found : found.filter(({ anatomy }) => jacksNamed(anatomy.jacks, rest).length > 0);
      if (having.length === 1) return { device: having[0], rest };
      if (having.length > 1) misread({ code: 'ambiguous', typed, names: having.map(({ name }) => name) });
    }
    return undefined;
  }

  /** A piece that the text adds, by its name and what it is. */
  addNew(typed: string, key: string): DraftDevice {
    const { name, type } = namedType(typed);
    const chosen = this.choices[this.keyOf(key, 'type')];
    const guess = guessType(type, this.takes.get(typed.toLowerCase()), this.draft.library);
    const entry = this.draft.library.find((each) => each.type.id === chosen) ?? guess?.entry;
    if (!entry) return misread({ code: 'no-type', typed });
    const problems: Problem[] = [];
    nameShape.check(name, '', problems);
    if (problems.length > 0) return misread({ code: 'name', typed });
    const device = this.draft.add(entry, name);
    this.adds.push({
      id: device.id,
      name: device.name,
      entry,
      assumed: chosen === undefined && guess?.isSure !== true,
      others: guess ? [guess.entry, ...guess.others].filter((other) => other !== entry) : [],
      key: this.keyOf(key, 'type'),
    });
    return device;
  }

  /** The switcher spoken of last. */
  switcherSpokenOf(typed: string): DraftDevice {
    return (
      this.draft.recent().find(({ anatomy }) => (anatomy.controller?.loops.length ?? 0) > 0) ??
      misread({ code: 'no-subject', typed })
    );
  }
}

/** Whether the first so many typed words are how a name's words begin. */
function beginsAlike(parts: readonly string[], typed: readonly string[], count: number): boolean {
  if (count > parts.length) return false;
  for (let i = 0; i < count; i += 1) if (typed[i] === '' || !parts[i].startsWith(typed[i])) return false;
  return true;
}

/** `Old box = drive` and `Old box (drive)`: a name, and what it is; else the words are both. */
function namedType(typed: string): { readonly name: string; readonly type: string } {
  const found = /^(.+?)\s*=\s*(.+)$/.exec(typed) ?? /^(.+?)\s*\((.+)\)$/.exec(typed);
  const name = (found ? found[1] : typed).trim();
  return { name: name.charAt(0).toUpperCase() + name.slice(1), type: found ? found[2] : typed };
}
