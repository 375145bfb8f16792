import { assertNever } from '../../units/problem.ts';
import type { ControlMessage, FootAction, Literal } from '../../model/anatomy.ts';
import { type Memo, memoised } from '../../model/memo.ts';
import { bankSelectLsb, bankSelectMsb, type MidiMessage } from '../../midi/message.ts';
import type { ModelControl, ModelDevice, ModelInput, ModelPresets, StateModel } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import type { Values } from '../state/values.ts';

/**
 * What devices do when something reaches them: one function per device behaviour, written from the facts that a
 * type states. Each works on any store that holds the variables it may change; it reads no others than it must.
 */
export interface Update {
  /** The index of the device whose variables it may write; −1 where it writes none. */
  readonly device: number;
  /** Variables it may write. */
  readonly writes: readonly number[];
  readonly apply: (store: Store, running: Running, time: number) => Applied;
  /** Variables of a device that this update may make busy: whether it happens decides what later messages do. */
  readonly mayBlock?: readonly number[];
  /** True where its device may send a recall on, so that the delivery depends on the state. */
  readonly mayEmit?: boolean;
  /**
   * Two updates with the same sign do the same to every state, and read nothing but what updates on the variables that
   * they touch write.
   */
  readonly sign?: string;
  /**
   * True where it reads no variable but those that it writes, and beside them at most until when its own device is
   * loading.
   */
  readonly isClosed?: boolean;
  /** Set where it does nothing but give a variable a known value. */
  readonly constant?: { readonly variable: number; readonly value: number };
  /**
   * What it was found to do where it is closed (write-summary.ts): kept with it, for every press that holds it asks.
   */
  found?: Found;
}

/** What a closed update left the variables that it writes on, and whether its device then loads. */
export interface Done {
  readonly left: readonly number[];
  readonly loads: 'no' | 'yes' | 'unsure';
}

/**
 * What it did where of one of the variables that it writes so much was known: that leads to the next of them, where
 * there is one; `other`: where something else was known of this one.
 */
export interface Found {
  readonly known: number;
  done: Done | undefined;
  next: Found | undefined;
  other: Found | undefined;
}

/** An update when it is done, and the lossy points (messages, pulses) on whose delivery it depends. */
export interface Operation {
  readonly update: Update;
  readonly time: number;
  readonly points: readonly number[];
}

/** What an event does, in the order of time, where that does not depend on the state: by columns. */
export class Recording {
  count = 0;

  constructor(
    readonly updates: Update[] = [],
    readonly times: number[] = [],
    readonly points: (readonly number[])[] = [],
  ) {}

  /** Forgets everything. */
  begin(): this {
    this.count = 0;
    return this;
  }

  take(update: Update, time: number, points: readonly number[]): void {
    const at = this.count;
    this.updates[at] = update;
    this.times[at] = time;
    this.points[at] = points;
    this.count = at + 1;
  }

  /** The same to be kept. */
  copy(): Recording {
    const { updates, times, points, count } = this;
    let isWhole = true;
    for (let i = 0; i < count; i += 1) if (points[i].length > 0) isWhole = false;
    const copy = new Recording(
      updates.slice(0, count),
      times.slice(0, count),
      isWhole ? undefined : points.slice(0, count),
    );
    copy.count = count;
    return copy;
  }

  operations(): Operation[] {
    return this.chosen(() => true);
  }

  /** Those on variables of one device. */
  on(device: number): Operation[] {
    return this.chosen((update) => update.device === device);
  }

  private chosen(isChosen: (update: Update) => boolean): Operation[] {
    const { updates, times, points, count } = this;
    const chosen: Operation[] = [];
    for (let i = 0; i < count; i += 1)
      if (isChosen(updates[i])) chosen.push({ update: updates[i], time: times[i], points: points[i] ?? noPoints });
    return chosen;
  }
}

/** Memory of one event while it runs. */
export interface Running {
  /** Until when a device is busy loading, by device index. */
  readonly busyUntil: Map<number, number>;
}

/** The program that a device sends on, where it does. */
export type Applied = { readonly emits: number; readonly time: number } | undefined;

const nothing: Applied = undefined;

/** Every update is of one shape, for they are asked often. */
export const update = (
  device: number,
  writes: readonly number[],
  apply: Update['apply'],
  { mayBlock, mayEmit, sign, isClosed, constant }: Omit<Update, 'device' | 'writes' | 'apply'> = {},
): Update => ({ device, writes, apply, mayBlock, mayEmit, sign, isClosed, constant, found: undefined });

