import type { ControlValue } from '../../model/anatomy.ts';
import { controlRef } from '../../model/documents.ts';
import { PlannedSwitches } from '../../model/planned-switches.ts';
import { type Sound } from '../../model/rig.ts';
import { wantsOf } from '../../model/wants.ts';
import { ownerOf } from '../../model/wiring.ts';
import { feedsOf } from '../../trace/feeds.ts';
import { traceGraph, type TraceGraph } from '../../trace/graph.ts';
import { type Live, ReachabilitySearch } from '../../trace/live.ts';
import type { ValueId, VariableId } from '../state/ids.ts';
import { noVariable } from '../state/ids.ts';
import type { ModelControl, ModelPresets, StateModel } from '../state/state-model.ts';
import type { ContentSymbol, Pins } from '../state/values.ts';
import { noCues, SoundTarget, unwanted } from './sound-target.ts';

/** Reads a variable of the state that is judged. */
export type Read = (variable: VariableId) => number;

export type Heard =
  | { readonly is: 'right' }
  /** Variables whose values differ and are heard; empty where the line is silent or wired differently. */
  | { readonly is: 'wrong'; readonly silent: boolean }
  | { readonly is: 'unknown'; readonly symbols: readonly ContentSymbol[] };

/**
 * How a sound's want of a control is target out: as it is; as a cue, for the player sets it; or, of a preset, with what
 * recalling it loads.
 */
const [plain, cue, preset] = [0, 1, 2];

const nothing: readonly never[] = [];

interface JudgeOptions {
  /** Whether cues are taken as done. */
  readonly obey: boolean;
  readonly pins: Pins;
}

/** Ways to assume contents that one comparison tries before it stays undecided. */
const mostContentsSplit = 256;

export interface SoundEdge {
  readonly index: number;
  readonly from: number;
  readonly to: number;
  readonly active: boolean;
  readonly when: readonly { readonly variable: VariableId; readonly values: readonly ValueId[] }[];
  readonly parameters: readonly number[];
}

/** The trace graph in terms of a model's variables, ready to compare sounding traces. */
export class SoundComparison {
  readonly graph: TraceGraph;
  readonly edges: readonly SoundEdge[];
  readonly activeEdges: readonly SoundEdge[];
  /** The preset variable of the device that a control belongs to. */
  readonly presetOf: ReadonlyMap<number, number>;
  /** By the control's number, how a want of it is target out; and of a preset what recalling one loads. */
  private readonly wantKind: Uint8Array;
  private readonly presetsAt: (ModelPresets | undefined)[] = [];
  /**
   * Mutes that a foot is planned for, a tuner's say: the player lifts them, looking, before a sound is played. A sound
   * that names one has it as a cue of its own.
   */
  private readonly lifted: readonly VariableId[];
  /** By variable: 1 where the player sets the control, by foot or hand or live. */
  private readonly isPlayers: Uint8Array;
  private readonly search: ReachabilitySearch;
  private readonly related = new Map<number, readonly number[]>();
  /** The loop that holds a device, and the switches of devices in a loop. */
  private readonly loopOf = new Map<string, number>();
  /** The same by variable, as far as somebody asked. */
  private readonly loopAt: number[] = [];
  private readonly inLoop = new Map<number, number[]>();

