import type { Anatomy, Jack } from '../model/anatomy.ts';
import { type Carries, jackFacts } from '../model/jack-kinds.ts';
import { isOut } from '../model/cable-ends.ts';

/** Which way a jack is used: something goes in or comes out. */
export type Direction = 'in' | 'out';

export const fits = (jack: Jack, direction: Direction, carries: Carries): boolean =>
  jackFacts(jack.kind).carries === carries && isOut(jack) === (direction === 'out');

/** How people say what is written beside a jack. */
const sameWord: Readonly<Record<string, string>> = {
  input: 'in',
  output: 'out',
  rtn: 'return',
  ret: 'return',
  snd: 'send',
  thru: 'through',
  speaker: 'loudspeaker',
  spk: 'loudspeaker',
  l: 'left',
  r: 'right',
};
/** Words that say what kind of jack it is, and that may be left out. */
const filler = new Set(['fx', 'jack', 'the', 'loop']);

const plain = (words: string): string =>
  words
    .toLowerCase()
    .split(/[\s-]+/)
    .filter((word) => word !== '' && !filler.has(word))
    .map((word) => (Object.hasOwn(sameWord, word) ? sameWord[word] : word))
    .join(' ');

/**
 * The jacks that words name, best match first: their label or id, or how it ends (`B` for *In B*, `2` for *Send 2*),
 * where that is one of the jacks of a kind only.
 */
export function jacksNamed(jacks: readonly Jack[], words: string): readonly Jack[] {
  let asked = named.get(jacks);
  if (!asked || asked.size > mostAsked) named.set(jacks, (asked = new Map()));
  let found = asked.get(words);
  if (!found) asked.set(words, (found = findNamed(jacks, words)));
  return found;
}

/** What was asked of the jacks of a kind of device before: a long text asks the same of many. */
const named = new WeakMap<readonly Jack[], Map<string, readonly Jack[]>>();
const mostAsked = 1_000;

function findNamed(jacks: readonly Jack[], words: string): readonly Jack[] {
  const typed = plain(words);
  if (typed === '') return [];
  const whole = jacks.filter((jack) => plain(jack.label) === typed || plain(jack.id) === typed);
  if (whole.length > 0) return whole;
  const begins = jacks.filter((jack) => plain(jack.label).startsWith(`${typed} `));
  if (begins.length > 0) return begins;
  return jacks.filter((jack) => plain(jack.label).endsWith(` ${typed}`));
}

/** Words that can only be a jack of the device spoken of. */
export const isJackAlone = (words: string): boolean =>
  /^(send|return|in|out|insert|midi|contact|remote|through|left|right)\b/.test(plain(words)) ||
  /^fx (send|return)/i.test(words);

/** Jacks of a device that belong to loops and inserts: taken by name, and else only where nothing else fits. */
export function insertJacks({ inserts, controller, sections }: Anatomy): ReadonlySet<string> {
  const found = new Set((inserts ?? []).flatMap(({ send, return: back }) => [send, back]));
  const loops = new Set(controller?.loops ?? []);
  for (const section of sections)
    for (const control of Object.keys(section.when?.controls ?? {}))
      if (loops.has(control)) found.add(section.from).add(section.to);
  return found;
}

/**
 * The jacks that a device without a jack's name means: its main one, with those that are told alike (*In A*, *In B*).
 */
export function mainJacks(anatomy: Anatomy, direction: Direction, carries: Carries): readonly Jack[] {
  const aside = insertJacks(anatomy);
  const all = anatomy.jacks.filter((jack) => fits(jack, direction, carries) && !aside.has(jack.id));
  if (all.length < 2) return all;
  const family = (jack: Jack) => jack.label.split(' ').slice(0, -1).join(' ');
  const first = all[0];
  return all.filter((jack) => jack === first || (family(jack) !== '' && family(jack) === family(first)));
}

/**
 * Where the main jacks are taken or do not fit: the one jack that is left of a device's inserts. A return only where
 * its send goes somewhere already: else it would be one input more of the device.
 */
export function onlyInsertLeft(
  anatomy: Anatomy,
  direction: Direction,
  isFree: (jack: Jack) => boolean,
): readonly Jack[] {
  const aside = insertJacks(anatomy);
  const left = anatomy.jacks.filter((jack) => fits(jack, direction, 'signal') && aside.has(jack.id) && isFree(jack));
  if (left.length !== 1 || direction === 'out') return left.length === 1 ? left : [];
  const send = anatomy.inserts?.find((insert) => insert.return === left[0].id)?.send;
  const isSendUsed = anatomy.jacks.some((jack) => jack.id === send && !isFree(jack));
  return isSendUsed ? left : [];
}
