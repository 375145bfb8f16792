import { problem } from '../../units/problem.ts';
import { type Anatomy, type Control, type ControlValue, emptyAnatomy } from '../anatomy.ts';
import type { Archetype, Params } from './archetype.ts';
import { insertJackParam, insertJacks, lastState, signalIn, signalOut, value } from './common.ts';

/** Bit patterns of `count` inputs in the order 00, 01, 10, 11: the first input is the leftmost bit. */
export const bitPatterns = (count: number): string[] =>
  Array.from({ length: 2 ** count }, (_, i) => i.toString(2).padStart(count, '0'));

/** Channels that distort, typically: what a rule about gain in front of gain may ask. */
export const distorting = ['crunch', 'lead', 'drive', 'high gain'];

/** Params of a choice that contacts, or the unit's own switch, make. */
export const contactParams = (count: number): Archetype['params'] => ({
  contactInputs: { kind: 'integer', min: 0, max: 3, default: count, label: 'Contact inputs' },
  inputKind: { kind: 'choice', values: ['level', 'edge'], default: 'level', label: 'Inputs answer to' },
  inputsDo: { kind: 'choice', values: ['hold', 'write'], default: 'hold', label: 'Inputs' },
  table: {
    kind: 'data',
    default: null,
    label: 'Bits to value',
    check: (data, at) =>
      data !== null &&
      typeof data === 'object' &&
      !Array.isArray(data) &&
      Object.values(data).every((word) => typeof word === 'string')
        ? []
        : [problem(at, 'wrong-type', { expected: 'a table from bits to value' })],
  },
  footswitch: { kind: 'boolean', default: true, label: 'Own switch' },
  remembersChannel: { kind: 'boolean', default: false, label: 'Comes up as it was left' },
});

/** The control, jacks, inputs and switch of such a choice. */
export function choiceByContacts(
  p: Params,
  id: string,
  label: string,
  values: readonly string[],
  weight?: Control['weight'],
): Pick<Anatomy, 'jacks' | 'controls' | 'inputs' | 'switches'> {
  const inputs = Array.from({ length: p.int('contactInputs') }, (_, i) => `remote-${i + 1}`);
  const given = p.data<Record<string, ControlValue> | null>('table') ?? {};
  const table = Object.fromEntries(
    bitPatterns(inputs.length).map((bits, i) => [bits, given[bits] ?? values[Math.min(i, values.length - 1)]]),
  );
  return {
    jacks: inputs.map((input, i) => ({ id: input, label: `Remote ${i + 1}`, kind: 'contact-in' as const })),
    controls: [
      {
        id,
        label,
        domain: { kind: 'choice', values },
        scope: 'global',
        powerUp: p.yes('remembersChannel') ? lastState : value(values[0]),
        owner: inputs.length > 0 ? 'programmed' : 'foot',
        ...(weight === undefined ? {} : { weight }),
        ...(inputs.length > 0
          ? { contacts: { inputs, table, mode: p.word('inputsDo') as 'hold' | 'write', onlyWhilePlugged: true } }
          : {}),
      },
    ],
    inputs: inputs.map((input) => ({ id: input, kind: p.word('inputKind') as 'level' | 'edge', powerUp: 0 as const })),
    switches: p.yes('footswitch') ? [{ id, label: `${label} switch`, actions: [{ next: id, wrap: true }] }] : [],
  };
}

const preampParams: Archetype['params'] = {
  channels: { kind: 'words', default: ['clean', 'lead'], label: 'Channels', max: 8 },
  distorts: { kind: 'words', default: distorting, label: 'Channels that distort', max: 8, mayBeEmpty: true },
  directOut: { kind: 'choice', values: ['none', 'plain', 'cabinet simulation'], default: 'none', label: 'Direct out' },
  loop: insertJackParam,
  ...contactParams(1),
};

/** A line before the power amp, for the desk, with or without a simulated cabinet. */
function directOutOf(p: Params): Pick<Anatomy, 'jacks' | 'sections'> {
  if (p.word('directOut') === 'none') return { jacks: [], sections: [] };
  const isSimulated = p.word('directOut') === 'cabinet simulation';
  return {
    jacks: [{ ...signalOut('direct', 'Direct out'), balanced: true }],
    sections: [
      {
        id: 'direct',
        label: 'Direct out',
        from: '*drive',
        to: 'direct',
        active: true,
        ...(isSimulated ? { effect: 'cabinet-simulation' as const } : {}),
      },
    ],
  };
}

