import { type Command, command, insert, remove, set } from '../change/command.ts';
import { stepsBetween } from '../change/difference.ts';
import { between } from '../change/order.ts';
import { applySteps } from '../change/steps.ts';
import { inOrder, type Show } from '../model/documents.ts';
import type { Variant, VariantStep } from '../model/rig.ts';
import { accept, problem, refuse, type Result } from '../units/problem.ts';
import { sameData } from '../units/same-data.ts';
import { type Conflict, valueAt, variantNamed, variantOf } from './view.ts';

/** So deep a variant names what it changes: a single want of a sound, a single preset. */
const finest = 5;

/** What an edit of a variant is: the command on its base, and the variant's show afterwards. */
export interface VariantEdit {
  readonly command: Command;
  readonly show: Show;
}

/**
 * An edit made while a variant is looked at: what it does to the rig becomes the variant's, songs stay those of the
 * base, and edits of variants themselves go to the base. `shown`: the variant as it is seen.
 */
export function editVariant(base: Show, shown: Show, id: string, edit: Command): Result<VariantEdit> {
  const own = edit.steps.filter(({ doc, at }) => doc === 'rig' && at[0] === 'variants');
  if (own.length > 0) return accept({ command: edit, show: variantOf(base, id).show });
  const variant = variantNamed(base, id)!;
  const { conflicts } = variantOf(base, id);
  // Nothing of it can be seen: an edit would be made on another rig than it is of.
  if (conflicts.some(({ kind }) => kind === 'impossible'))
    return refuse(
      problem(`/rig/variants/${id}`, 'old-value-differs', { now: `a rig that ${variant.name} does not go over` }),
    );
  const edited = applySteps(shown, edit.steps);
  if (!edited.ok) return edited;
  const songs = edit.steps.filter(({ doc }) => doc === 'songbook');
  // A part that goes is played by the rig itself no more either: the songs are those of both.
  const casts = Object.values(base.rig.casting).filter(({ part }) => !Object.hasOwn(edited.value.songbook.parts, part));
  const casting = Object.fromEntries(Object.entries(base.rig.casting).filter(([, cast]) => !casts.includes(cast)));
  const under: Show = casts.length === 0 ? base : { ...base, rig: { ...base.rig, casting } };
  return accept({
    command: command(edit.command.name, { ...edit.command.facts, variant: variant.name }, [
      ...casts.map((cast) => remove(['casting', cast.id], cast)),
      set(['variants', id, 'steps'], stepsTo(under, edited.value, variant, conflicts), variant.steps),
      ...songs,
    ]),
    show: edited.value,
  });
}

/** The steps from a base to a variant’s show; where the two have parted and nobody has settled it, as they were. */
function stepsTo(base: Show, tonight: Show, variant: Variant, open: readonly Conflict[]): readonly VariantStep[] {
  const changed = open.flatMap((conflict) => (conflict.kind === 'changed' ? [variant.steps[conflict.step]] : []));
  const kept = changed.filter((step) => sameData(valueAt(tonight, step.at), step.value));
  const waiting = variant.steps.filter((step, i) =>
    open.some(
      (conflict) =>
        (conflict.kind === 'gone' && conflict.step === i) ||
        (conflict.kind === 'left-out' && isUnder(step.at, conflict.at)),
    ),
  );
  const others = variantSteps(base, tonight).filter(({ at }) => !kept.some((step) => isUnder(at, step.at)));
  return [...others, ...kept, ...waiting];
}

const isUnder = (at: readonly string[], place: readonly string[]): boolean => place.every((key, i) => at[i] === key);

/** What a rig is otherwise than its base. */
export const variantSteps = (base: Show, tonight: Show): readonly VariantStep[] =>
  stepsBetween(alone(base, base), alone(tonight, base), finest).map(({ doc: _, ...step }) => step as VariantStep);

/** A rig without its variants, with the songs of another. */
const alone = ({ rig: { variants: _, ...rig } }: Show, { songbook }: Show): Show => ({ rig, songbook });

// ---- variants themselves ----

/** A variant that is the rig as an edit leaves it; undefined where the edit is refused. */
export function variantBy(base: Show, id: string, name: string, edit: Command): Command | undefined {
  const tonight = applySteps(base, edit.steps);
  if (!tonight.ok) return undefined;
  const added = addVariant(base, id, name);
  const steps = variantSteps(base, tonight.value);
  return {
    ...added,
    steps: added.steps.map((step) =>
      step.op === 'insert' && step.at.at(-1) === id ? { ...step, value: { ...(step.value as Variant), steps } } : step,
    ),
  };
}

/** `like`: begins as another variant; else as the rig itself. */
export function addVariant(base: Show, id: string, name: string, like?: string): Command {
  const variants = base.rig.variants ?? {};
  const variant: Variant = {
    id,
    name,
    order: between(inOrder(variants).at(-1)?.order ?? null, null),
    steps: like === undefined ? [] : (variantNamed(base, like)?.steps ?? []),
  };
  return command('add-variant', { name }, [
    ...(base.rig.variants ? [] : [set(['variants'], {}, undefined)]),
    insert(['variants', id], variant),
  ]);
}

export const setVariant = <K extends 'name' | 'order' | 'steps'>(
  base: Show,
  id: string,
  field: K,
  value: Variant[K],
): Command =>
  command('set-variant', { name: variantNamed(base, id)!.name, field }, [
    set(['variants', id, field], value, variantNamed(base, id)![field]),
  ]);

export const removeVariant = (base: Show, id: string): Command =>
  command('remove-variant', { name: variantNamed(base, id)!.name }, [remove(['variants', id], variantNamed(base, id))]);

/**
 * Settles where a variant and its base have parted: `tonight` keeps the variant's value over what the base has now,
 * `base` takes the base's.
 */
export function settleConflicts(
  base: Show,
  id: string,
  conflicts: readonly Conflict[],
  side: 'tonight' | 'base',
): Command {
  const variant = variantNamed(base, id)!;
  const facts = { name: variant.name, count: conflicts.length };
  const dropped = new Set(
    conflicts.flatMap((conflict) =>
      conflict.kind === 'gone' || (conflict.kind === 'changed' && side === 'base') ? [conflict.step] : [],
    ),
  );
  const left = variant.steps.filter((_, i) => !dropped.has(i));
  // Told anew against the base of today, what stands does so exactly, and what was left out is gone.
  const view = variantOf(
    { ...base, rig: { ...base.rig, variants: { ...base.rig.variants, [id]: { ...variant, steps: left } } } },
    id,
  );
  const isStuck = view.conflicts.some(({ kind }) => kind === 'impossible');
  const settled = new Set(conflicts.map(nameOf));
  const open = variantOf(base, id).conflicts.filter((conflict) => !settled.has(nameOf(conflict)));
  return command('settle-variant', facts, [
    set(['variants', id, 'steps'], isStuck ? [] : stepsTo(base, view.show, variant, open), variant.steps),
  ]);
}

const nameOf = ({ kind, at }: Conflict): string => JSON.stringify([kind, at]);
