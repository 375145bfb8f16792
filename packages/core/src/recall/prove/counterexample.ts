import { assertNever } from '../../units/problem.ts';
import type { RigEvent } from '../deliver/events.ts';
import { lossAt, type Sequence, type SequenceStep } from '../deliver/sequence.ts';
import type { Row } from '../explore/row.ts';
import type { Reached } from '../explore/state-space.ts';
import type { Stepper } from '../explore/stepper.ts';
import type { StateModel } from '../state/state-model.ts';

/** The steps that lead to a reached row, and the power-up values that it starts from where power-up leaves a choice. */
export function pathTo(model: StateModel, stepper: Stepper, to: Reached): Sequence {
  const steps: SequenceStep[] = [];
  let here: Reached = to;
  while (here.from && here.move) {
    steps.unshift({
      ...stepOf(model, here.move.compiled.event),
      ...(here.move.lost === undefined ? {} : { lost: lossAt(here.move.lost) }),
    });
    here = here.from;
  }
  const { cold, initialLost } = here;
  return {
    needs: choicesOf(model, stepper, cold ?? here.row),
    ...(initialLost ? { lostAtPowerUp: { firing: initialLost.firing.id, ...lossAt(initialLost.point) } } : {}),
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
      return { kind: 'cue', control: event.control, value: String(model.values.controlValue(event.value)) };
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
    const value = model.values.controlValue(start[column]);
    // A preset and the one remembered before it come up alike.
    if (value === undefined || named.has(`${device}/${part}`)) return [];
    named.add(`${device}/${part}`);
    return [{ device, part, value: String(value) }];
  });
}
