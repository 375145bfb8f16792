import type { MidiMessage } from '../midi/message.ts';
import { noted } from '../model/notes.ts';
import { type Deed, receive } from './operations.ts';
import type { Plant, PlantDevice } from './plant.ts';

/** What comes of one message wherever it goes: over how many cables, and what it does there, in order. */
export interface HeardMessage {
  readonly hops: number;
  readonly deeds: readonly Deed[];
}

/** By the sender's index. */
const heardFrom = noted(
  ({ machinery }: Plant) => machinery,
  (): Map<number, HeardMessage>[] => [],
);

/** What a device's message does to all that hear it, found once; only where nothing can come round or sends on. */
export function heardBy(plant: Plant, from: PlantDevice, message: Extract<MidiMessage, { readonly kind: 'program' | 'control' }>): HeardMessage {
  const known = (heardFrom(plant)[from.index] ??= new Map<number, HeardMessage>());
  const number = message.kind === 'program' ? message.program : 128 + message.cc * 128 + message.value;
  const key = number * 32 + message.channel;
  let found = known.get(key);
  if (!found) {
    const { hops, heard: listeners } = plant.listeners(from, message.channel);
    const deeds = listeners.length === 1 ? receive(plant, listeners[0], message) : listeners.flatMap((to) => receive(plant, to, message));
    known.set(key, (found = { hops, deeds }));
  }
  return found;
}
