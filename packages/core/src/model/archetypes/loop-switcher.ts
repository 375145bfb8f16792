import { type Control, emptyAnatomy, type FootSwitch, type Jack } from '../anatomy.ts';
import type { Archetype, Params } from './archetype.ts';
import { insertJackParam, midiIn, midiOut, value } from './common.ts';
import { routingOf, switcherRoutingParams } from './switcher-routing.ts';
import { loopId } from './switcher-ids.ts';

export const contactId = (i: number): string => `contact-${i}`;

/**
 * Loops in a fixed order or in one that each slot stores, an insert that closes itself when nothing is plugged into its
 * return, inputs and outputs by slot, contacts, MIDI. All of it combines.
 */
export const loopSwitcher: Archetype = {
  id: 'loop-switcher',
  params: {
    loops: { kind: 'integer', min: 1, max: 200, default: 8, label: 'Loops' },
    insertAfter: { kind: 'integer', min: 0, max: 200, default: 0, label: 'Insert after loop (0: none)' },
    stereoFrom: { kind: 'integer', min: 0, max: 200, default: 0, label: 'Stereo from loop (0: mono throughout)' },
    firstStereoSend: {
      kind: 'choice',
      values: ['mono', 'stereo'],
      default: 'mono',
      label: 'Send of the first stereo loop',
    },
    besideLoop: { kind: 'integer', min: 0, max: 200, default: 0, label: 'Loop beside the line (0: none)' },
    ...switcherRoutingParams,
    directSwitches: { kind: 'boolean', default: false, label: 'Switches for single loops, besides the slots' },
    directAPage: { kind: 'integer', min: 0, max: 200, default: 0, label: 'Of these switches, on a page (0: all)' },
    groupFromLoop: { kind: 'integer', min: 0, max: 200, default: 0, label: 'Second group from loop (0: one group)' },
    groupFromSwitch: { kind: 'integer', min: 2, max: 128, default: 4, label: 'Second group from switch' },
    nameLength: { kind: 'integer', min: 0, max: 40, default: 0, label: 'Characters of a slot’s name (0: no display)' },
    contacts: { kind: 'integer', min: 0, max: 12, default: 2, label: 'Contact outputs' },
    contactKind: { kind: 'choice', values: ['latched', 'held', 'pulsed'], default: 'latched', label: 'Contacts are' },
    pulses: { kind: 'choice', values: ['every', 'belief'], default: 'belief', label: 'Pulses at' },
    contactsRest: { kind: 'choice', values: ['open', 'closed'], default: 'open', label: 'Contacts at rest are' },
    perRow: { kind: 'integer', min: 1, max: 20, default: 5, label: 'Switches in a row' },
    pitchMm: { kind: 'integer', min: 20, max: 400, default: 62, label: 'Between switches, mm' },
    banks: { kind: 'integer', min: 1, max: 400, default: 10, label: 'Banks, or pages' },
    positions: { kind: 'integer', min: 1, max: 128, default: 5, label: 'Switches a bank' },
    firesWhileHeld: { kind: 'boolean', default: true, label: 'Slots answer while a momentary is held' },
    insert: { ...insertJackParam, label: 'Its insert is' },
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
    const numbers = Array.from({ length: p.int('loops') }, (_, i) => i + 1);
    const { jacks, sections, controls, orders, inserts } = routingOf(p, numbers);
    return {
      ...emptyAnatomy,
      jacks: [...jacks, ...contactJacks(p), midiIn, midiOut],
      controls: [...numbers.map(loopControl), ...controls, ...pageControl(p)],
      sections,
      inserts,
      ...(orders.length > 0 ? { orders } : {}),
      switches: directSwitches(p),
      controller: controllerOf(p, numbers.map(loopId)),
    };
  },
};

/** A foot controller or song player with no loops of its own. */
export const midiController: Archetype = {
  id: 'midi-controller',
  params: Object.fromEntries(
    Object.entries(loopSwitcher.params).filter(
      ([name]) =>
        ![
          'loops',
          'insertAfter',
          'insert',
          'besideLoop',
          'stereoFrom',
          'firstStereoSend',
          'directSwitches',
          'directAPage',
          'groupFromLoop',
          'groupFromSwitch',
        ].includes(name) && !Object.hasOwn(switcherRoutingParams, name),
    ),
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

/** How many pages the switches for single loops have: one where there is a switch for each loop. */
const pagesOf = (p: Params): number =>
  p.yes('directSwitches') && p.int('directAPage') > 0 ? Math.ceil(p.int('loops') / p.int('directAPage')) : 1;

/** Where a foot left the page; no slot stores it, and power-up leads back to the first. */
const pageControl = (p: Params): Control[] =>
  pagesOf(p) === 1
    ? []
    : [
        {
          id: 'page',
          label: 'Page of the loop switches',
          domain: { kind: 'choice', values: Array.from({ length: pagesOf(p) }, (_, i) => i + 1) },
          scope: 'global',
          powerUp: value(1),
          owner: 'foot',
        },
      ];

/** A switch for each loop; with pages, one that is another loop on each of them, and one that turns the page. */
function directSwitches(p: Params): FootSwitch[] {
  if (!p.yes('directSwitches')) return [];
  const loops = p.int('loops');
  if (pagesOf(p) === 1)
    return Array.from({ length: loops }, (_, i) => ({
      id: `direct-${i + 1}`,
      label: `Loop ${i + 1} directly`,
      actions: [{ toggle: loopId(i + 1) }],
    }));
  const aPage = p.int('directAPage');
  return [
    ...Array.from({ length: aPage }, (_, i): FootSwitch => {
      const loopOnPage = (page: number) => (page - 1) * aPage + i + 1;
      const pages = Array.from({ length: pagesOf(p) }, (_, at) => at + 1).filter((page) => loopOnPage(page) <= loops);
      return {
        id: `direct-${i + 1}`,
        label: `Loop ${eitherOf(pages.map(loopOnPage))} directly, by page`,
        actions: pages.map((page) => ({
          toggle: loopId(loopOnPage(page)),
          armed: { control: 'page', values: [page] },
        })),
      };
    }),
    { id: 'next-page', label: 'Next page of the loop switches', actions: [{ next: 'page' }] },
  ];
}

const eitherOf = (numbers: readonly number[]): string =>
  numbers.length <= 6 ? numbers.join(' or ') : `${numbers.slice(0, 5).join(', ')} … ${numbers.at(-1)}`;

const contactJacks = (p: Params): Jack[] =>
  Array.from({ length: p.int('contacts') }, (_, i) => ({
    id: contactId(i + 1),
    label: `Contact ${i + 1}`,
    kind: 'contact-out' as const,
  }));

const controllerOf = (p: Params, loops: readonly string[]) => ({
  banks: p.int('banks'),
  positions: p.int('positions'),
  loops,
  contacts: contactJacks(p).map((jack) => ({
    id: jack.id,
    kind: p.word('contactKind') as 'latched' | 'held' | 'pulsed',
    policy: p.word('pulses') as 'every' | 'belief',
    ...(p.word('contactsRest') === 'closed' && p.word('contactKind') !== 'pulsed' ? { rests: 1 as const } : {}),
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
  ...(loops.length > 0 && p.int('groupFromLoop') > 1 && p.int('groupFromLoop') <= loops.length
    ? { secondGroup: { position: p.int('groupFromSwitch') - 1, loop: p.int('groupFromLoop') - 1 } }
    : {}),
  ...(p.int('nameLength') > 0 ? { nameLength: p.int('nameLength') } : {}),
});
