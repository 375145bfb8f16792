import { orderWords } from '../model/orders.ts';
import type { Sound } from '../model/rig.ts';
import { isUnknown } from './planned-state.ts';
import type { Tracer } from './trace.ts';

/** What the signal passes inside a unit of many blocks, in a sound. */
export interface Inside {
  readonly device: string;
  /** *Drive > [Amp | Second amp] > Delay*. */
  readonly words: string;
  /** As entered for its preset; null where nobody did. */
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
    const latencyMs = device.presets[String(number)]?.latencyMs ?? null;
    const order = anatomy.orders?.find(({ of }) => of.some(({ name }) => blocks.has(name)));
    if (!order) return [{ device: device.id, words: passed.join(' > '), latencyMs }];
    const places = new Map(anatomy.controls.map(({ id }, i) => [id, state[firstControl + i]]));
    const valueOf = (control: string) => {
      const value = places.get(control);
      return isUnknown(value) ? undefined : value;
    };
    if (order.of.some(({ control }) => valueOf(control) === undefined)) return [];
    return [{ device: device.id, words: orderWords(order, valueOf, new Set(passed)) ?? '', latencyMs }];
  });
}
