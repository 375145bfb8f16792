import { type Control, emptyAnatomy, type Jack, type Section } from '../anatomy.ts';
import type { Archetype, Params } from './archetype.ts';
import { midiIn, midiOut, signalIn, signalOut, value } from './common.ts';

export const loopId = (i: number): string => `loop-${i}`;
export const contactId = (i: number): string => `contact-${i}`;

/** Loops in a fixed order, one insert that closes itself when nothing is plugged into its return, contacts, MIDI. */
export const loopSwitcher: Archetype = {
  id: 'loop-switcher',
  params: {
    loops: { kind: 'integer', min: 1, max: 200, default: 8, label: 'Loops' },
    insertAfter: { kind: 'integer', min: 0, max: 200, default: 0, label: 'Insert after loop (0: none)' },
    contacts: { kind: 'integer', min: 0, max: 12, default: 2, label: 'Contact outputs' },
    contactKind: { kind: 'choice', values: ['latched', 'held', 'pulsed'], default: 'latched', label: 'Contacts are' },
    pulses: { kind: 'choice', values: ['every', 'belief'], default: 'belief', label: 'Pulses at' },
    perRow: { kind: 'integer', min: 1, max: 20, default: 5, label: 'Switches in a row' },
    pitchMm: { kind: 'integer', min: 20, max: 400, default: 62, label: 'Between switches, mm' },
    banks: { kind: 'integer', min: 1, max: 400, default: 10, label: 'Banks' },
    positions: { kind: 'integer', min: 1, max: 128, default: 5, label: 'Switches a bank' },
    firesWhileHeld: { kind: 'boolean', default: true, label: 'Slots answer while a momentary is held' },
    momentaries: { kind: 'integer', min: 0, max: 8, default: 0, label: 'Momentary switches' },
    bankMove: { kind: 'choice', values: ['silent', 'fires'], default: 'silent', label: 'A bank move' },
    repeatPress: {
      kind: 'choice',
      values: ['fires', 'ignored', 'alternates'],
      default: 'fires',
      label: 'A repeated press',
    },
    callRepeat: { kind: 'choice', values: ['fires', 'ignored'], default: 'fires', label: 'A call to the current slot' },
  },
  expand: (p) => {
    const loops = p.int('loops');
    const numbers = Array.from({ length: loops }, (_, i) => i + 1);
    return {
      ...emptyAnatomy,
      jacks: jacksOf(p, numbers),
      controls: numbers.map(loopControl),
      sections: sectionsOf(p, numbers),
      inserts: p.int('insertAfter') > 0 ? [{ send: 'insert-send', return: 'insert-return' }] : [],
      controller: controllerOf(p, numbers.map(loopId)),
    };
  },
};

/** A foot controller or song player with no loops of its own. */
export const midiController: Archetype = {
  id: 'midi-controller',
  params: Object.fromEntries(
    Object.entries(loopSwitcher.params).filter(([name]) => name !== 'loops' && name !== 'insertAfter'),
  ),
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [...contactJacks(p), midiIn, midiOut],
    controller: controllerOf(p, []),
  }),
};

const loopControl = (i: number): Control => ({
  id: loopId(i),
  label: `Loop ${i}`,
  domain: { kind: 'switch' },
  scope: 'slot',
  powerUp: value(0),
  owner: 'programmed',
});

const contactJacks = (p: Params): Jack[] =>
  Array.from({ length: p.int('contacts') }, (_, i) => ({
    id: contactId(i + 1),
    label: `Contact ${i + 1}`,
    kind: 'contact-out' as const,
  }));

function jacksOf(p: Params, numbers: readonly number[]): Jack[] {
  const insert: Jack[] =
    p.int('insertAfter') > 0
      ? [signalOut('insert-send', 'Insert send'), signalIn('insert-return', 'Insert return')]
      : [];
  return [
    signalIn(),
    ...numbers.flatMap((i) => [signalOut(`send-${i}`, `Send ${i}`), signalIn(`return-${i}`, `Return ${i}`)]),
    ...insert,
    signalOut(),
    ...contactJacks(p),
    midiIn,
    midiOut,
  ];
}

function sectionsOf(p: Params, numbers: readonly number[]): Section[] {
  const sections: Section[] = [wire('input', 'Input', 'in', '*bus0')];
  let bus = '*bus0';
  const insertAfter = p.int('insertAfter');
  for (const i of numbers) {
    const next = `*bus${i}`;
    const inside = { controls: { [loopId(i)]: inOrOut[1] } };
    const outside = { controls: { [loopId(i)]: inOrOut[0] } };
    sections.push(
      wire(`to-${i}`, `Send ${i}`, bus, `send-${i}`, inside),
      wire(`from-${i}`, `Return ${i}`, `return-${i}`, next, inside),
      wire(`bypass-${i}`, `Loop ${i} out`, bus, next, outside),
    );
    bus = next;
    if (insertAfter === i) {
      sections.push(
        wire('insert-to', 'Insert send', bus, 'insert-send'),
        wire('insert-from', 'Insert return', 'insert-return', '*inserted', { plugs: { 'insert-return': true } }),
        wire('insert-normal', 'Insert closed', bus, '*inserted', { plugs: { 'insert-return': false } }),
      );
      bus = '*inserted';
    }
  }
  return [...sections, wire('output', 'Output', bus, 'out')];
}

const inOrOut = [[0], [1]];

const wire = (id: string, label: string, from: string, to: string, when?: Section['when']): Section => ({
  id,
  label,
  from,
  to,
  active: false,
  when,
});

const controllerOf = (p: Params, loops: readonly string[]) => ({
  banks: p.int('banks'),
  positions: p.int('positions'),
  loops,
  contacts: contactJacks(p).map((jack) => ({
    id: jack.id,
    kind: p.word('contactKind') as 'latched' | 'held' | 'pulsed',
    policy: p.word('pulses') as 'every' | 'belief',
  })),
  momentaries: Array.from({ length: p.int('momentaries') }, (_, i) => ({
    id: `momentary-${i + 1}`,
    label: `Momentary ${i + 1}`,
  })),
  firesWhileHeld: p.yes('firesWhileHeld'),
  bankMove: p.word('bankMove') as 'silent' | 'fires',
  repeatPress: p.word('repeatPress') as 'fires' | 'ignored' | 'alternates',
  callRepeat: p.word('callRepeat') as 'fires' | 'ignored',
  floor: { perRow: p.int('perRow'), pitchMm: p.int('pitchMm') },
});
