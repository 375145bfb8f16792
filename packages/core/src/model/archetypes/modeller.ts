import { problem, type Problem } from '../../units/problem.ts';
import {
  type Control,
  type ControlMessage,
  emptyAnatomy,
  type FootSwitch,
  lineSides,
  type StoredOrder,
} from '../anatomy.ts';
import type { Archetype, Params } from './archetype.ts';
import { midiIn, midiOutput, midiOutputs, value } from './common.ts';
import { modellerSignal } from './modeller-signal.ts';
import {
  assignmentsOf,
  type Block,
  blocksOf,
  isStored,
  type ModellerParts,
  parametersOf,
  placeOf,
  sideOf,
} from './modeller-parts.ts';
import { presetFactsOf, presetParams } from './preset-params.ts';
import { widthParams } from './stereo.ts';

const noneOrCc = { kind: 'integer', min: -1, max: 127, default: -1 } as const;

/**
 * A unit in the middle of a rig that stores more than on and off: blocks and loops in an order kept by each preset,
 * a branch beside the line, states inside a preset, assignments that a press or a message moves.
 */
export const modeller: Archetype = {
  id: 'modeller',
  params: {
    blocks: {
      kind: 'words',
      default: ['Compressor', 'Drive', 'Amp', 'Cabinet', 'Modulation', 'Delay', 'Reverb'],
      label: 'Blocks',
      max: 24,
    },
    order: {
      kind: 'choice',
      values: ['by preset', 'fixed'],
      default: 'by preset',
      label: 'The order of the blocks is',
    },
    branch: { kind: 'boolean', default: false, label: 'A branch beside the line, by preset' },
    loops: { kind: 'integer', min: 0, max: 4, default: 0, label: 'Loops' },
    stereoLoopsFrom: { kind: 'integer', min: 0, max: 4, default: 0, label: 'Stereo from loop (0: mono)' },
    inputs: { kind: 'integer', min: 1, max: 4, default: 1, label: 'Inputs, one of them by preset' },
    outputs: { kind: 'integer', min: 1, max: 4, default: 1, label: 'Outputs, each on or off by preset' },
    states: { kind: 'integer', min: 1, max: 8, default: 1, label: 'States inside a preset' },
    parameters: {
      kind: 'words',
      default: [],
      label: 'Stored parameters: Delay mix',
      max: 40,
      mayBeEmpty: true,
    },
    assignments: {
      kind: 'words',
      default: [],
      label: 'Assignments: Solo: Drive, Delay mix (or Solo @ 2: … on switch 2)',
      max: 24,
      mayBeEmpty: true,
    },
    global: {
      kind: 'words',
      default: [],
      label: 'Global, not stored by preset (names of blocks, loops, parameters)',
      max: 40,
      mayBeEmpty: true,
    },
    footPresets: { kind: 'boolean', default: false, label: 'Switches for the next preset and the one before' },
    footStates: { kind: 'boolean', default: false, label: 'A switch for each state' },
    footBlocks: { kind: 'words', default: [], label: 'Blocks with a switch of their own', max: 24, mayBeEmpty: true },
    blocksFromCc: { ...noneOrCc, label: 'Blocks on and off from control change (−1: none)' },
    stateCc: { ...noneOrCc, label: 'State by control change (−1: none)' },
    assignmentsFromCc: { ...noneOrCc, label: 'Assignments from control change (−1: none)' },
    parametersFromCc: { ...noneOrCc, label: 'Parameters from control change (−1: none)' },
    pedal: { kind: 'text', default: '', label: 'An expression pedal moves the parameter', max: 80 },
    ...presetParams,
    sendsOn: { kind: 'integer', min: 0, max: 16, default: 0, label: 'Sends its own changes on channel (0: no)' },
    midiOut: { kind: 'choice', values: Object.keys(midiOutputs), default: 'through', label: 'Its MIDI output sends' },
    ...widthParams,
  },
  check: faultsOf,
  expand: (p) => {
    const parts = partsOf(p);
    const { jacks, sections, inserts } = modellerSignal(p, parts);
    const controls = controlsOf(p, parts);
    const { presets, busy } = presetFactsOf(p, parts.blocks[0].switches[0], parts.states > 1 ? 'state' : undefined);
    return {
      ...emptyAnatomy,
      jacks: [
        ...jacks,
        midiIn,
        midiOutput(p.word('midiOut')),
        ...(p.word('pedal') === '' ? [] : [{ id: 'expression', label: 'Expression', kind: 'expression-in' as const }]),
      ],
      sections,
      controls,
      orders: p.word('order') === 'by preset' && parts.blocks.length > 1 ? [orderOf(p, parts.blocks)] : [],
      messages: messagesOf(p, parts),
      switches: switchesOf(p, parts),
      inserts,
      presets,
      ...(busy ? { busy } : {}),
      ...(p.int('sendsOn') > 0 ? { emits: { channel: p.int('sendsOn') } } : {}),
    };
  },
};