const idle = update(-1, [], () => nothing);

const modelMemoOf = ({ modelMemo }: StateModel): Memo => modelMemo;

/** By variable and value. */
const constantsOf = memoised(modelMemoOf, (): Map<number, Update>[] => []);

/** The one update that gives a variable this value. */
export function constant(model: StateModel, variable: number, value: number): Update {
  const byValue = (constantsOf(model)[variable] ??= new Map<number, Update>());
  let update = byValue.get(value);
  if (!update) byValue.set(value, (update = settingTo(model.variables[variable].owner, variable, value)));
  return update;
}

const settingTo = (device: number, variable: number, value: number): Update =>
  update(
    device,
    [variable],
    (store) => {
      store.set(variable, value);
      return nothing;
    },
    { constant: { variable, value } },
  );

type LoopUpdates = ReadonlyMap<string, readonly [out: Update, into: Update]>;

/** By the index of a switcher. */
const loopUpdatesOf = memoised(modelMemoOf, (): LoopUpdates[] => []);

/** For each loop of a switcher what takes it out and in. */
export const loopUpdates = (model: StateModel, device: ModelDevice): LoopUpdates =>
  (loopUpdatesOf(model)[device.index] ??= computeLoopUpdates(model, device));

function computeLoopUpdates(model: StateModel, device: ModelDevice): LoopUpdates {
  const set = (variable: number, to: 0 | 1): Update => constant(model, variable, model.values.id(to));
  return new Map([...device.controls.values()].map(({ id, variable }) => [id, [set(variable, 0), set(variable, 1)]]));
}

export const noPoints: readonly number[] = [];

/** By the receiver's index. */
const receivedBy = memoised(modelMemoOf, (): Map<number, readonly Update[]>[] => []);

/**
 * What a received message does to a device, in order, the very same updates each time; empty where it does not
 * understand it.
 */
export function receive(model: StateModel, device: ModelDevice, message: MidiMessage): readonly Update[] {
  if (message.kind !== 'program' && message.kind !== 'control') return noUpdates;
  const before = (receivedBy(model)[device.index] ??= new Map<number, readonly Update[]>());
  const key = message.kind === 'program' ? message.program : 128 + message.cc * 128 + message.value;
  let updates = before.get(key);
  if (!updates) before.set(key, (updates = computeReceived(model, device, message)));
  return updates;
}

const noUpdates: readonly Update[] = [];

function computeReceived(
  model: StateModel,
  device: ModelDevice,
  message: Extract<MidiMessage, { readonly kind: 'program' | 'control' }>,
): readonly Update[] {
  if (message.kind === 'program')
    return device.presets ? recall(model, device, device.presets, message.program) : noUpdates;
  const { presets } = device;
  if (presets && presets.bank >= 0 && selects(presets, message.cc))
    return [bankSelect(model, device, presets, message.cc, message.value)];
  const answers = device.messages.get(message.cc) ?? [];
  return answers.map((answer) => controlChange(model, device, answer, message.value));
}

function selects(presets: ModelPresets, cc: number): boolean {
  const { scheme } = presets.facts;
  return (
    (cc === bankSelectMsb && (scheme === 'msb' || scheme === 'both')) ||
    (cc === bankSelectLsb && (scheme === 'lsb' || scheme === 'both'))
  );
}

/** When a message takes effect at a device that may be loading: its own time, later (queued), or never (dropped). */
function admission(device: ModelDevice, time: number, running: Running): number | undefined {
  const until = running.busyUntil.get(device.index) ?? 0;
  if (time >= until) return time;
  return device.wired.anatomy.busy?.policy === 'queue' ? until : undefined;
}

const blockedBy = (device: ModelDevice): readonly number[] | undefined =>
  device.wired.anatomy.busy ? device.variables : undefined;

/** When a device is ready again that begins to load now. */
export const loadedBy = ({ wired }: ModelDevice, time: number): number => time + (wired.anatomy.busy?.ms ?? 0) * 1000;

function beginLoading(device: ModelDevice, time: number, running: Running): void {
  if (device.wired.anatomy.busy) running.busyUntil.set(device.index, loadedBy(device, time));
}

