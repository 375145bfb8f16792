import { rebaseSteps } from '../change/rebase.ts';
import { applyStep, checkShow, type Step } from '../change/steps.ts';
import { repairShow } from '../change/repair.ts';
import type { Show } from '../model/documents.ts';
import type { Variant, VariantStep } from '../model/rig.ts';
import { sameData } from '../units/same-data.ts';

/** The rig of a variant: its base with the variant's steps over it. */
export interface VariantView {
  readonly show: Show;
  readonly conflicts: readonly Conflict[];
}

/**
 * Where a variant and its base have parted since it was made. `changed`: the base has another value now, tonight's own
 * stands; `gone`: what it changes is not there any more; `left-out`: what it adds refers to what is not there any more;
 * `impossible`: nothing helps, the base is shown.
 */
export type Conflict =
  | {
      readonly kind: 'changed';
      readonly step: number;
      readonly at: readonly string[];
      readonly base: unknown;
      readonly tonight: unknown;
    }
  | { readonly kind: 'gone'; readonly step: number; readonly at: readonly string[] }
  | { readonly kind: 'left-out'; readonly at: readonly string[] }
  | { readonly kind: 'impossible'; readonly at: readonly string[] };

export const variantNamed = ({ rig }: Show, id: string): Variant | undefined =>
  rig.variants && Object.hasOwn(rig.variants, id) ? rig.variants[id] : undefined;

/** A base and one of its variants as one show; the base itself where there is no such variant. */
export function variantOf(base: Show, id: string | null): VariantView {
  const variant = id === null ? undefined : variantNamed(base, id);
  if (!variant) return { show: base, conflicts: [] };
  const conflicts: Conflict[] = [];
  let show = base;
  for (const [i, written] of variant.steps.entries()) {
    const step: Step = { doc: 'rig', ...written } as Step;
    const exact = applyStep(show, step, i);
    if (exact.ok) {
      show = exact.value;
      continue;
    }
    const now = valueAt(show, written.at);
    const [rebased] = rebaseSteps(show, [step]) ?? [null];
    if (rebased === null) conflicts.push({ kind: 'gone', step: i, at: written.at });
    if (!rebased) continue;
    const applied = applyStep(show, rebased, i);
    if (!applied.ok) {
      conflicts.push({ kind: 'gone', step: i, at: written.at });
      continue;
    }
    show = applied.value;
    if (!sameData(now, written.value))
      conflicts.push({ kind: 'changed', step: i, at: written.at, base: now, tonight: written.value });
  }
  if (checkShow(show).ok) return { show, conflicts };
  const mended = repairShow(show);
  if (!mended) return { show: base, conflicts: [...conflicts, { kind: 'impossible', at: ['variants', variant.id] }] };
  const places = new Set(mended.places.map((place) => place.split('/').slice(2, 4).join('/')));
  return { show: mended.show, conflicts: [...conflicts, ...[...places].map(leftOut)] };
}

/** The entry that a repair took out, or took something out of. */
const leftOut = (place: string): Conflict => ({
  kind: 'left-out',
  at: place.split('/').map((token) => token.replaceAll('~1', '/').replaceAll('~0', '~')),
});

/** What a rig has at a path; undefined where there is nothing. */
export function valueAt({ rig }: Show, at: VariantStep['at']): unknown {
  let node: unknown = rig;
  for (const key of at) {
    if (node === null || typeof node !== 'object' || !Object.hasOwn(node, key)) return undefined;
    node = (node as Record<string, unknown>)[key];
  }
  return node;
}