const partsOf = (p: Params): ModellerParts => ({
  blocks: blocksOf(p),
  parameters: parametersOf(p),
  assignments: assignmentsOf(p),
  states: p.int('states'),
});

const orderOf = (p: Params, blocks: readonly Block[]): StoredOrder => ({
  id: 'order',
  label: 'Order',
  of: blocks.map((block) => ({ control: placeOf(block), name: block.name })),
  ...(p.yes('branch') ? { branch: { sides: blocks.map(sideOf), leaves: 'branch-leaves', joins: 'branch-joins' } } : {}),
});

function controlsOf(p: Params, { blocks, parameters, assignments, states }: ModellerParts): Control[] {
  const stored = (
    id: string,
    label: string,
    domain: Control['domain'],
    first: string | number,
    name = label,
  ): Control => ({
    id,
    label,
    domain,
    scope: isStored(p, name) ? 'preset' : 'global',
    powerUp: value(first),
    owner: 'programmed',
  });
  const isOrdered = p.word('order') === 'by preset' && blocks.length > 1;
  const letters = (count: number) => [...'ABCD'].slice(0, count);
  return [
    ...(states > 1
      ? [stored('state', 'State', { kind: 'choice', values: Array.from({ length: states }, (_, i) => i + 1) }, 1)]
      : []),
    ...blocks.flatMap((block) =>
      block.switches.map((id, i) =>
        stored(id, states > 1 ? `${block.name}, state ${i + 1}` : block.name, { kind: 'switch' }, 0, block.name),
      ),
    ),
    ...parameters.map(({ id, name }): Control => ({
      ...stored(id, name, { kind: 'range', min: 0, max: 127 }, 0),
      ...(name === p.word('pedal') ? { expression: true } : {}),
    })),
    ...assignments.flatMap(({ id, armed, name }) => [
      stored(id, name, { kind: 'switch' }, 0),
      stored(armed, `${name} armed`, { kind: 'switch' }, 0),
    ]),
    ...(isOrdered
      ? blocks.map((block, i) =>
          stored(placeOf(block), `Place of ${block.name}`, { kind: 'position', count: blocks.length }, i + 1),
        )
      : []),
    ...(isOrdered && p.yes('branch')
      ? [
          ...blocks.map((block) =>
            stored(sideOf(block), `Side of ${block.name}`, { kind: 'choice', values: lineSides }, lineSides[0]),
          ),
          stored('branch-leaves', 'Branch before place', { kind: 'range', min: 0, max: blocks.length }, 0),
          stored(
            'branch-joins',
            'Branch back after place',
            { kind: 'range', min: 1, max: blocks.length },
            blocks.length,
          ),
        ]
      : []),
    ...(p.int('inputs') > 1
      ? [stored('input', 'Input', { kind: 'choice', values: letters(p.int('inputs')) }, 'A')]
      : []),
    ...(p.int('outputs') > 1
      ? letters(p.int('outputs')).map((letter, i) =>
          stored(`output-${i + 1}`, `Output ${letter}`, { kind: 'switch' }, i === 0 ? 1 : 0),
        )
      : []),
  ];
}

