import type { ControlValue } from './anatomy.ts';
import { inOrder } from './documents.ts';
import type { Rig, Sound } from './rig.ts';

/** Sounds that build on others: what each has of its own, and who follows whom. */

/** One thing that a sound wants: a control by its ref, or a device’s pedal by its id. */
export interface Wanted {
  readonly field: 'wants' | 'pedals';
  readonly key: string;
}

export const wantedOf = (sound: Sound, { field, key }: Wanted): ControlValue | undefined => sound[field][key];

export const baseOf = ({ sounds }: Rig, sound: Sound): Sound | undefined =>
  sound.basedOn && Object.hasOwn(sounds, sound.basedOn.sound) ? sounds[sound.basedOn.sound] : undefined;

/** The sounds that build on one directly, in document order. */
export const followersOf = ({ sounds }: Rig, sound: string): readonly Sound[] =>
  inOrder(sounds).filter(({ basedOn }) => basedOn?.sound === sound);

/** What two sounds want otherwise, pedals first. */
export function differencesOf(base: Sound, sound: Sound): readonly Wanted[] {
  const differing = (field: Wanted['field']): readonly Wanted[] =>
    [...new Set([...Object.keys(base[field]), ...Object.keys(sound[field])])]
      .filter((key) => base[field][key] !== sound[field][key])
      .map((key) => ({ field, key }));
  return [...differing('pedals'), ...differing('wants')];
}

/** Where a twin is otherwise than it may be; nothing of a sound that is none. */
export const oddOnesOut = (base: Sound, twin: Sound): readonly Wanted[] =>
  twin.basedOn?.only === undefined
    ? []
    : differencesOf(base, twin).filter(({ key }) => !twin.basedOn!.only!.includes(key));