function bankSelect(model: StateModel, device: ModelDevice, presets: ModelPresets, cc: number, value: number): Update {
  const { values } = model;
  const apply: Update['apply'] = (store, running, time) => {
    if (!store.has(presets.bank) || admission(device, time, running) === undefined) return nothing;
    if (presets.facts.scheme !== 'both') store.set(presets.bank, values.id(value));
    else {
      const bank = values.number(store.get(presets.bank));
      store.set(
        presets.bank,
        values.id(cc === bankSelectMsb ? value * 128 + (bank % 128) : Math.floor(bank / 128) * 128 + value),
      );
    }
    return nothing;
  };
  return update(device.index, [presets.bank], apply, { isClosed: true });
}

export function homeBank(presets: ModelPresets): number {
  const [msb, lsb] = presets.facts.home;
  return presets.facts.scheme === 'msb' ? msb : presets.facts.scheme === 'lsb' ? lsb : msb * 128 + lsb;
}

function recall(model: StateModel, device: ModelDevice, presets: ModelPresets, program: number): readonly Update[] {
  const { values } = model;
  const { facts } = presets;
  const flips = facts.repeat.is === 'flips' ? device.controls.get(facts.repeat.control) : undefined;
  const listens = device.wired.anatomy.busy !== undefined || device.wired.anatomy.emits !== undefined;
  const plain = facts.repeat.is === 'reload' || (facts.repeat.is === 'ignored' && presets.loads.length === 0);
  if (plain && facts.scheme === 'none' && !listens && presets.loads.length === 0)
    return presets.exists(program) ? [constant(model, presets.variable, values.id(program))] : noUpdates;
  const { writes } = presets;
  const apply: Update['apply'] = (store, running, time) => {
    const at = admission(device, time, running);
    if (at === undefined) return nothing;
    if (!listens && !holdsAny(writes, presets.bank, store)) {
      fallHome(store, presets, values);
      return nothing;
    }
    const bank = presets.bank >= 0 ? values.number(store.get(presets.bank)) : 0;
    fallHome(store, presets, values);
    const number = bank * facts.bankSize + program;
    if (!presets.exists(number)) return nothing;
    const loaded = recallNumber(model, presets, number, store, flips, listens);
    if (!loaded) return nothing;
    beginLoading(device, at, running);
    return device.wired.anatomy.emits ? { emits: program, time: at } : nothing;
  };
  return [
    update(device.index, writes, apply, {
      isClosed: true,
      mayEmit: device.wired.anatomy.emits !== undefined,
      mayBlock: blockedBy(device),
    }),
  ];
}

/** Whether any of some variables is held, but for one. */
function holdsAny(variables: readonly number[], but: number, store: Store): boolean {
  for (let i = 0; i < variables.length; i += 1) if (variables[i] !== but && store.has(variables[i])) return true;
  return false;
}

function fallHome(store: Store, presets: ModelPresets, values: Values): void {
  if (presets.bank >= 0 && !presets.facts.sticky && store.has(presets.bank))
    store.set(presets.bank, values.id(homeBank(presets)));
}

/** Recalls a preset that exists; false where the device ignores it, since it is the current one. */
function recallNumber(
  model: StateModel,
  presets: ModelPresets,
  number: number,
  store: Store,
  flips: ModelControl | undefined,
  mustKnow: boolean,
): boolean {
  const { values } = model;
  switch (presets.facts.repeat.is) {
    case 'reload':
      load(model, presets, number, store);
      return true;
    case 'ignored':
      if ((mustKnow || holdsLoads(presets, store)) && repeats(values, presets, number, store)) return false;
      load(model, presets, number, store);
      return true;
    case 'flips':
      if (
        (mustKnow || holdsLoads(presets, store) || (flips && store.has(flips.variable))) &&
        repeats(values, presets, number, store)
      ) {
        if (flips) flip(store, values, flips);
        return false;
      }
      load(model, presets, number, store);
      return true;
    case 'alternates':
      load(
        model,
        presets,
        repeats(values, presets, number, store) ? values.number(store.get(presets.previous)) : number,
        store,
      );
      return true;
    default:
      return assertNever(presets.facts.repeat, 'repeat');
  }
}

const repeats = (values: Values, presets: ModelPresets, number: number, store: Store): boolean =>
  values.number(store.get(presets.variable)) === number;

function holdsLoads({ loads }: ModelPresets, store: Store): boolean {
  for (let i = 0; i < loads.length; i += 1) if (store.has(loads[i].variable)) return true;
  return false;
}