function messagesOf(p: Params, { blocks, parameters, assignments, states }: ModellerParts): ControlMessage[] {
  const from = (param: string, i: number): number | undefined => (p.int(param) < 0 ? undefined : p.int(param) + i);
  const messages: ControlMessage[] = [];
  const add = (cc: number | undefined, message: Omit<ControlMessage, 'cc'>) => {
    if (cc !== undefined && cc <= 127) messages.push({ cc, ...message });
  };
  if (states > 1)
    add(from('stateCc', 0), {
      control: 'state',
      mode: 'absolute',
      table: Object.fromEntries(Array.from({ length: states }, (_, i) => [String(i), i + 1])),
    });
  // The block of the state that the preset is in.
  blocks.forEach((block, i) =>
    block.switches.forEach((control, state) =>
      add(from('blocksFromCc', i), {
        control,
        mode: 'switch',
        ...(states > 1 ? { armed: { control: 'state', values: [state + 1] } } : {}),
      }),
    ),
  );
  assignments.forEach(({ id, armed }, i) =>
    add(from('assignmentsFromCc', i), { control: id, mode: 'switch', armed: { control: armed, values: [1] } }),
  );
  parameters.forEach(({ id }, i) => add(from('parametersFromCc', i), { control: id, mode: 'absolute' }));
  return messages;
}

function switchesOf(p: Params, { blocks, assignments, states }: ModellerParts): FootSwitch[] {
  const footed = new Set(p.words('footBlocks').map((name) => name.toLowerCase()));
  const numbers = [...new Set(assignments.map((assignment) => assignment.on))];
  return [
    ...(p.yes('footPresets')
      ? [
          { id: 'preset-up', label: 'Next preset', actions: [{ next: 'preset', by: 1, wrap: true }] },
          { id: 'preset-down', label: 'Preset before', actions: [{ next: 'preset', by: -1, wrap: true }] },
        ]
      : []),
    ...(p.yes('footStates') && states > 1
      ? Array.from({ length: states }, (_, i) => ({
          id: `state-${i + 1}`,
          label: `State ${i + 1}`,
          actions: [{ put: 'state', to: i + 1 }],
        }))
      : []),
    ...blocks
      .filter(({ name }) => footed.has(name.toLowerCase()))
      .map((block) => ({
        id: `foot-${block.id}`,
        label: block.name,
        actions: block.switches.map((toggle, i) => ({
          toggle,
          ...(states > 1 ? { armed: { control: 'state', values: [i + 1] } } : {}),
        })),
      })),
    // What several assignments share moves those that the preset has armed.
    ...numbers.map((on) => {
      const shared = assignments.filter((assignment) => assignment.on === on);
      return {
        id: `assigned-${on}`,
        label: shared.map(({ name }) => name).join(' or '),
        actions: shared.map(({ id, armed }) => ({ toggle: id, armed: { control: armed, values: [1] } })),
      };
    }),
  ];
}

/** Names that nothing has, and the same name twice. */
function faultsOf(p: Params, at: string): readonly Problem[] {
  const { blocks, parameters, assignments } = partsOf(p);
  const known = new Map<string, string>();
  const faults: Problem[] = [];
  for (const { id, name, from } of [
    ...blocks.map((block) => ({ ...block, from: 'blocks' })),
    ...parameters.map((parameter) => ({ ...parameter, from: 'parameters' })),
    ...assignments.map((assignment) => ({ ...assignment, from: 'assignments' })),
  ]) {
    if (known.has(id)) faults.push(problem(`${at}/${from}`, 'duplicate', { what: 'Name', id: name }));
    known.set(id, name);
  }
  const things = [...blocks, ...parameters].map(({ name }) => name.toLowerCase());
  const need = (name: string, from: string) => {
    if (!things.includes(name.toLowerCase()))
      faults.push(problem(`${at}/${from}`, 'not-found', { what: 'block or parameter', id: name }));
  };
  for (const assignment of assignments) {
    if (assignment.moves.length === 0)
      faults.push(problem(`${at}/assignments`, 'wrong-type', { expected: 'Solo: Drive, Delay mix' }));
    for (const name of assignment.moves) need(name, 'assignments');
  }
  for (const name of p.words('footBlocks'))
    if (!blocks.some((block) => block.name.toLowerCase() === name.toLowerCase()))
      faults.push(problem(`${at}/footBlocks`, 'not-found', { what: 'block', id: name }));
  for (const name of p.words('global')) need(name, 'global');
  const pedal = p.word('pedal');
  if (pedal !== '' && !parameters.some(({ name }) => name === pedal))
    faults.push(problem(`${at}/pedal`, 'not-found', { what: 'parameter', id: pedal }));
  return faults;
}
