import type { Cable, CableEnd } from '@yunta/core';

type Poles = NonNullable<Cable['poles']>;

/** A way in which a cable may join the poles of its plugs. */
export interface PoleChoice {
  readonly id: string;
  readonly label: string;
  /** Undefined: straight. */
  readonly poles: Cable['poles'];
}

const straight: PoleChoice = { id: 'straight', label: 'straight', poles: undefined };

/**
 * The ways that make sense for a cable, by how many poles its plugs have; one alone where nothing can be chosen. A
 * wiring of another kind is offered as it is.
 */
export function poleChoices(cable: Pick<Cable, 'poles'>, ends: readonly CableEnd[]): readonly PoleChoice[] {
  const two = ends.filter(({ jack }) => (jack?.poles?.length ?? 1) > 1);
  const one = ends.filter(({ jack }) => (jack?.poles?.length ?? 1) === 1);
  if (two.length === 0) return cable.poles ? [straight, asItIs(cable.poles)] : [straight];
  const found = [straight];
  const [stereo] = two;
  const wire = (pole: string, ...others: readonly CableEnd[]) => [
    { plug: stereo.index, pole },
    ...others.map(({ index }) => ({ plug: index, pole: 'tip' })),
  ];
  if (two.length === 1 && one.length === 2)
    found.push({ id: 'pair', label: 'left and right', poles: [wire('tip', one[0]), wire('ring', one[1])] });
  if (two.length === 1 && one.length === 1)
    found.push(
      { id: 'right', label: 'right side only', poles: [wire('ring', one[0])] },
      {
        id: 'both',
        label: 'mono to both sides',
        poles: [[...wire('tip', one[0]), { plug: stereo.index, pole: 'ring' }]],
      },
    );
  if (two.length === 2 && one.length === 0)
    found.push({
      id: 'crossed',
      label: 'left and right crossed',
      poles: [
        [
          { plug: two[0].index, pole: 'tip' },
          { plug: two[1].index, pole: 'ring' },
        ],
        [
          { plug: two[0].index, pole: 'ring' },
          { plug: two[1].index, pole: 'tip' },
        ],
      ],
    });
  return cable.poles && !found.some((choice) => isSame(choice.poles, cable.poles))
    ? [...found, asItIs(cable.poles)]
    : found;
}

const asItIs = (poles: Poles): PoleChoice => ({ id: 'own', label: 'as entered', poles });

/** Which of the ways it is. */
export const poleChoiceOf = (cable: Pick<Cable, 'poles'>, choices: readonly PoleChoice[]): PoleChoice =>
  choices.find((choice) => isSame(choice.poles, cable.poles)) ?? straight;

/** Whether two wirings join the same poles, in whichever order they are written. */
function isSame(a: Cable['poles'], b: Cable['poles']): boolean {
  const told = (poles: Cable['poles']) =>
    (poles ?? [])
      .map((wire) =>
        wire
          .map(({ plug, pole }) => `${plug}.${pole}`)
          .sort()
          .join(' '),
      )
      .sort()
      .join('; ');
  return told(a) === told(b);
}
