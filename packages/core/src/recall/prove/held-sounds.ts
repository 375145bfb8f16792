import type { Control } from '../../model/anatomy.ts';
import type { Prover } from './prover.ts';
import { compileEvent } from '../explore/event-table.ts';
import { Stepper } from '../explore/stepper.ts';
import { widening } from '../explore/widening.ts';
import type { VariableId } from '../state/ids.ts';
import { followVariable, stepped } from './follow-variable.ts';

/** What keeps a sound ringing while it is on, and where the set leaves it so. */
export interface HeldSound {
  readonly device: string;
  readonly control: Control;
  /** Parts of the set, by their place in it, after which it may be on. */
  readonly onAfter: readonly number[];
  /** Whether the press of some slot sends it off. */
  readonly isCleared: boolean;
}

/** Every control that holds a sound, with the set played from power-up and each slot tried. */
export const heldSounds = (prover: Prover): readonly HeldSound[] =>
  prover.model.devices.flatMap((device) =>
    [...device.controls.values()]
      .filter(({ control }) => control.holds)
      .map(({ control, variable, options }) => ({
        device: device.wired.device.id,
        control,
        onAfter: onAfter(prover, variable, options[1]),
        isCleared: isCleared(prover, variable, options),
      })),
  );

const onAfter = (prover: Prover, variable: VariableId, on: number): readonly number[] =>
  followVariable(prover, variable).flatMap(({ left }, i) => (left.includes(on) ? [i] : []));

/** Whether some slot’s press writes it at all, and leaves it off from on. */
function isCleared({ model }: Prover, variable: VariableId, [off, on]: readonly number[]): boolean {
  return model.slots.some((slot) => {
    const compiled = compileEvent(model, { kind: 'press', slot }, 0);
    if (![...compiled.summary.written].includes(variable)) return false;
    const variables = new Set([variable]);
    return widening(variables, (sorted) => {
      const stepper = new Stepper(model, sorted, new Map());
      const [{ row }] = stepper.initial(new Set());
      const held = row.slice();
      held[stepper.place[variable]] = on;
      return stepped(stepper, [held], compiled).every((after) => after[stepper.place[variable]] === off);
    });
  });
}
