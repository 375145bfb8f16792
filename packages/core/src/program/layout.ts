import { anatomyOf } from '../model/archetypes/registry.ts';
import { inOrder } from '../model/documents.ts';
import { type Rig, type Slot } from '../model/rig.ts';

/**
 * Banks by role: the same kind of sound under the same foot in every bank. Each role owns one switch, in the
 * order of the rig's roles; a sound goes into the first bank where its role's switch is free. Sounds with no
 * role, or past the switches, take what is left. Null where they do not all fit.
 */
export function layByRole(rig: Rig, controller: string): readonly Slot[] | null {
  const facts = anatomyOf(rig.devices[controller].type).controller;
  if (!facts) return null;
  // Slots without a sound (written by hand, for a mute or the like) stay where they are.
  const taken = new Set(
    Object.values(rig.slots).flatMap((slot) =>
      slot.controller === controller && slot.sound === null ? [`${slot.bank}.${slot.position}`] : [],
    ),
  );
  const seat = new Map(rig.settings.roles.slice(0, facts.positions).map((role, position) => [role, position]));
  const sounds = inOrder(rig.sounds);
  const placed = new Map<string, { bank: number; position: number }>();
  const place = (id: string, positions: readonly number[]): boolean => {
    for (let bank = 0; bank < facts.banks; bank += 1)
      for (const position of positions) {
        const key = `${bank}.${position}`;
        if (taken.has(key)) continue;
        taken.add(key);
        placed.set(id, { bank, position });
        return true;
      }
    return false;
  };
  const everywhere = Array.from({ length: facts.positions }, (_, i) => i);
  for (const sound of sounds) if (seat.has(sound.role) && !place(sound.id, [seat.get(sound.role)!])) return null;
  for (const sound of sounds) if (!placed.has(sound.id) && !place(sound.id, everywhere)) return null;
  const known = new Map(
    Object.values(rig.slots).flatMap((slot) =>
      slot.controller === controller && slot.sound !== null ? [[slot.sound, slot] as const] : [],
    ),
  );
  return sounds.map((sound) => {
    const old = known.get(sound.id);
    return {
      id: old?.id ?? `slot-${sound.id}`,
      controller,
      ...placed.get(sound.id)!,
      sound: sound.id,
      actions: old?.actions ?? null,
    };
  });
}
