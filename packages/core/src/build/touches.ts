import { castsByPart, slotOfCast, soundOfCast } from '../model/casting.ts';
import type { Show } from '../model/documents.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { playedParts } from '../model/set-order.ts';

/**
 * How often a foot goes to each device in the set: to a controller for each part that one of its slots plays (the same
 * slot twice in a row once), for every foot action that the casting plans, and where a part is played by feet to each
 * pedal whose state differs from the part before.
 */
export function touchesOf(show: Show): ReadonlyMap<string, number> {
  const touches = new Map<string, number>();
  const touch = (device: string): void => void touches.set(device, (touches.get(device) ?? 0) + 1);
  const casts = castsByPart(show.rig);
  let slotBefore: string | undefined;
  let pedals: Readonly<Record<string, 'on' | 'off'>> = {};
  for (const part of playedParts(show)) {
    const cast = casts.get(part.id);
    if (!cast) continue;
    const slot = slotOfCast(show.rig, cast);
    if (slot && (slot.id !== slotBefore || cast.again)) touch(slot.controller);
    slotBefore = slot?.id ?? slotBefore;
    for (const action of [...cast.before, ...cast.after]) if (action.kind === 'foot') touch(action.device);
    const sound = soundOfCast(show.rig, cast);
    if (sound && !slot)
      for (const [device, state] of Object.entries(sound.pedals))
        if ((pedals[device] ?? 'off') !== state && hasSwitch(show, device)) touch(device);
    pedals = sound?.pedals ?? pedals;
  }
  return touches;
}

const hasSwitch = ({ rig }: Show, id: string): boolean =>
  Object.hasOwn(rig.devices, id) && anatomyOf(rig.devices[id].type).switches.length > 0;