  constructor(readonly model: StateModel) {
    this.graph = traceGraph(model.wiring);
    this.search = new ReachabilitySearch(this.graph);
    const variable = (control: number): number => model.variableAt[control] ?? noVariable;
    /** Devices of one kind share their conditions. */
    const idsOf = new Map<readonly ControlValue[], readonly number[]>();
    const ids = (controlValues: readonly ControlValue[]): readonly number[] => {
      let known = idsOf.get(controlValues);
      if (!known)
        idsOf.set(controlValues, (known = controlValues.map((controlValue) => model.values.id(controlValue))));
      return known;
    };
    this.edges = this.graph.edges.map(({ index, from, to, active, when, parameters }) => ({
      index,
      from,
      to,
      active,
      when:
        when.length === 0
          ? nothing
          : when.map((condition) => ({ variable: variable(condition.control), values: ids(condition.values) })),
      parameters: parameters.length === 0 ? nothing : parameters.map(variable).filter((index) => index >= 0),
    }));
    this.activeEdges = this.edges.filter((edge) => edge.active);
    for (const [held, { loop, own }] of model.switching) {
      const loopVariable = loop === undefined ? undefined : model.variableOf.get(loop);
      if (loopVariable === undefined) continue;
      this.loopOf.set(held, loopVariable);
      const ownVariable = own === undefined ? undefined : model.variableOf.get(own);
      if (ownVariable === undefined) continue;
      const others = this.inLoop.get(loopVariable);
      if (others) others.push(ownVariable);
      else this.inLoop.set(loopVariable, [ownVariable]);
    }
    const presetOf = new Map<number, number>();
    this.wantKind = new Uint8Array(model.variableAt.length);
    this.isPlayers = new Uint8Array(model.variables.length);
    let number = 0;
    for (const device of model.devices) {
      const { presets } = device;
      for (const control of device.controls.values()) {
        const isPlayers = ownerOf(device.wired, control.control) !== 'programmed';
        if (isPlayers) this.isPlayers[control.variable] = 1;
        this.wantKind[number++] = isPlayers ? cue : plain;
        if (presets) presetOf.set(control.variable, presets.variable);
      }
      if (!presets) continue;
      this.presetsAt[number] = presets;
      this.wantKind[number++] = preset;
    }
    this.presetOf = presetOf;
    this.lifted = liftedMutes(model);
    const size = model.variables.length;
    this.scratch = { variables: new Int32Array(size), wanted: new Int32Array(size), isNamed: new Int32Array(size) };
  }

  /** A sound lays out at most as much as there are variables. */
  private readonly scratch: {
    readonly variables: Int32Array;
    readonly wanted: Int32Array;
    readonly isNamed: Int32Array;
  };
  private round = 0;
  private readonly laidOut = new WeakMap<Sound, SoundTarget>();

  /**
   * Lays a sound's wants out in variables, once a sound. Wants on controls that do not exist (any more) are left out.
   */
  resolveTarget(sound: Sound): SoundTarget {
    let target = this.laidOut.get(sound);
    if (!target) this.laidOut.set(sound, (target = this.computeTarget(sound)));
    return target;
  }

  private computeTarget(sound: Sound): SoundTarget {
    const { variables, wanted } = this.scratch;
    const { controls, controlValues } = wantsOf(this.model.wiring, sound);
    const { values, variableAt } = this.model;
    const { wantKind } = this;
    let cues: Map<number, number> | undefined;
    const layCue = (variable: VariableId, value: ValueId) => (cues ??= new Map<number, number>()).set(variable, value);
    for (let i = 0; i < controls.length; i += 1) {
      const variable = variableAt[controls[i]];
      const value = values.id(controlValues[i]);
      variables[i] = variable;
      wanted[i] = value;
      if (wantKind[controls[i]] === cue) layCue(variable, value);
    }
    const count = this.layStored(controls, controlValues, layCue);
    for (const mute of this.lifted) if (!cues?.has(mute)) layCue(mute, values.id(0));
    return new SoundTarget(
      sound,
      variables.slice(0, count),
      wanted.slice(0, count),
      controls.length,
      cues ?? noCues,
      this.model.variables.length,
    );
  }

  /**
   * Lays out what wanted presets bring along, after what the sound names itself; how much there is then. A stored value
   * of a control that the player sets is a cue like any other want of it.
   */
  private layStored(
    controls: readonly number[],
    controlValues: readonly ControlValue[],
    layCue: (variable: VariableId, value: ValueId) => void,
  ): number {
    const { variables, wanted, isNamed } = this.scratch;
    let count = controls.length;
    this.round += 1;
    for (let i = 0; i < count; i += 1) isNamed[variables[i]] = this.round;
    for (let i = 0; i < controls.length; i += 1) {
      if (this.wantKind[controls[i]] !== preset) continue;
      const { loads, content: contentOf } = this.presetsAt[controls[i]]!;
      for (const control of loads) {
        const content =
          isNamed[control.variable] === this.round ? undefined : contentOf(Number(controlValues[i]), control);
        if (content === undefined) continue;
        variables[count] = control.variable;
        wanted[count] = content;
        if (this.isPlayers[control.variable] === 1) layCue(control.variable, content);
        count += 1;
      }
    }
    return count;
  }