/** Loads a preset's stored values into the working ones and makes it the current one. */
export function load(model: StateModel, presets: ModelPresets, number: number, store: Store): void {
  if (presets.previous >= 0) store.set(presets.previous, store.get(presets.variable));
  store.set(presets.variable, model.values.id(number));
  for (const control of presets.loads) {
    if (!store.has(control.variable) || control.held) continue;
    const content = presets.content(number, control);
    if (content !== undefined) store.set(control.variable, content);
  }
}

function flip(store: Store, values: Values, control: ModelControl): void {
  if (!store.has(control.variable) || control.held) return;
  const [off, on] = control.options;
  store.set(
    control.variable,
    values.apply(store.get(control.variable), (value) => (value === off ? on : off)),
  );
}

function step(store: Store, values: Values, control: ModelControl, by: number, wrap: boolean): void {
  if (!store.has(control.variable) || control.held) return;
  const { options } = control;
  const count = options.length;
  store.set(
    control.variable,
    values.apply(store.get(control.variable), (value) => {
      const at = options.indexOf(value) + by;
      return options[wrap ? ((at % count) + count) % count : Math.min(count - 1, Math.max(0, at))];
    }),
  );
}

/** A step through the presets that exist, the remembered bank untouched; one that ends where it began loads nothing. */
function stepPreset(model: StateModel, presets: ModelPresets, by: number, wrap: boolean, store: Store): boolean {
  const { numbers } = presets;
  const now = model.values.number(store.get(presets.variable));
  const at = numbers.indexOf(now) + by;
  const count = numbers.length;
  const next = numbers[wrap ? ((at % count) + count) % count : Math.min(count - 1, Math.max(0, at))];
  if (next === now) return false;
  load(model, presets, next, store);
  return true;
}

const isOn = (literal: Literal | undefined): boolean =>
  typeof literal === 'number' ? literal !== 0 : literal !== 'off';

function controlChange(model: StateModel, device: ModelDevice, answer: ControlMessage, value: number): Update {
  const known = settled(model, device, answer, value);
  if (known) return known;
  const { values } = model;
  const armed = answer.armed && {
    control: device.controls.get(answer.armed.control),
    values: answer.armed.values.map((literal) => values.id(literal)),
  };
  const isArmed = (store: Store) =>
    !armed?.control || armed.values.includes(values.decide(store.get(armed.control.variable), store.pins));
  if (answer.control === 'preset') return presetStep(model, device, answer, isArmed);
  const target = device.controls.get(answer.control);
  if (!target) return idle;
  const others = (answer.exclusive ?? []).flatMap((id) => device.controls.get(id) ?? []);
  const writes = [target.variable, ...others.map((other) => other.variable)];
  const apply: Update['apply'] = (store, running, time) => {
    if (!writes.some((variable) => store.has(variable))) return nothing;
    if (admission(device, time, running) === undefined || !isArmed(store)) return nothing;
    const othersHeld = others.some((other) => store.has(other.variable));
    if (othersHeld && !store.has(target.variable) && answer.mode !== 'absolute' && answer.mode !== 'switch')
      store.get(target.variable);
    const result = move(store, values, target, answer, value);
    if (othersHeld && result !== undefined && isOn(values.literal(values.decide(result, store.pins))))
      for (const other of others) if (!other.held) store.set(other.variable, other.options[0]);
    return nothing;
  };
  return update(device.index, writes, apply, { isClosed: !armed?.control });
}

/** A message that puts one control on a value, whatever was before. */
function settled(model: StateModel, device: ModelDevice, answer: ControlMessage, value: number): Update | undefined {
  const target = device.controls.get(answer.control);
  if (
    !target ||
    target.held ||
    answer.armed ||
    device.wired.anatomy.busy ||
    answer.exclusive?.some((id) => device.controls.has(id))
  )
    return undefined;
  const to = constantOf(model.values, target, answer, value);
  return to === undefined ? undefined : constant(model, target.variable, to);
}

function constantOf(values: Values, target: ModelControl, answer: ControlMessage, value: number): number | undefined {
  if (answer.mode === 'absolute') return values.id(value);
  if (answer.mode === 'switch') return target.options[value >= 64 ? 1 : 0];
  return undefined;
}

/** Moves the target and says what it is now (also where it is not in the store, if that can be told). */
function move(
  store: Store,
  values: Values,
  target: ModelControl,
  answer: ControlMessage,
  value: number,
): number | undefined {
  if (target.held) return undefined;
  switch (answer.mode) {
    case 'absolute':
    case 'switch': {
      const to = constantOf(values, target, answer, value)!;
      store.set(target.variable, to);
      return to;
    }
    case 'toggle':
      flip(store, values, target);
      return store.has(target.variable) ? store.get(target.variable) : undefined;
    case 'next':
      step(store, values, target, answer.by ?? 1, answer.wrap ?? false);
      return store.has(target.variable) ? store.get(target.variable) : undefined;
    default:
      return assertNever(answer.mode, 'mode');
  }
}

