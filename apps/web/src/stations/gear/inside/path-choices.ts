import {
  type Anatomy,
  conditionParts,
  domainLabel,
  domainValues,
  editAnatomy,
  jackFacts,
  pointWords,
  type Section,
} from '@yunta/core';
import type { Choice } from '../../../ui/choices.ts';

/** Where a path may begin: jacks that take in and their rings, points inside, one more point. */
export const startsOf = (anatomy: Anatomy): readonly Choice[] => pointsOf(anatomy, 'in');
/** Where it may end: the same with jacks that give out. */
export const endsOf = (anatomy: Anatomy): readonly Choice[] => pointsOf(anatomy, 'out');

function pointsOf(anatomy: Anatomy, direction: 'in' | 'out'): readonly Choice[] {
  const jacks = anatomy.jacks
    .filter((jack) => jackFacts(jack.kind).carries === 'signal' && jackFacts(jack.kind).direction === direction)
    .flatMap((jack) => [jack.id, ...(jack.poles?.includes('ring') ? [`${jack.id}.ring`] : [])]);
  const inside = editAnatomy.innerPoints(anatomy);
  const fresh = editAnatomy.freshPoint(anatomy);
  return [
    ...[...jacks, ...inside].map((point) => ({ value: point, label: pointWords(anatomy, point) })),
    { value: fresh, label: `${pointWords(anatomy, fresh)} (new)` },
  ];
}

/** What a path may ask for: a control on a value, a jack with a plug or without. */
export function conditionChoices(anatomy: Anatomy, { when }: Section): readonly Choice[] {
  const asked = (id: string, value: unknown): boolean => when?.controls?.[id]?.includes(value as never) ?? false;
  const controls = anatomy.controls
    .filter(({ domain }) => domain.kind !== 'range')
    .flatMap((control) =>
      domainValues(control.domain)
        .filter((value) => !asked(control.id, value))
        .map((value) => ({
          value: JSON.stringify({ control: control.id, value }),
          label: `${control.label} is ${domainLabel(control.domain, value)}`,
        })),
    );
  const plugs = anatomy.jacks
    .filter((jack) => when?.plugs?.[jack.id] === undefined)
    .flatMap((jack) => [
      { value: JSON.stringify({ plug: jack.id, plugged: true }), label: `a plug is in ${jack.label}` },
      { value: JSON.stringify({ plug: jack.id, plugged: false }), label: `nothing is in ${jack.label}` },
    ]);
  return [...controls, ...plugs];
}

type Condition =
  { readonly control: string; readonly value: string | number } | { readonly plug: string; readonly plugged: boolean };

/** The path with one thing more that it asks for; of one control several values are one or the other. */
export function withCondition(anatomy: Anatomy, section: Section, picked: string): Anatomy {
  const condition = JSON.parse(picked) as Condition;
  if ('plug' in condition) return editAnatomy.setPathPlug(anatomy, section.id, condition.plug, condition.plugged);
  const before = section.when?.controls?.[condition.control] ?? [];
  return editAnatomy.setPathControl(anatomy, section.id, condition.control, [...before, condition.value]);
}

/** What it asks for, each by itself: the key is that of what it asks of. */
export const conditionChips = (anatomy: Anatomy, { when }: Section) =>
  conditionParts(anatomy, when).map(({ of, id, words }) => ({ key: `${of} ${id}`, words }));

export function withoutCondition(anatomy: Anatomy, section: Section, key: string): Anatomy {
  const [kind, id] = key.split(' ');
  return kind === 'plug'
    ? editAnatomy.setPathPlug(anatomy, section.id, id, undefined)
    : editAnatomy.setPathControl(anatomy, section.id, id, undefined);
}
