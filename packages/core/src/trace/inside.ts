import { orderWords } from '../model/orders.ts';
import type { Sound, StoredPreset } from '../model/rig.ts';
import { isUnknown, type PlannedValue } from './planned-state.ts';
import type { Tracer } from './trace.ts';

/** What the signal passes inside a unit of many blocks, in a sound. */
export interface Inside {
  readonly device: string;
  /** *Drive > [Amp | Second amp] > Delay*. */
  readonly words: string;
  /** As entered for its preset, or for the state that is on in it; null where nobody did. */
  readonly latencyMs: number | null;
}

/**
 * Of each unit with several blocks those that the signal passes, in the order in which its preset has them; none of one
 * that is not passed, or of which nobody entered what decides.
 */
export function insideOf(tracer: Tracer, sound: Sound | null): readonly Inside[] {
  const state = tracer.stateOf(sound);
  const { wiring, graph } = tracer;
  const names = new Map<string, string[]>();
  for (const { index, device, active, effect, label } of graph.edges) {
    if (!active || effect === undefined || !tracer.passesThrough(sound, index)) continue;
    const known = names.get(device) ?? [];
    if (!known.includes(label)) names.set(device, [...known, label]);
  }
  return wiring.devices.flatMap(({ device, anatomy, firstControl }): readonly Inside[] => {
    const passed = names.get(device.id) ?? [];
    const blocks = new Set(anatomy.sections.flatMap(({ active, effect, label }) => (active && effect ? [label] : [])));
    if (!anatomy.presets || blocks.size < 2 || passed.length === 0) return [];
    const number = state[firstControl + anatomy.controls.length];
    const places = new Map(anatomy.controls.map(({ id }, i) => [id, state[firstControl + i]]));
    const latencyMs = latencyOf(device.presets[String(number)], anatomy.presets.state, places);
    const order = anatomy.orders?.find(({ of }) => of.some(({ name }) => blocks.has(name)));
    if (!order) return [{ device: device.id, words: passed.join(' > '), latencyMs }];
    const valueOf = (control: string) => {
      const value = places.get(control);
      return isUnknown(value) ? undefined : value;
    };
    if (order.of.some(({ control }) => valueOf(control) === undefined)) return [];
    return [{ device: device.id, words: orderWords(order, valueOf, new Set(passed)) ?? '', latencyMs }];
  });
}

/** Of the state that is on, where one was entered for it; else of the whole preset. Null where nobody knows which. */
function latencyOf(
  preset: StoredPreset | undefined,
  stateControl: string | undefined,
  places: ReadonlyMap<string, PlannedValue>,
): number | null {
  const { latencyMs = null, latencyInState = {} } = preset ?? {};
  if (stateControl === undefined || Object.keys(latencyInState).length === 0) return latencyMs;
  const value = places.get(stateControl);
  return isUnknown(value) ? null : (latencyInState[String(value)] ?? latencyMs);
}