function presetStep(
  model: StateModel,
  device: ModelDevice,
  answer: ControlMessage,
  isArmed: (store: Store) => boolean,
): Update {
  const { presets } = device;
  const writes = presets
    ? [
        presets.variable,
        ...presets.loads.map((control) => control.variable),
        ...(presets.previous >= 0 ? [presets.previous] : []),
      ]
    : [];
  const listens = device.wired.anatomy.busy !== undefined || device.wired.anatomy.emits !== undefined;
  return update(
    device.index,
    writes,
    (store, running, time) => {
      if (!presets || !(listens || writes.some((variable) => store.has(variable)))) return nothing;
      const at = admission(device, time, running);
      if (at === undefined || !isArmed(store)) return nothing;
      if (!stepPreset(model, presets, answer.by ?? 1, answer.wrap ?? false, store)) return nothing;
      beginLoading(device, at, running);
      return device.wired.anatomy.emits
        ? { emits: model.values.number(store.get(presets.variable)) % presets.facts.bankSize, time: at }
        : nothing;
    },
    { mayEmit: device.wired.anatomy.emits !== undefined, mayBlock: blockedBy(device) },
  );
}

/** A foot on a device's own switch: never refused by a device that is loading. */
export function foot(model: StateModel, device: ModelDevice, does: FootAction): Update {
  const { values } = model;
  if ('flip' in does) {
    const input = device.inputs.get(does.flip);
    return input ? moveBit(model, device, input, 'flip') : idle;
  }
  const id = 'toggle' in does ? does.toggle : does.next;
  if (id === 'preset') {
    const by = 'next' in does ? (does.by ?? 1) : 1;
    const wrap = 'next' in does ? (does.wrap ?? true) : true;
    return presetStep(model, device, { cc: 0, control: 'preset', mode: 'next', by, wrap }, () => true);
  }
  const control = device.controls.get(id);
  if (!control) return idle;
  return update(device.index, [control.variable], (store) => {
    if ('toggle' in does) flip(store, values, control);
    else step(store, values, control, does.by ?? 1, does.wrap ?? true);
    return nothing;
  });
}

/** By the variable of the bit. */
const movesOf = memoised(modelMemoOf, (): Map<0 | 1 | 'flip', Update>[] => []);

/**
 * A contact input's bit moves: copied from the contact (level) or flipped by its closing (edge); contacts are never
 * refused. The very same update each time.
 */
export function moveBit(model: StateModel, device: ModelDevice, input: ModelInput, to: 0 | 1 | 'flip'): Update {
  const known = (movesOf(model)[input.bit] ??= new Map<0 | 1 | 'flip', Update>());
  let move = known.get(to);
  if (!move) known.set(to, (move = computeMove(model, device, input, to)));
  return move;
}

function computeMove(model: StateModel, device: ModelDevice, input: ModelInput, to: 0 | 1 | 'flip'): Update {
  const { values } = model;
  const ruled = [...device.controls.values()].filter((control) => control.bits.includes(input.bit));
  const apply: Update['apply'] = (store) => {
    const rules = ruled.filter((control) => store.has(control.variable));
    if (rules.length === 0 && !store.has(input.bit)) return nothing;
    let moved = true;
    if (to === 'flip') store.set(input.bit, values.id(1 - values.number(store.get(input.bit))));
    else {
      if (rules.length > 0) moved = values.number(store.get(input.bit)) !== to;
      store.set(input.bit, values.id(to));
    }
    for (const control of rules)
      if (moved || control.held) store.set(control.variable, ruledBy(values, store, control));
    return nothing;
  };
  return update(device.index, [input.bit, ...ruled.map((control) => control.variable)], apply, {
    sign: to === 'flip' ? undefined : `${input.bit}:${to}`,
    isClosed: ruled.every((control) => control.bits.length === 1),
  });
}

/** The value that a control's bits give it. */
export function ruledBy(values: Values, store: Store, control: ModelControl): number {
  const bits = control.bits.map((bit) => values.literal(store.get(bit))).join('');
  return control.table.get(bits) ?? control.options[0];
}