  /**
   * Whether the state is right for the sound: laying its wants over it leaves its sounding trace unchanged. Where that
   * turns on unknown contents, content by content: what is wrong for each of them is wrong, what is right for each
   * is right.
   */
  judge(read: Read, target: SoundTarget, options: JudgeOptions): Heard {
    const heard = this.judgeUnder(read, target, options);
    if (heard.is !== 'unknown') return heard;
    return this.contentByContent(read, target, options, heard, mostContentsSplit) ?? heard;
  }

  /** Null where it stays undecided, or takes more contents than `budget`. */
  private contentByContent(
    read: Read,
    target: SoundTarget,
    options: JudgeOptions,
    { symbols }: Extract<Heard, { readonly is: 'unknown' }>,
    budget: number,
  ): Heard | null {
    const [symbol] = symbols;
    const share = Math.floor(budget / symbol.options.length);
    if (share < 1) return null;
    let all: Heard | null = null;
    for (const i of symbol.options.keys()) {
      const under = { ...options, pins: new Map([...options.pins, [symbol.id, i]]) };
      const tried = this.judgeUnder(read, target, under);
      const heard = tried.is === 'unknown' ? this.contentByContent(read, target, under, tried, share) : tried;
      if (heard === null || (all !== null && heard.is !== all.is)) return null;
      all = heard;
    }
    return all;
  }

  private judgeUnder(read: Read, target: SoundTarget, options: JudgeOptions): Heard {
    const { values } = this.model;
    const cues = options.obey ? target.cues : undefined;
    const now: Read = cues && cues.size > 0 ? (variable) => cues.get(variable) ?? read(variable) : read;
    const then: Read = (variable) => (target.has(variable) ? target.wants(variable) : now(variable));
    const open: ContentSymbol[] = [];
    const closed =
      (reader: Read) =>
      (condition: SoundEdge['when'][number]): boolean => {
        const value = reader(condition.variable);
        const symbol = values.symbolOf(value);
        if (!symbol) return condition.values.includes(value);
        if (!options.pins.has(symbol.id)) open.push(symbol);
        return options.pins.has(symbol.id) && condition.values.includes(values.decide(value, options.pins));
      };
    const before = this.liveWhen(closed(now));
    const after = this.liveWhen(closed(then));
    if (open.length > 0) return { is: 'unknown', symbols: open };
    if (!before.sounds && !target.sound.silence) return { is: 'wrong', silent: true };
    if (!this.sameShape(before, after)) return { is: 'wrong', silent: false };
    return this.sameValues(before, now, then, target, options.pins);
  }

  private sameValues(live: Live, now: Read, then: Read, target: SoundTarget, pins: Pins): Heard {
    const { values } = this.model;
    const open: ContentSymbol[] = [];
    for (const edge of this.edges) {
      if (!edge.active || !live.edges[edge.index]) continue;
      for (const variable of edge.parameters) {
        const overridden = target.has(variable);
        const unknownCounts = !target.named.has(variable) && this.presetOf.has(variable);
        if (unknownCounts && this.numberDiffers(variable, now, then, target)) return { is: 'wrong', silent: false };
        if (!overridden) continue;
        const a = now(variable);
        const b = then(variable);
        const compared = values.compare(a, b, pins);
        if (compared === 'different') return { is: 'wrong', silent: false };
        if (compared === 'unknown')
          for (const value of [a, b]) if (values.symbolOf(value)) open.push(values.symbolOf(value)!);
      }
    }
    return open.length > 0 ? { is: 'unknown', symbols: open } : { is: 'right' };
  }

