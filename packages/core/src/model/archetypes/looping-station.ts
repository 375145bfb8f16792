import { type Control, emptyAnatomy, type FootSwitch, type Section } from '../anatomy.ts';
import type { Archetype, Params } from './archetype.ts';
import { midiIn, midiOutput, midiOutputs, signalIn, signalOut, value } from './common.ts';
import { presetFactsOf, presetParams } from './preset-params.ts';
import { type Ends, endsOf, throughSections } from './stereo.ts';

/** What a track of a looping station does. A press of its switch leads from one to the next. */
export const trackStates = ['empty', 'recording', 'playing', 'overdubbing', 'stopped'] as const;
export type TrackState = (typeof trackStates)[number];

const presses: Readonly<Record<string, TrackState>> = {
  empty: 'recording',
  recording: 'playing',
  playing: 'overdubbing',
  overdubbing: 'playing',
  stopped: 'playing',
};
const stops: Readonly<Record<string, TrackState>> = {
  recording: 'stopped',
  playing: 'stopped',
  overdubbing: 'stopped',
};
const clears: Readonly<Record<string, TrackState>> = {
  recording: 'empty',
  playing: 'empty',
  overdubbing: 'empty',
  stopped: 'empty',
};
/** While a track is so, it is heard. */
const heard: readonly TrackState[] = ['playing', 'overdubbing'];

/**
 * Tracks that record what comes in and play it round and round, each to an output of its own choice. A memory is a
 * preset: recalled by number, it brings its tracks back as they were kept.
 */
export const loopingStation: Archetype = {
  id: 'looping-station',
  params: {
    tracks: { kind: 'integer', min: 1, max: 6, default: 3, label: 'Tracks' },
    inputs: { kind: 'integer', min: 1, max: 3, default: 1, label: 'Inputs, one or all by memory' },
    outputs: { kind: 'integer', min: 1, max: 4, default: 1, label: 'Outputs, one for each track by memory' },
    stereo: { kind: 'boolean', default: false, label: 'Stereo' },
    stopSwitches: { kind: 'boolean', default: true, label: 'A stop switch for each track' },
    clearSwitches: { kind: 'boolean', default: false, label: 'A clear switch for each track' },
    ...presetParams,
    midiOut: { kind: 'choice', values: Object.keys(midiOutputs), default: 'through', label: 'Its MIDI output sends' },
  },
  expand: (p) => {
    const numbers = Array.from({ length: p.int('tracks') }, (_, i) => i + 1);
    return {
      ...emptyAnatomy,
      jacks: [
        ...letters(p.int('inputs')).flatMap((_, i) => inputEnds(p, i).jacks),
        ...letters(p.int('outputs')).flatMap((_, i) => outputEnds(p, i).jacks),
        midiIn,
        midiOutput(p.word('midiOut')),
      ],
      controls: controlsOf(p, numbers),
      sections: sectionsOf(p, numbers),
      switches: switchesOf(p, numbers),
      ...presetFactsOf(p, trackId(1)),
    };
  },
};

const trackId = (i: number): string => `track-${i}`;
const outOf = (i: number): string => `track-${i}-out`;
const letters = (count: number): readonly string[] => [...'ABCD'].slice(0, count);
const inputEnds = (p: Params, i: number): Ends =>
  endsOf(signalIn(i === 0 ? 'in' : `in-${i + 1}`, p.int('inputs') > 1 ? `In ${letters(4)[i]}` : 'In'), p.yes('stereo'));
const outputEnds = (p: Params, i: number): Ends =>
  endsOf(
    signalOut(i === 0 ? 'out' : `out-${i + 1}`, p.int('outputs') > 1 ? `Out ${letters(4)[i]}` : 'Out'),
    p.yes('stereo'),
  );
const inner = (p: Params, id: string): Ends => ({
  jacks: [],
  left: `*${id}`,
  right: p.yes('stereo') ? `*${id}-right` : undefined,
});

function controlsOf(p: Params, numbers: readonly number[]): Control[] {
  const kept = (id: string, label: string, values: readonly string[], first: string): Control => ({
    id,
    label,
    domain: { kind: 'choice', values },
    scope: 'preset',
    powerUp: value(first),
    owner: 'programmed',
  });
  return [
    ...numbers.map((i) => ({ ...kept(trackId(i), `Track ${i}`, trackStates, 'empty'), owner: 'foot' as const })),
    ...(p.int('outputs') > 1
      ? numbers.map((i) => kept(outOf(i), `Output of track ${i}`, letters(p.int('outputs')), 'A'))
      : []),
    ...(p.int('inputs') > 1 ? [kept('input', 'Input', [...letters(p.int('inputs')), 'all'], 'all')] : []),
  ];
}

function sectionsOf(p: Params, numbers: readonly number[]): Section[] {
  const line = inner(p, 'line');
  const through = (from: Ends, to: Ends, section: Omit<Section, 'from' | 'to' | 'pair'>): readonly Section[] =>
    throughSections({ input: from, output: to }, section, { sums: false });
  return [
    ...letters(p.int('inputs')).flatMap((letter, i) =>
      through(inputEnds(p, i), line, {
        id: `input-${i + 1}`,
        label: `Input ${letter}`,
        active: false,
        ...(p.int('inputs') > 1 ? { when: { controls: { input: [letter, 'all'] } } } : {}),
      }),
    ),
    // What is played goes on to the first output as it is.
    ...through(line, outputEnds(p, 0), { id: 'dry', label: 'Through', active: false }),
    ...numbers.flatMap((i) => {
      const track = inner(p, trackId(i));
      return [
        ...through(line, track, {
          id: trackId(i),
          label: `Track ${i}`,
          active: true,
          effect: 'delay',
          parameters: ['preset'],
          when: { controls: { [trackId(i)]: heard } },
        }),
        ...letters(p.int('outputs')).flatMap((letter, k) =>
          through(track, outputEnds(p, k), {
            id: `${trackId(i)}-to-${k + 1}`,
            label: `Track ${i} to output ${letter}`,
            // Added in a stage that passes one way.
            active: true,
            when: {
              controls: { [trackId(i)]: heard, ...(p.int('outputs') > 1 ? { [outOf(i)]: [letter] } : {}) },
            },
          }),
        ),
      ];
    }),
  ];
}

function switchesOf(p: Params, numbers: readonly number[]): FootSwitch[] {
  const each = (id: string, label: string, table: Readonly<Record<string, TrackState>>): FootSwitch[] =>
    numbers.map((i) => ({ id: `${id}-${i}`, label: `${label} ${i}`, actions: [{ turn: trackId(i), table }] }));
  return [
    ...each('press', 'Track', presses),
    ...(p.yes('stopSwitches') ? each('stop', 'Stop track', stops) : []),
    ...(p.yes('clearSwitches') ? each('clear', 'Clear track', clears) : []),
    { id: 'stop-all', label: 'Stop all', actions: numbers.map((i) => ({ turn: trackId(i), table: stops })) },
  ];
}
