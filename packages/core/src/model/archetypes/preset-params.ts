import type { Anatomy, BankScheme, RepeatedRecall } from '../anatomy.ts';
import type { Archetype, Params } from './archetype.ts';
import { lastState, value } from './common.ts';

/** What a unit with stored presets must state: how they are called up, and what it does while one loads. */
export const presetParams: Archetype['params'] = {
  first: { kind: 'integer', min: 0, max: 16_383, default: 0, label: 'First preset, as sent' },
  presets: { kind: 'integer', min: 1, max: 16_384, default: 128, label: 'Presets' },
  scheme: { kind: 'choice', values: ['none', 'msb', 'lsb', 'both'], default: 'none', label: 'Bank select' },
  bankSize: { kind: 'integer', min: 1, max: 128, default: 128, label: 'Presets a bank' },
  sticky: { kind: 'boolean', default: false, label: 'Remembers its bank' },
  repeat: {
    kind: 'choice',
    values: ['reload', 'ignored', 'alternates', 'flips bypass'],
    default: 'reload',
    label: 'A repeated program change',
  },
  powersUpOn: { kind: 'choice', values: ['first preset', 'as left'], default: 'as left', label: 'Comes up on' },
  loadMs: { kind: 'integer', min: 0, max: 10_000, default: 0, label: 'Load time, ms' },
  whileLoading: { kind: 'choice', values: ['drop', 'queue'], default: 'drop', label: 'Messages while loading' },
};

/**
 * `flipped`: the control that a repeated program change turns over, where it does that; `state`: the one that says
 * which state inside a preset is on.
 */
export const presetFactsOf = (p: Params, flipped: string, state?: string): Pick<Anatomy, 'presets' | 'busy'> => ({
  presets: {
    numbers: { from: p.int('first'), count: p.int('presets') },
    powerUp: p.word('powersUpOn') === 'as left' ? lastState : value(p.int('first')),
    scheme: p.word('scheme') as BankScheme,
    bankSize: p.int('bankSize'),
    sticky: p.yes('sticky'),
    home: [0, 0],
    repeat: repeatOf(p.word('repeat'), flipped),
    ...(state === undefined ? {} : { state }),
  },
  ...(p.int('loadMs') > 0 ? { busy: { ms: p.int('loadMs'), policy: p.word('whileLoading') as 'drop' | 'queue' } } : {}),
});

const repeatOf = (word: string, flipped: string): RepeatedRecall =>
  word === 'flips bypass' ? { is: 'flips', control: flipped } : { is: word as 'reload' | 'ignored' | 'alternates' };
