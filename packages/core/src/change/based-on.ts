import type { Show } from '../model/documents.ts';
import { baseOf, followersOf, type Wanted, wantedOf } from '../model/based-on.ts';
import { freshId, freshName } from '../model/names.ts';
import type { ControlValue } from '../model/anatomy.ts';
import type { Sound } from '../model/rig.ts';
import { slotsOfController } from '../model/slots.ts';
import { sameData } from '../units/same-data.ts';
import { addSlot, addSound, cueSteps } from './commands.ts';
import { type Command, command, set } from './command.ts';
import type { Step } from './steps.ts';

/**
 * The steps of an edit, with what it changes in the sounds that build on those it edits: one that held the same as its
 * base follows it, one with a value of its own keeps that. What the edit itself says of a sound goes first.
 */
export function withFollowers(show: Show, steps: readonly Step[]): readonly Step[] {
  const { rig } = show;
  const copied = copiedSlots(show, steps);
  if (!Object.values(rig.sounds).some(({ basedOn }) => basedOn))
    return copied.length > 0 ? [...steps, ...copied] : steps;
  const said = new Set(steps.flatMap((step) => wantedIn(step)?.place ?? []));
  const more: Step[] = [];
  const follow = (base: string, wanted: Wanted, old: unknown, value: unknown): void => {
    for (const sound of followersOf(rig, base)) {
      const place = `${sound.id} ${wanted.field} ${wanted.key}`;
      if (said.has(place) || wantedOf(sound, wanted) !== old) continue;
      said.add(place);
      more.push(set(['sounds', sound.id, wanted.field, wanted.key], value, old));
      if (wanted.field === 'wants') {
        const wants = Object.fromEntries(Object.entries(sound.wants).filter(([key]) => key !== wanted.key));
        const next = { ...sound, wants: value === undefined ? wants : { ...wants, [wanted.key]: value } };
        more.push(...cueSteps(rig, next as Sound, wanted.key));
      }
      follow(sound.id, wanted, old, value);
    }
  };
  for (const step of steps) {
    const found = wantedIn(step);
    if (found && step.op === 'set') follow(found.sound, found.wanted, step.old, step.value);
  }
  return more.length + copied.length > 0 ? [...steps, ...more, ...copied] : steps;
}

/** Slots that are copies of one whose actions an edit writes, and did the same before. */
function copiedSlots({ rig }: Show, steps: readonly Step[]): readonly Step[] {
  const said = new Set(steps.map(({ at }) => at.join('/')));
  return steps.flatMap((step): readonly Step[] => {
    const { doc, op, at } = step;
    if (doc !== 'rig' || op !== 'set' || at[0] !== 'slots' || at[2] !== 'actions' || at.length !== 3) return [];
    return Object.values(rig.slots).flatMap((slot) =>
      slot.copyOf === at[1] &&
      slot.actions !== null &&
      Array.isArray(step.value) &&
      sameData(slot.actions, step.old) &&
      !said.has(`slots/${slot.id}/actions`)
        ? [set(['slots', slot.id, 'actions'], step.value, slot.actions)]
        : [],
    );
  });
}

function wantedIn({
  doc,
  at,
}: Step): { readonly sound: string; readonly wanted: Wanted; readonly place: string } | undefined {
  const [collection, sound, field, key] = at;
  return doc === 'rig' && collection === 'sounds' && (field === 'wants' || field === 'pedals') && key !== undefined
    ? { sound, wanted: { field, key }, place: `${sound} ${field} ${key}` }
    : undefined;
}

/** A sound builds on another, or (undefined) on none any more: what it holds stays as it is. */
export function buildOn(show: Show, sound: string, base: string | undefined): Command {
  const old = show.rig.sounds[sound];
  return command('build-on', { sound: old.name, base: base === undefined ? 'none' : show.rig.sounds[base].name }, [
    set(['sounds', sound, 'basedOn'], base === undefined ? undefined : { sound: base }, old.basedOn),
  ]);
}

/** A new sound that is another one until it is made otherwise. */
export function addBuiltOn(show: Show, id: string, name: string, base: Sound): Command {
  const { steps } = addSound(show, id, name, base);
  return command('add-sound', { sound: name }, [
    ...steps,
    set(['sounds', id, 'basedOn'], { sound: base.id }, undefined),
  ]);
}

/** In what alone a sound may be otherwise than its base; undefined: in anything, it is no twin. */
export function setTwin(show: Show, sound: string, only: readonly string[] | undefined): Command {
  const { name, basedOn } = show.rig.sounds[sound];
  return command('set-twin', { sound: name }, [
    set(['sounds', sound, 'basedOn'], { sound: basedOn!.sound, ...(only ? { only } : {}) }, basedOn),
  ]);
}

/** Puts a sound back to what its base has in these. */
export function revertTo(show: Show, sound: string, wanted: readonly Wanted[]): Command {
  const own = show.rig.sounds[sound];
  const base = baseOf(show.rig, own)!;
  return command('put-back', { sound: own.name, base: base.name }, [
    ...withFollowers(
      show,
      wanted.map((each) => set(['sounds', sound, each.field, each.key], wantedOf(base, each), wantedOf(own, each))),
    ),
  ]);
}

/**
 * A bank of twins: each sound of one bank once more in another, on the same switches, the same but for one control
 * (the input of the cable instead of the radio’s). Null where a switch there is taken, or the bank is empty.
 */
export function twinBank(
  show: Show,
  controller: string,
  from: number,
  to: number,
  difference: { readonly ref: string; readonly value: ControlValue; readonly name: string },
): Command | null {
  const slots = slotsOfController(show.rig, controller);
  const own = slots.filter(({ bank, sound }) => bank === from && sound !== null);
  if (own.length === 0 || slots.some(({ bank }) => bank === to)) return null;
  const sounds: Record<string, Sound> = { ...show.rig.sounds };
  const steps = own.flatMap(({ position, sound }): readonly Step[] => {
    const base = show.rig.sounds[sound!];
    const name = freshName(
      `${base.name}, ${difference.name}`,
      Object.values(sounds).map((each) => each.name),
    );
    const id = freshId(name, sounds, 'sound');
    const twin: Sound = {
      ...base,
      id: id as Sound['id'],
      name,
      wants: { ...base.wants, [difference.ref]: difference.value },
      basedOn: { sound: base.id, only: [difference.ref] },
    };
    const [step] = addSound({ ...show, rig: { ...show.rig, sounds } }, id, name, base).steps;
    sounds[id] = { ...twin, order: (step as { value: Sound }).value.order };
    const slot = {
      id: freshId(`slot-${id}`, show.rig.slots, 'slot'),
      controller,
      bank: to,
      position,
      sound: id,
      actions: null,
    };
    return [
      { doc: 'rig', op: 'insert', at: ['sounds', id], value: sounds[id] },
      ...addSlot({ ...show, rig: { ...show.rig, sounds } }, slot as never).steps,
    ];
  });
  return command('twin-bank', { from: from + 1, to: to + 1 }, steps);
}