  /** While an unknown value that the sound does not override governs, another preset number is wrong. */
  private numberDiffers(variable: VariableId, now: Read, then: Read, target: SoundTarget): boolean {
    const preset = this.presetOf.get(variable)!;
    const wanted = target.wants(preset);
    if (wanted === unwanted) return false;
    const { values } = this.model;
    if (!values.isSymbolic(now(variable)) && !values.isSymbolic(then(variable))) return false;
    return now(preset) !== wanted;
  }

  private sameShape(a: Live, b: Live): boolean {
    if (a.sounds !== b.sounds) return false;
    const { active } = this.graph;
    let isSame = true;
    for (let edge = 0; edge < active.length; edge += 1) {
      if (a.edges[edge] === b.edges[edge]) continue;
      // What does something and is live is part of the shape, whatever it feeds.
      if (active[edge] === 1) return false;
      isSame = false;
    }
    return isSame || feedsOf(this.graph, a) === feedsOf(this.graph, b);
  }

  /** Sections on a path from a source to a destination, asking about each condition as it is met. */
  liveWhen(closed: (condition: SoundEdge['when'][number]) => boolean): Live {
    return this.search.live((index) => {
      const { when } = this.edges[index];
      for (let i = 0; i < when.length; i += 1) if (!closed(when[i])) return false;
      return true;
    });
  }

  /** Whether a variable is a mute that a foot is planned for, and that the player lifts before anything is played. */
  isLifted(variable: VariableId): boolean {
    return this.lifted.includes(variable);
  }

  /** Controls that decide beside this variable whether it is heard. */
  relatedControls(variable: VariableId): readonly number[] {
    let known = this.related.get(variable);
    if (!known) this.related.set(variable, (known = this.findRelatives(variable)));
    return known;
  }

  private findRelatives(variable: VariableId): readonly number[] {
    const { model } = this;
    const { device: id } = model.variables[variable];
    const device = model.device.get(id)!;
    const conditions = device.controller
      ? []
      : device.wired.anatomy.sections.flatMap((section) => Object.keys(section.when?.controls ?? {}));
    const own = conditions.flatMap((control) => model.variableOf.get(controlRef(id, control)) ?? []);
    const loop = this.loopOf.get(id);
    const switchings = [...(loop === undefined ? [] : [loop]), ...(this.inLoop.get(variable) ?? [])];
    return [...new Set([...own, ...switchings])].filter((other) => other !== variable);
  }

  /** The loop that holds a variable's device, or −1. */
  loopAround(variable: VariableId): number {
    return (this.loopAt[variable] ??= this.loopOf.get(this.model.variables[variable].device) ?? noVariable);
  }

  private controlOf(variable: VariableId): ModelControl | undefined {
    const { kind, owner, part } = this.model.variables[variable];
    return kind === 'control' ? this.model.devices[owner].controls.get(part) : undefined;
  }

  /** The values that a control can be set to. */
  optionsOf(variable: VariableId): readonly number[] {
    return this.controlOf(variable)?.options ?? nothing;
  }

  /** Whether no message can put a control on a value outside its domain. */
  staysInDomain(variable: VariableId): boolean {
    const control = this.controlOf(variable);
    if (!control) return false;
    const { anatomy } = this.model.devices[this.model.variables[variable].owner].wired;
    const absolute = anatomy.messages.some((message) => message.mode === 'absolute' && message.control === control.id);
    return (
      !absolute ||
      Array.from({ length: 128 }, (_, value) => this.model.values.id(value)).every((value) =>
        control.options.includes(value),
      )
    );
  }
}

function liftedMutes({ devices, wiring }: StateModel): readonly VariableId[] {
  const planned = new PlannedSwitches(wiring.rig);
  return devices.flatMap(({ wired: { device, anatomy }, controls }) =>
    [...controls.values()].flatMap(({ id, control, variable }) =>
      control.weight === 'mute' &&
      anatomy.switches.some(
        (footSwitch) =>
          planned.has(device, footSwitch.id) &&
          footSwitch.actions.some((action) => 'toggle' in action && action.toggle === id),
      )
        ? [variable]
        : [],
    ),
  );
}