/** A preamp per channel and a normalled series loop, up to the point that it drives. */
function preampOf(p: Params): Pick<Anatomy, 'jacks' | 'controls' | 'inputs' | 'switches' | 'sections' | 'inserts'> {
  const channels = p.words('channels');
  const choice = choiceByContacts(p, 'channel', 'Channel', channels, 'channel');
  return {
    ...choice,
    jacks: [
      signalIn('in', 'Input'),
      ...insertJacks(signalOut('send', 'Send'), signalIn('return', 'Return'), p.word('loop') === 'one socket'),
      ...choice.jacks,
    ],
    sections: [
      ...channels.map((channel) => ({
        id: `preamp ${channel}`,
        label: `Preamp, ${channel}`,
        from: 'in',
        to: '*tone',
        active: true,
        when: { controls: { channel: [channel] } },
        ...(p.words('distorts').includes(channel) ? { effect: 'drive' as const } : {}),
      })),
      { id: 'to-send', label: 'Send', from: '*tone', to: 'send', active: false },
      {
        id: 'loop-normal',
        label: 'Loop closed',
        from: '*tone',
        to: '*drive',
        active: false,
        when: { plugs: { return: false } },
      },
      {
        id: 'from-return',
        label: 'Return',
        from: 'return',
        to: '*drive',
        active: false,
        when: { plugs: { return: true } },
      },
    ],
    inserts: [{ send: 'send', return: 'return' }],
  };
}

/**
 * A preamp per channel, a normalled series loop, a power amp; channels chosen by contacts, by its own switch or by
 * hand.
 */
export const amp: Archetype = {
  id: 'amp',
  params: preampParams,
  expand: (p) => {
    const preamp = preampOf(p);
    const direct = directOutOf(p);
    return {
      ...emptyAnatomy,
      ...preamp,
      jacks: [
        ...preamp.jacks.slice(0, 3),
        { ...signalOut('speaker', 'Loudspeaker'), speaker: true },
        ...direct.jacks,
        ...preamp.jacks.slice(3),
      ],
      sections: [
        ...preamp.sections,
        { id: 'power', label: 'Power amp', from: '*drive', to: 'speaker', active: true },
        ...direct.sections,
      ],
    };
  },
};

/** The same without the power amp: its output is a line, for a rig without a loudspeaker of its own. */
export const preamp: Archetype = {
  id: 'preamp',
  params: preampParams,
  expand: (p) => {
    const parts = preampOf(p);
    const direct = directOutOf(p);
    return {
      ...emptyAnatomy,
      ...parts,
      jacks: [...parts.jacks.slice(0, 3), signalOut('out', 'Line out'), ...direct.jacks, ...parts.jacks.slice(3)],
      sections: [
        ...parts.sections,
        { id: 'line', label: 'Line stage', from: '*drive', to: 'out', active: true },
        ...direct.sections,
      ],
    };
  },
};

/** One input to one of two outputs, or to both: A/B, and Y where it may. */
export const splitter: Archetype = {
  id: 'splitter',
  params: {
    both: { kind: 'boolean', default: true, label: 'May send to both' },
    lift: { kind: 'choice', values: ['none', 'lifted', 'joined'], default: 'none', label: 'Audio ground of B' },
    polarity: { kind: 'boolean', default: false, label: 'Polarity switch on B' },
    ...contactParams(2),
  },
  expand: (p) => {
    const ways = p.yes('both') ? ['A', 'B', 'both'] : ['A', 'B'];
    const choice = choiceByContacts(p, 'way', 'Way', ways, 'channel');
    const side = (to: 'A' | 'B') => ({
      id: `to-${to}`,
      label: `To ${to}`,
      from: 'in',
      to: `out-${to.toLowerCase()}`,
      active: false,
      when: { controls: { way: p.yes('both') ? [to, 'both'] : [to] } },
    });
    const polarity: Control = {
      id: 'polarity',
      label: 'Polarity of B',
      domain: { kind: 'choice', values: ['normal', 'inverted'] },
      scope: 'global',
      powerUp: lastState,
      owner: 'hand',
    };
    return {
      ...emptyAnatomy,
      ...choice,
      jacks: [signalIn(), signalOut('out-a', 'Out A'), signalOut('out-b', 'Out B'), ...choice.jacks],
      controls: [...choice.controls, ...(p.yes('polarity') ? [polarity] : [])],
      sections: [side('A'), p.yes('polarity') ? { ...side('B'), active: true, parameters: ['polarity'] } : side('B')],
      ...(p.word('lift') === 'none' ? {} : { settings: [{ label: 'Audio ground of B', value: p.word('lift') }] }),
    };
  },
};
