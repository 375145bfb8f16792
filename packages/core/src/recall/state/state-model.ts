import type { Control, ControlMessage, PresetFacts } from '../../model/anatomy.ts';
import { type Memo } from '../../model/memo.ts';
import type { Action, ControlRef, MomentaryActions, Slot } from '../../model/rig.ts';
import type { Switching } from '../../model/switching.ts';
import type { ContactLink, MidiLink, WiredDevice, Wiring } from '../../model/wiring.ts';
import type { SlotActions } from '../../program/compile.ts';
import type { ValueId, VariableId } from './ids.ts';
import { type Values } from './values.ts';

/** The modelMemo of a rig as numbered variables: what the interpreter runs on. */
export interface StateModel {
  readonly wiring: Wiring;
  readonly values: Values;
  readonly variables: readonly Variable[];
  readonly devices: readonly ModelDevice[];
  readonly device: ReadonlyMap<string, ModelDevice>;
  readonly slots: readonly ModelSlot[];
  readonly slot: ReadonlyMap<string, ModelSlot>;
  readonly switching: ReadonlyMap<string, Switching>;
  /**
   * What is kept of what turns only on the devices and how they are wired: the very same for models whose slots differ
   * in what they do.
   */
  readonly modelMemo: Memo;
  readonly messageLimit: number;
  /** The variable of a control, or of `device/preset`; the same by the control's number in the wiring. */
  readonly variableOf: ReadonlyMap<ControlRef, number>;
  readonly variableAt: readonly number[];
  /**
   * Whether messages can come round or call forth others: a called controller, a device that sends on, a chain that
   * closes.
   */
  readonly mayFeedBack: boolean;
  /**
   * Whether messages come up everywhere in the order in which they are sent: nothing comes round, and no output merges
   * in what another sends, which takes its time.
   */
  readonly isStraight: boolean;
  /** Whether any controller has a momentary switch that a foot can hold. */
  readonly mayHold: boolean;
  /**
   * Who hears a channel of a sender, once for each way a message comes to it, and over how many cables it goes in
   * all; only where nothing can come round.
   */
  readonly listeners: (
    from: ModelDevice,
    channel: number,
  ) => { readonly hops: number; readonly heard: readonly ModelDevice[] };
}

export type VariableKind =
  | 'control'
  | 'preset'
  | 'previous-preset'
  | 'bank-select'
  | 'bit'
  | 'contact'
  | 'belief'
  | 'saved'
  | 'current-bank'
  | 'current-slot'
  | 'previous-slot'
  | 'held';

export interface Variable {
  readonly index: number;
  readonly kind: VariableKind;
  readonly device: string;
  /** The index of that device. */
  readonly owner: number;
  /** Control, input, contact, loop or momentary it belongs to. */
  readonly part: string;
  readonly control?: Control;
}

export interface ModelSlot {
  readonly index: number;
  readonly slot: Slot;
  readonly actions: readonly Action[];
  /** What the actions were compiled as; null where they are written by hand. */
  readonly steps: SlotActions | null;
}

export interface ModelControl {
  readonly id: string;
  readonly control: Control;
  readonly variable: VariableId;
  readonly options: readonly ValueId[];
  /** Bits that rule it, leftmost first, with the table from bits to value ids. */
  readonly bits: readonly number[];
  readonly table: ReadonlyMap<string, number>;
  readonly held: boolean;
}

export interface ModelInput {
  readonly id: string;
  readonly kind: 'level' | 'edge';
  readonly bit: number;
  readonly powerUp: 0 | 1 | 'last-state';
  readonly wires: readonly ContactLink[];
}

export interface ModelPresets {
  readonly facts: PresetFacts;
  readonly numbers: readonly number[];
  /** The value ids of the numbers, in the same order. */
  readonly numberIds: () => readonly number[];
  readonly exists: (number: number) => boolean;
  readonly variable: VariableId;
  /** `noVariable` where nothing remembers it. */
  readonly previous: number;
  readonly bank: number;
  /** Controls that a recall may load. */
  readonly loads: readonly ModelControl[];
  /** Variables that a recall may write. */
  readonly writes: readonly VariableId[];
  /** Value id that a recall of this number loads; undefined: left as it was. */
  readonly content: (number: number, control: ModelControl) => number | undefined;
}

export interface ModelController {
  readonly facts: NonNullable<WiredDevice['anatomy']['controller']>;
  readonly bank: number;
  readonly currentSlot: number;
  readonly previousSlot: number;
  readonly held: ReadonlyMap<string, number>;
  readonly momentaries: ReadonlyMap<string, MomentaryActions>;
  readonly contact: ReadonlyMap<string, number>;
  readonly belief: ReadonlyMap<string, number>;
  readonly saved: ReadonlyMap<string, number>;
  readonly wires: ReadonlyMap<string, readonly ContactLink[]>;
  /** Index of the slot by bank and position. */
  readonly at: ReadonlyMap<string, number>;
  readonly powerUpSlot?: string;
}

export interface ModelDevice {
  readonly index: number;
  readonly id: string;
  readonly wired: WiredDevice;
  readonly controls: ReadonlyMap<string, ModelControl>;
  readonly inputs: ReadonlyMap<string, ModelInput>;
  readonly presets?: ModelPresets;
  readonly messages: ReadonlyMap<number, readonly ControlMessage[]>;
  readonly controller?: ModelController;
  readonly sendsTo: readonly MidiLink[];
  /** Where it passes on what comes in: all of these, and of them those that it passes through, or merges in. */
  readonly passesTo: readonly MidiLink[];
  readonly passesThrough: readonly MidiLink[];
  readonly mergesTo: readonly MidiLink[];
  readonly variables: readonly VariableId[];
}

export const positionKey = (bank: number, position: number): string => `${bank}.${position}`;
