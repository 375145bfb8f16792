import type { MidiMessage } from '../../midi/message.ts';
import { memoised } from '../../model/memo.ts';
import type { ModelDevice, StateModel } from '../state/state-model.ts';
import { receive } from './receive.ts';
import { type Update } from './update.ts';

/** What comes of one message wherever it goes: over how many cables, and what it does there, in order. */
export interface HeardMessage {
  readonly hops: number;
  readonly updates: readonly Update[];
}

/** By the sender's index. */
const heardFrom = memoised(
  ({ modelMemo }: StateModel) => modelMemo,
  (): Map<number, HeardMessage>[] => [],
);

/** What a device's message does to all that hear it, found once; only where nothing can come round or sends on. */
export function heardBy(
  model: StateModel,
  from: ModelDevice,
  message: Extract<MidiMessage, { readonly kind: 'program' | 'control' }>,
): HeardMessage {
  const known = (heardFrom(model)[from.index] ??= new Map<number, HeardMessage>());
  const number = message.kind === 'program' ? message.program : 128 + message.cc * 128 + message.value;
  const key = number * 32 + message.channel;
  let found = known.get(key);
  if (!found) {
    const { hops, heard: listeners } = model.listeners(from, message.channel);
    const updates =
      listeners.length === 1
        ? receive(model, listeners[0], message)
        : listeners.flatMap((to) => receive(model, to, message));
    known.set(key, (found = { hops, updates }));
  }
  return found;
}
