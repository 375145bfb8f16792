import { wordsOfLoss } from '../deliver/delivery.ts';
import type { Reached } from '../explore/state-space.ts';
import type { Row, Stepper } from '../explore/stepper.ts';
import type { RigEvent } from '../deliver/events.ts';
import type { StateModel } from '../state/state-model.ts';
import { assertNever } from '../../units/problem.ts';

/** One step of a sequence: what happens, by ids, with what was lost on the way. */
export type SequenceStep = (
  | { readonly kind: 'press'; readonly slot: string; readonly never?: boolean }
  | { readonly kind: 'bank'; readonly controller: string; readonly by: 1 | -1 }
  | { readonly kind: 'hold' | 'release'; readonly controller: string; readonly momentary: string }
  | { readonly kind: 'foot'; readonly device: string; readonly switch: string; readonly stray: boolean }
  | { readonly kind: 'cue'; readonly control: string; readonly value: string }
  | { readonly kind: 'outside'; readonly device: string; readonly channel: number; readonly program: number }
  | { readonly kind: 'restart'; readonly device: string }
) & {
  /** Which of the event's messages or pulses is lost, with where in words. */
  readonly lost?: { readonly point: number; readonly words: string };
};

/** What power-up must bring, where it leaves a choice. */
export interface Need {
  readonly device: string;
  readonly part: string;
  readonly value: string;
}

/**
 * What is lost while a slot fires by itself at power-up: of which controller, which message or pulse, with where in
 * words.
 */
export interface LostAtPowerUp {
  readonly device: string;
  readonly point: number;
  readonly words: string;
}

/** What leads to a wrong sound: what power-up must bring, and what is done then. */
export interface Sequence {
  readonly needs: readonly Need[];
  readonly lostAtPowerUp?: LostAtPowerUp;
  readonly steps: readonly SequenceStep[];
}

/** The steps that lead to a reached row, and the power-up values that it starts from where power-up leaves a choice. */
export function pathTo(model: StateModel, stepper: Stepper, to: Reached): Sequence {
  const steps: SequenceStep[] = [];
  let here: Reached = to;
  while (here.from && here.move) {
    steps.unshift({
      ...stepOf(model, here.move.compiled.event),
      ...(here.move.lost === undefined
        ? {}
        : { lost: { point: here.move.lost.id, words: wordsOfLoss(here.move.lost) } }),
    });
    here = here.from;
  }
  const { cold, initialLost } = here;
  return {
    needs: choicesOf(model, stepper, cold ?? here.row),
    ...(initialLost
      ? {
          lostAtPowerUp: {
            device: initialLost.firing.id,
            point: initialLost.point.id,
            words: wordsOfLoss(initialLost.point),
          },
        }
      : {}),
    steps,
  };
}

export function stepOf(model: StateModel, event: RigEvent): SequenceStep {
  switch (event.kind) {
    case 'press':
      return { kind: 'press', slot: event.slot.slot.id };
    case 'bank':
      return { kind: 'bank', controller: event.controller.id, by: event.by };
    case 'hold':
    case 'release':
      return { kind: event.kind, controller: event.controller.id, momentary: event.momentary };
    case 'foot':
      return { kind: 'foot', device: event.device.id, switch: event.footSwitch.id, stray: event.stray };
    case 'cue':
      return { kind: 'cue', control: event.control, value: String(model.values.literal(event.value)) };
    case 'outside':
      return {
        kind: 'outside',
        device: event.device.id,
        channel: event.message.channel,
        program: event.message.program,
      };
    case 'restart':
      return { kind: 'restart', device: event.device.id };
    default:
      return assertNever(event, 'event');
  }
}

/** Variables that a stepper follows and power-up does not settle, with the values of the row that a way starts from. */
export function choicesOf(model: StateModel, stepper: Stepper, start: Row): Sequence['needs'] {
  const rows = stepper.comesUp();
  const named = new Set<string>();
  return stepper.variables.flatMap((variable, column) => {
    if (rows.every((row) => row[column] === rows[0][column])) return [];
    const { device, part } = model.variables[variable];
    const value = model.values.literal(start[column]);
    // A preset and the one remembered before it come up alike.
    if (value === undefined || named.has(`${device}/${part}`)) return [];
    named.add(`${device}/${part}`);
    return [{ device, part, value: String(value) }];
  });
}
