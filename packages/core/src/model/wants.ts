import type { ControlValue } from './anatomy.ts';
import { memoised } from './memo.ts';
import type { Sound } from './rig.ts';
import { switchingOf } from './switching.ts';
import type { Wiring } from './wiring.ts';
import { noControl } from './wiring.ts';

/**
 * What a sound lays over a state, by the numbers of the rig's controls: its wanted controls, its pedals put into terms
 * of loops and own switches.
 */
export class Wants {
  private byControl: (ControlValue | undefined)[] | undefined;

  /**
   * At each place a control, in the order of the sound, each once, and what is wanted of it; `count`: how many controls
   * the rig has.
   */
  constructor(
    readonly controls: readonly number[],
    readonly controlValues: readonly ControlValue[],
    private readonly count: number,
  ) {}

  /** What is wanted of a control; undefined where nothing is, or the control is none (−1). */
  of(control: number): ControlValue | undefined {
    if (!this.byControl) {
      const byControl = new Array<ControlValue | undefined>(this.count);
      for (let i = 0; i < this.controls.length; i += 1) byControl[this.controls[i]] = this.controlValues[i];
      this.byControl = byControl;
    }
    return this.byControl[control];
  }
}

/** Reads what the sounds of one rig want. */
class WantsReader {
  private readonly known = new WeakMap<Sound, Wants>();
  /** Of each device the numbers of the loop and the own switch that switch it; −1 where there is none. */
  private readonly switched = new Map<string, readonly [loop: number, own: number]>();
  /** By control the round in which it was met last, and its place then. */
  private readonly metIn: Int32Array;
  private readonly placeOf: Int32Array;
  private round = 0;
  // What has been read of the sound at hand.
  private readonly controls: number[];
  private readonly controlValues: ControlValue[];
  private count = 0;

  constructor(private readonly wiring: Wiring) {
    const { numberOf, refs } = wiring.controls;
    const number = (ref: string | undefined): number =>
      ref === undefined ? noControl : (numberOf.get(ref) ?? noControl);
    for (const [device, { loop, own }] of switchingOf(wiring)) this.switched.set(device, [number(loop), number(own)]);
    this.metIn = new Int32Array(refs.length);
    this.placeOf = new Int32Array(refs.length);
    this.controls = refs.map(() => 0);
    this.controlValues = refs.map(() => 0);
  }

  read(sound: Sound): Wants {
    let wants = this.known.get(sound);
    if (!wants) this.known.set(sound, (wants = this.computeWants(sound)));
    return wants;
  }

  private computeWants(sound: Sound): Wants {
    const { numberOf } = this.wiring.controls;
    this.round += 1;
    this.count = 0;
    // Every sound of the rig goes through here: lists of keys or entries would take longer than the rest.
    for (const device in sound.pedals) {
      const switched = this.switched.get(device);
      if (!switched) continue;
      const [loop, own] = switched;
      if (sound.pedals[device] === 'on') {
        this.want(loop, 1);
        this.want(own, 1);
      } else this.want(own === noControl ? loop : own, 0);
    }
    for (const ref in sound.wants) this.want(numberOf.get(ref) ?? noControl, sound.wants[ref]);
    return new Wants(this.controls.slice(0, this.count), this.controlValues.slice(0, this.count), this.metIn.length);
  }

  /** Of a control that comes twice the last counts. */
  private want(control: number, controlValue: ControlValue): void {
    if (control < 0) return;
    if (this.metIn[control] === this.round) {
      this.controlValues[this.placeOf[control]] = controlValue;
      return;
    }
    const at = this.count;
    this.metIn[control] = this.round;
    this.placeOf[control] = at;
    this.controls[at] = control;
    this.controlValues[at] = controlValue;
    this.count = at + 1;
  }
}

const readerOf = memoised(
  ({ wiringMemo }: Wiring) => wiringMemo,
  (wiring) => new WantsReader(wiring),
);

/** What a sound wants, worked out once a sound. Wants on controls that do not exist (any more) are left out. */
export const wantsOf = (wiring: Wiring, sound: Sound): Wants => readerOf(wiring).read(sound);
