import { anatomyOf } from '../model/archetypes/registry.ts';
import { castsByPart, slotOfCast, soundOfCast } from '../model/casting.ts';
import { inOrder, type Show } from '../model/documents.ts';
import { chosenSetList } from '../model/set-order.ts';
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

/** Where sounds come to lie: the slots, and by casting the slot that it plays from then on. */
export interface Layout {
  readonly slots: readonly Slot[];
  readonly recast: ReadonlyMap<string, string>;
}

/** What one slot plays in one song: two songs that use a sound have a slot of it each. */
interface SongItem {
  readonly song: string | null;
  readonly slot: Pick<Slot, 'sound' | 'actions'>;
  /** The slot that it had, if any. */
  readonly old: Slot | null;
  readonly casts: string[];
}

/**
 * Banks by song: each song has banks of its own, its sounds in the order of first use; songs in the order of the chosen
 * set list, the others after them, and last the sounds that no song uses. Slots without a sound stay where they are.
 * Says how many banks it would take where they do not fit.
 */
export function layBySong(show: Show, controller: string): Layout | { readonly needsBanks: number } | null {
  const { rig } = show;
  const facts = anatomyOf(rig.devices[controller].type).controller;
  if (!facts) return null;
  const taken = new Set(
    Object.values(rig.slots).flatMap((slot) =>
      slot.controller === controller && slot.sound === null ? [`${slot.bank}.${slot.position}`] : [],
    ),
  );
  const usedIds = new Set<string>();
  const idFor = ({ old, slot, song }: SongItem): string => {
    const wished =
      old && !usedIds.has(old.id) ? old.id : `slot-${slot.sound}${song === null ? '' : `-${song}`}`.slice(0, 60);
    let id = wished;
    for (let n = 2; usedIds.has(id) || (id !== old?.id && Object.hasOwn(rig.slots, id)); n += 1) id = `${wished}-${n}`;
    usedIds.add(id);
    return id;
  };
  const slots: Slot[] = [];
  const recast = new Map<string, string>();
  let next = 0;
  const free = (): { bank: number; position: number } => {
    for (; ; next += 1) {
      const place = { bank: Math.floor(next / facts.positions), position: next % facts.positions };
      if (!taken.has(`${place.bank}.${place.position}`)) {
        next += 1;
        return place;
      }
    }
  };
  for (const items of itemsBySong(show, controller)) {
    next = Math.ceil(next / facts.positions) * facts.positions;
    for (const item of items) {
      const id = idFor(item);
      slots.push({ id, controller, ...free(), sound: item.slot.sound, actions: item.slot.actions });
      for (const cast of item.casts) recast.set(cast, id);
    }
  }
  const needsBanks = Math.max(0, ...slots.map((slot) => slot.bank)) + 1;
  return needsBanks > facts.banks ? { needsBanks } : { slots, recast };
}

/** What each song plays, in the order of the set; last what none plays. */
function itemsBySong(show: Show, controller: string): readonly (readonly SongItem[])[] {
  const { rig, songbook } = show;
  const played = chosenSetList(show)?.songs ?? [];
  const songs = [...new Set([...played, ...inOrder(songbook.songs).map((song) => song.id)])];
  const casts = castsByPart(rig);
  const parts = inOrder(songbook.parts);
  const used = new Set<string>();
  const bySong = songs.map((song) => {
    const items = new Map<string, SongItem>();
    for (const part of parts) {
      const cast = part.song === song ? casts.get(part.id) : undefined;
      const old = cast && slotOfCast(rig, cast);
      const sound = cast && soundOfCast(rig, cast)?.id;
      if (!cast || sound === undefined || (old && old.controller !== controller)) continue;
      // What feet bring up today has a slot then.
      const slot: SongItem['slot'] = old ?? { sound, actions: null };
      const key = `${sound}|${JSON.stringify(slot.actions)}`;
      const item = items.get(key) ?? { song, slot, old: old ?? null, casts: [] };
      items.set(key, item);
      item.casts.push(cast.id);
      used.add(sound);
    }
    return [...items.values()];
  });
  const own = new Map(
    Object.values(rig.slots).flatMap((slot) =>
      slot.controller === controller && slot.sound !== null ? [[slot.sound, slot] as const] : [],
    ),
  );
  const rest = inOrder(rig.sounds).flatMap((sound): SongItem[] => {
    if (used.has(sound.id)) return [];
    const old = own.get(sound.id) ?? null;
    return [{ song: null, slot: old ?? { sound: sound.id, actions: null }, old, casts: [] }];
  });
  return [...bySong, rest].filter((items) => items.length > 0);
}
