import type { Anatomy } from '../anatomy.ts';
import type { DeviceType } from '../rig.ts';
import { amp, preamp, splitter } from './amp.ts';
import { type Archetype, Params } from './archetype.ts';
import { declared } from './declared.ts';
import { loopSwitcher, midiController } from './loop-switcher.ts';
import { midiEffect } from './midi-effect.ts';
import {
  directBox,
  loadBox,
  midiMerger,
  midiThroughBox,
  mixer,
  powerAmp,
  receiver,
  router,
  selector,
  volumePedal,
} from './line-pieces.ts';
import { loopingStation } from './looping-station.ts';
import { modeller } from './modeller.ts';
import { bandSplit, cabinetSimulation, expressionPedal, isolator, panel, tempoBox } from './panel-pieces.ts';
import { cabinet, instrument, line, pedal, tuner } from './simple.ts';

const archetypes: readonly Archetype[] = [
  instrument,
  tuner,
  pedal,
  loopSwitcher,
  midiEffect,
  amp,
  preamp,
  splitter,
  cabinet,
  line,
  midiController,
  selector,
  router,
  mixer,
  volumePedal,
  directBox,
  receiver,
  powerAmp,
  loadBox,
  midiThroughBox,
  midiMerger,
  panel,
  isolator,
  bandSplit,
  cabinetSimulation,
  expressionPedal,
  tempoBox,
  modeller,
  loopingStation,
  declared,
];
const byId = new Map(archetypes.map((archetype) => [archetype.id, archetype]));

export const archetypeOf = (id: string): Archetype | undefined => byId.get(id);
export const archetypeIds: readonly string[] = archetypes.map((archetype) => archetype.id);

const expanded = new WeakMap<DeviceType, Anatomy>();

/** The anatomy of a checked type. Types are immutable, so each is expanded once. */
export function anatomyOf(type: DeviceType): Anatomy {
  const known = expanded.get(type);
  if (known) return known;
  const archetype = byId.get(type.archetype);
  if (!archetype) throw new Error(`unknown archetype ${type.archetype}`);
  const anatomy = archetype.expand(new Params(archetype.params, type.params));
  expanded.set(type, anatomy);
  return anatomy;
}

/** The anatomies of many types; types that say the same share one, also where they were read apart. */
export function anatomiesOf(types: readonly DeviceType[]): readonly Anatomy[] {
  /** One of each kind, by archetype. */
  const kinds = new Map<string, DeviceType[]>();
  const likeOf = (type: DeviceType): DeviceType => {
    const alike = kinds.get(type.archetype);
    const known = alike?.find((deviceType) => sameParams(deviceType.params, type.params));
    if (known) return known;
    if (alike) alike.push(type);
    else kinds.set(type.archetype, [type]);
    return type;
  };
  const anew = types.filter((type) => !expanded.has(type));
  if (anew.length > 0) for (const type of types) if (expanded.has(type)) likeOf(type);
  for (const type of anew) expanded.set(type, anatomyOf(likeOf(type)));
  return types.map(anatomyOf);
}

/**
 * Whether two sets of parameters say the same, in the same order; what is not a plain value is compared as it is
 * written in a file.
 */
function sameParams(a: DeviceType['params'], b: DeviceType['params']): boolean {
  const names = Object.keys(a);
  const others = Object.keys(b);
  return (
    names.length === others.length &&
    names.every(
      (name, i) =>
        name === others[i] &&
        (a[name] === b[name] || (typeof a[name] === 'object' && JSON.stringify(a[name]) === JSON.stringify(b[name]))),
    )
  );
}
