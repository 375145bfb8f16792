import { type Anatomy, type Control, type EffectKind, effectKinds, emptyAnatomy, type Section } from '../anatomy.ts';
import type { Archetype, Params } from './archetype.ts';
import { holdControl, holdParam, holdSwitch, ownSwitch, powerUpOf, signalIn, signalOut, value } from './common.ts';
import { type Ends, endsOf, throughOf, throughSections, widthParams } from './stereo.ts';

/**
 * Strings, pickups, and what the hands do: the selector, a coil split, volume and tone are cues, never sent. What it is
 * strung and tuned to, how loud it is and what replaces it are facts that people read.
 */
export const instrument: Archetype = {
  id: 'instrument',
  params: {
    positions: { kind: 'words', default: [], label: 'Selector positions', max: 8, mayBeEmpty: true },
    volume: { kind: 'boolean', default: false, label: 'Volume as a cue' },
    tone: { kind: 'boolean', default: false, label: 'Tone as a cue' },
    split: { kind: 'boolean', default: false, label: 'Coil split' },
    pickups: {
      kind: 'choice',
      values: ['single coil', 'humbucker', 'piezo', 'active'],
      default: 'humbucker',
      label: 'Pickups',
    },
    trebleBleed: { kind: 'boolean', default: false, label: 'Treble bleed on the volume' },
    outputDbu: { kind: 'integer', min: -80, max: 30, default: -20, label: 'Output, typical, dBu' },
    tuning: { kind: 'text', default: '', label: 'Tuning', max: 60 },
    strings: { kind: 'text', default: '', label: 'Strings', max: 60 },
    detune: { kind: 'text', default: '', label: 'Detune lever goes to', max: 60 },
    spare: { kind: 'text', default: '', label: 'Spare', max: 60 },
  },
  expand: (p) => {
    const positions = p.words('positions');
    const hands: Control[] = [
      ...(positions.length > 0
        ? [hand('selector', 'Selector', { kind: 'choice', values: positions }, positions[0])]
        : []),
      ...(p.yes('split')
        ? [hand('split', 'Coil split', { kind: 'choice', values: ['humbucker', 'single coil'] }, 'humbucker')]
        : []),
      ...(p.yes('volume') ? [hand('volume', 'Volume', { kind: 'range', min: 0, max: 10 }, 10)] : []),
      ...(p.yes('tone') ? [hand('tone', 'Tone', { kind: 'range', min: 0, max: 10 }, 10)] : []),
      ...(p.word('detune') === ''
        ? []
        : [hand('detune', 'Detune lever', { kind: 'choice', values: ['up', 'down'] }, 'up')]),
    ];
    const facts = [
      { label: 'Treble bleed', value: p.yes('trebleBleed') ? 'yes' : '' },
      { label: 'Tuning', value: p.word('tuning') },
      { label: 'Strings', value: p.word('strings') },
      { label: 'Detune lever goes to', value: p.word('detune') },
    ].filter(({ value }) => value !== '');
    return {
      ...emptyAnatomy,
      jacks: [signalOut()],
      controls: hands,
      sections: [
        {
          id: 'pickups',
          label: 'Pickups',
          from: '*strings',
          to: 'out',
          active: true,
          ...(hands.length > 0 ? { parameters: hands.map((control) => control.id) } : {}),
        },
      ],
      source: '*strings',
      ...(facts.length > 0 ? { settings: facts } : {}),
    };
  },
};

const hand = (id: string, label: string, domain: Control['domain'], rests: string | number): Control => ({
  id,
  label,
  domain,
  scope: 'global',
  powerUp: value(rests),
  owner: 'hand',
});

export const cabinet: Archetype = {
  id: 'cabinet',
  params: { stereo: { kind: 'boolean', default: false, label: 'Stereo' } },
  expand: (p) => {
    const ends = endsOf({ ...signalIn(), speaker: true }, p.yes('stereo'));
    return {
      ...emptyAnatomy,
      jacks: ends.jacks,
      sections: intoAir(ends, 'cone', 'Loudspeaker', '*air'),
      destination: '*air',
    };
  },
};

/** A destination that is no loudspeaker: a channel of the desk, somebody's ears, a wedge. */
export const line: Archetype = {
  id: 'line',
  params: {
    stereo: { kind: 'boolean', default: false, label: 'Stereo' },
    takes: { kind: 'choice', values: ['line', 'microphone', 'instrument'], default: 'line', label: 'Input' },
    phantom: { kind: 'choice', values: ['off', 'on'], default: 'off', label: 'Phantom power' },
    goesTo: { kind: 'choice', values: ['house', 'in-ears', 'wedge', 'recording'], default: 'house', label: 'Goes to' },
  },
  expand: (p) => {
    const ends = endsOf(
      p.word('takes') === 'instrument' ? signalIn() : { ...signalIn(), balanced: true },
      p.yes('stereo'),
    );
    return {
      ...emptyAnatomy,
      jacks: ends.jacks,
      sections: intoAir(ends, 'channel', 'Desk channel', '*house'),
      destination: '*house',
      settings: [
        ...(p.word('takes') === 'line' ? [] : [{ label: 'Input', value: p.word('takes') }]),
        ...(p.word('phantom') === 'off' ? [] : [{ label: 'Phantom power', value: 'on' }]),
        ...(p.word('goesTo') === 'house' ? [] : [{ label: 'Goes to', value: p.word('goesTo') }]),
      ],
    };
  },
};

