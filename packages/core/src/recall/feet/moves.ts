import type { ControlValue } from '../../model/anatomy.ts';
import { inOrder } from '../../model/documents.ts';
import type { CastAction, ControlRef } from '../../model/rig.ts';
import { ownerOf } from '../../model/wiring.ts';
import { type SoundTarget, unwanted } from '../audible/sound-target.ts';
import { eventOfCast } from '../deliver/events.ts';
import { type CompiledEvent, compileEvent } from '../explore/event-table.ts';
import type { VariableId } from '../state/ids.ts';
import type { StateModel } from '../state/state-model.ts';
import type { Belief, Machine } from './machine.ts';
import type { Machines } from './machines.ts';

/** A press or a hand move, with its place in document order: feet first, then hands. */
export interface Move {
  readonly action: CastAction;
  readonly compiled: CompiledEvent;
  readonly order: number;
  /** Variables that decide whether some of it happens at all. */
  readonly armedBy: readonly VariableId[];
}

/** Of a control with more values than these a hand is tried at the wanted one only. */
const mostPositions = 12;

interface PlayersControl {
  readonly ref: ControlRef;
  readonly variable: VariableId;
  readonly values: readonly ControlValue[];
  /** Whether a hand may put it anywhere; else only where nobody knows how it stands, and the player sees to it. */
  readonly isFree: boolean;
  readonly order: number;
}

/** What feet and hands can do on a rig. */
export class Moves {
  readonly feet: readonly Move[];
  private readonly players: readonly PlayersControl[];
  private readonly hands = new Map<string, Move>();
  private readonly feetOf = new Map<Machine, readonly Move[]>();
  private readonly playersOf = new Map<Machine, readonly PlayersControl[]>();

  constructor(private readonly model: StateModel) {
    const devices = inOrder(model.wiring.rig.devices).flatMap(({ id }) => model.device.get(id) ?? []);
    this.feet = devices
      .flatMap((device) =>
        device.wired.anatomy.switches.map((footSwitch): Omit<Move, 'order'> => {
          const action: CastAction = { kind: 'foot', device: device.wired.device.id, switch: footSwitch.id };
          const armedBy = footSwitch.actions.flatMap((does) =>
            'flip' in does || !does.armed ? [] : (device.controls.get(does.armed.control)?.variable ?? []),
          );
          return {
            action,
            compiled: compileEvent(model, { kind: 'foot', device, footSwitch, stray: false }, 0),
            armedBy,
          };
        }),
      )
      .map((move, order) => ({ ...move, order }));
    const footed = new Set(this.feet.flatMap(({ compiled }) => [...compiled.summary.written]));
    let order = this.feet.length;
    this.players = devices.flatMap((device) =>
      [...device.controls.values()].flatMap(({ id, control, variable, options }): PlayersControl[] => {
        const owner = ownerOf(device.wired, control);
        const isFree = owner === 'hand' || owner === 'live' || (owner === 'foot' && !footed.has(variable));
        if (!isFree && !footed.has(variable)) return [];
        const values = options.map((option) => model.values.controlValue(option)!);
        const first = order;
        order += values.length;
        return [{ ref: `${device.id}/${id}`, variable, values, isFree, order: first }];
      }),
    );
  }

  feetOn(machines: Machines, machine: Machine): readonly Move[] {
    let found = this.feetOf.get(machine);
    if (!found)
      this.feetOf.set(
        machine,
        (found = this.feet.filter(({ compiled }) => machines.movedBy(compiled).includes(machine))),
      );
    return found;
  }

  /** What hands can do to a machine: freely, and where `looking` by seeing to what nobody knows. */
  handsOn(machine: Machine, belief: Belief, target: SoundTarget, looking: boolean): readonly Move[] {
    return this.playersOn(machine).flatMap((control) => {
      if (!control.isFree && !(looking && machine.valuesOf(belief, control.variable).length > 1)) return [];
      const wanted = target.wants(control.variable);
      const values =
        control.values.length <= mostPositions
          ? control.values
          : wanted === unwanted
            ? []
            : [this.model.values.controlValue(wanted)].filter((value) => value !== undefined);
      return values.map((value) => this.hand(control, value));
    });
  }

  /** Whether anything at all moves a variable by foot or hand. */
  canMove(variable: VariableId): boolean {
    return this.players.some((control) => control.variable === variable);
  }

  private playersOn(machine: Machine): readonly PlayersControl[] {
    let found = this.playersOf.get(machine);
    if (!found)
      this.playersOf.set(
        machine,
        (found = this.players.filter(({ variable }) => machine.variables.includes(variable))),
      );
    return found;
  }

  private hand({ ref, values, order }: PlayersControl, value: ControlValue): Move {
    const key = `${ref}=${value}`;
    let move = this.hands.get(key);
    if (!move) {
      const action: CastAction = { kind: 'cue', control: ref, value };
      const compiled = compileEvent(this.model, eventOfCast(this.model, action)!, 0);
      const place = values.indexOf(value);
      this.hands.set(key, (move = { action, compiled, order: order + (place < 0 ? 0 : place), armedBy: [] }));
    }
    return move;
  }
}