/** One or both sides into what hears them. */
const intoAir = (ends: Ends, id: string, label: string, to: string): readonly Section[] =>
  throughSections({ input: ends, output: { jacks: [], left: to, right: undefined } }, { id, label, active: true });

/**
 * One effect with its own switch: true bypass and buffered bypass alike put a wire in its place. Knobs are set by hand.
 */
export const pedal: Archetype = {
  id: 'pedal',
  params: {
    effect: { kind: 'choice', values: effectKinds, default: 'other', label: 'Does' },
    bypass: { kind: 'choice', values: ['true', 'buffered'], default: 'true', label: 'Bypass' },
    powersUp: { kind: 'choice', values: ['off', 'on', 'as left'], default: 'as left', label: 'After power-up' },
    hasSwitch: { kind: 'boolean', default: true, label: 'Own switch' },
    knobs: { kind: 'words', default: [], label: 'Knobs', max: 12, mayBeEmpty: true },
    ...widthParams,
    crosses: { kind: 'boolean', default: false, label: 'Left and right meet inside' },
    secondSwitch: { kind: 'words', default: [], label: 'Second switch chooses', max: 8, mayBeEmpty: true },
    remote: { kind: 'boolean', default: false, label: 'Second switch by a remote jack' },
    holds: holdParam,
  },
  expand: (p) => {
    const knobs = p
      .words('knobs')
      .map((label, i): Control => hand(`knob-${i + 1}`, label, { kind: 'range', min: 0, max: 10 }, 5));
    const second = p.words('secondSwitch').length > 0 ? choiceOf(p) : null;
    const through = throughOf(p);
    const parameters = [
      ...knobs.map((control) => control.id),
      ...(second ? ['second'] : []),
      ...(p.yes('holds') ? ['hold'] : []),
    ];
    const effect = throughSections(
      through,
      {
        id: 'effect',
        label: 'Effect',
        active: true,
        effect: p.word('effect') as EffectKind,
        ...(parameters.length > 0 ? { parameters } : {}),
        ...(p.yes('hasSwitch') ? { when: { controls: { on: [1] } } } : {}),
      },
      { crosses: p.yes('crosses') },
    );
    const controls = [...(second?.controls ?? []), ...knobs, ...(p.yes('holds') ? [holdControl] : [])];
    const jacks = [...through.jacks, ...(second?.jacks ?? [])];
    const inputs = second?.inputs ?? [];
    const switches = [...(second?.switches ?? []), ...(p.yes('holds') ? [holdSwitch] : [])];
    if (!p.yes('hasSwitch')) return { ...emptyAnatomy, jacks, controls, sections: effect, inputs, switches };
    return {
      ...emptyAnatomy,
      jacks,
      controls: [ownSwitch(powerUpOf(p.word('powersUp')), 'programmed'), ...controls],
      sections: [
        ...effect,
        ...throughSections(through, {
          id: 'bypass',
          label: 'Bypass',
          active: false,
          when: { controls: { on: [0] } },
        }),
      ],
      inputs,
      switches: [{ id: 'switch', label: 'Own switch', actions: [{ toggle: 'on' }] }, ...switches],
      ownSwitch: 'on',
    };
  },
};

/** What a pedal's second switch chooses (a stage, a boost, a speed), by foot or by a contact. */
function choiceOf(p: Params): Pick<Anatomy, 'jacks' | 'controls' | 'inputs' | 'switches'> {
  const values = p.words('secondSwitch');
  const isRemote = p.yes('remote');
  return {
    jacks: isRemote ? [{ id: 'remote-1', label: 'Remote', kind: 'contact-in' }] : [],
    controls: [
      {
        id: 'second',
        label: 'Second switch',
        domain: { kind: 'choice', values },
        scope: 'global',
        powerUp: value(values[0]),
        owner: isRemote ? 'programmed' : 'foot',
        ...(isRemote
          ? {
              contacts: {
                inputs: ['remote-1'],
                table: { '0': values[0], '1': values[Math.min(1, values.length - 1)] },
                mode: 'hold',
                onlyWhilePlugged: true,
              },
            }
          : {}),
      },
    ],
    inputs: isRemote ? [{ id: 'remote-1', kind: 'level', powerUp: 0 }] : [],
    switches: [{ id: 'second', label: 'Second switch', actions: [{ next: 'second', wrap: true }] }],
  };
}

export const tuner: Archetype = {
  id: 'tuner',
  params: { mutes: { kind: 'boolean', default: true, label: 'Mutes while tuning' } },
  expand: (p) => ({
    ...emptyAnatomy,
    jacks: [signalIn(), signalOut()],
    controls: p.yes('mutes')
      ? [
          {
            id: 'mute',
            label: 'Mute',
            domain: { kind: 'switch' },
            scope: 'global',
            powerUp: value(0),
            owner: 'foot',
            weight: 'mute',
          },
        ]
      : [],
    sections: [
      {
        id: 'through',
        label: 'Through',
        from: 'in',
        to: 'out',
        active: false,
        ...(p.yes('mutes') ? { when: { controls: { mute: [0] } } } : {}),
      },
    ],
    switches: p.yes('mutes') ? [{ id: 'switch', label: 'Tune', actions: [{ toggle: 'mute' }] }] : [],
  }),
};
