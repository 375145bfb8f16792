import type { ControlValue } from '../model/anatomy.ts';
import type { CaseRig } from './recall-adapter.ts';
import type { Random } from './random.ts';

type Mutable<T> = T extends object ? { -readonly [K in keyof T]: Mutable<T[K]> } : T;
type Dev = Mutable<NonNullable<CaseRig['devices']>[string]>;
type Ctl = Mutable<NonNullable<CaseRig['controllers']>[string]>;
type Act = Record<string, number | string>;

/** A small random rig with the modelMemo that makes recall go wrong; small enough to enumerate whole. */
export function randomRig(r: Random): CaseRig {
  const devices: Record<string, Dev> = {};
  const count = 1 + r.below(3);
  for (let i = 0; i < count; i += 1) devices[`D${i}`] = randomDevice(r, i, r.chance(0.15) && i > 0 ? 1 : i + 1);
  const names = Object.keys(devices);
  const amp = r.chance(0.45);
  if (amp) devices.amp = randomAmp(r);
  if (r.chance(0.2))
    devices.ts = {
      ch: 9,
      controls: {
        on: { domain: [0, 1], powerup: r.pick([0, 1, 'as left']), owner: r.pick(['programmed', 'programmed', 'foot']) },
      },
      foot: { fs: { planned: r.chance(0.3), does: [{ toggle: 'on' }] } },
    };
  if (r.chance(0.2))
    devices.mute = {
      ch: 8,
      controls: { mute: { domain: [0, 1], powerup: 0 } },
      cc: [{ cc: 60, control: 'mute', mode: r.pick(['switch', 'toggle']) }],
    };
  const loops = Array.from({ length: r.below(3) }, (_, i) => `L${i + 1}`);
  const sw = randomController(r, loops, amp, devices);
  const controllers: Record<string, Ctl> = { sw };
  const midi: [string, 'out' | 'thru' | 'merge', string][] = [];
  let from = 'sw';
  for (const name of [...names, ...(devices.mute ? ['mute'] : [])]) {
    midi.push(from === 'sw' ? ['sw', 'out', name] : [from, r.chance(0.1) ? 'out' : 'thru', name]);
    if (r.chance(0.7)) from = name;
  }
  if (r.chance(0.12)) addCaller(r, controllers, midi);
  const topology = randomTopology(r, devices, loops);
  const sounds = randomSounds(r, devices, loops, sw);
  const pressed = Object.entries(controllers).flatMap(([c, one]) =>
    Object.keys(one.slots ?? {}).map((slot): [string, string] => [c, slot]),
  );
  const set = Array.from({ length: 1 + r.below(4) }, () => {
    const slot = r.pick(pressed);
    const feet = devices.ts?.foot?.fs.planned && r.chance(0.4) ? [['foot', 'ts', 'fs']] : [];
    return feet.length > 0 || r.chance(0.1)
      ? { slot, before: r.chance(0.5) ? feet : [], after: r.chance(0.5) ? feet : [], again: r.chance(0.5) }
      : slot;
  });
  return {
    controllers,
    devices,
    midi,
    ...(amp ? { contacts: [['sw', 'c1', 'amp', 'in1'] as [string, string, string, string]] } : {}),
    topology,
    sounds,
    set,
    ...(r.chance(0.1) && devices.D0.presets
      ? { external: [{ to: 'D0', msg: { pc: r.pick(numbersOf(devices.D0)) % 128, ch: devices.D0.ch ?? 1 } }] }
      : {}),
    message_limit: 300,
    ...(r.chance(0.3) ? { faults: r.some(['sent', 'link', 'receiver', 'edge', 'restart'] as const, 0.5) } : {}),
    pedals: {
      ...inLoops(topology),
      ...(devices.ts && r.chance(0.6) && loops.length > 0 ? { ts: { loop: `sw.${loops[0]}`, own: 'ts.on' } } : {}),
    },
  } as CaseRig;
}

/** Of each device that lies in a loop, which. */
const inLoops = ({ edges }: CaseRig['topology']): CaseRig['pedals'] =>
  Object.fromEntries(
    edges.flatMap(({ id, when, wire }) => {
      const loop = Object.keys(when ?? {}).find((name) => name.startsWith('sw.'));
      return loop !== undefined && wire !== true && !id.startsWith('pedal ') ? [[id, { loop }] as const] : [];
    }),
  );

const numbersOf = (device: Dev): number[] => Object.keys(device.presets?.stored ?? {}).map(Number);

function randomDevice(r: Random, index: number, ch: number): Dev {
  const device: Dev = { ch };
  const controls: Dev['controls'] = {};
  const cc: NonNullable<Dev['cc']> = [];
  if (r.chance(0.6)) {
    controls.mix = {
      domain: [20, 50, 90],
      scope: r.pick(['preset', 'preset', 'global']),
      powerup: r.pick([20, 50, 'as left']),
    };
    cc.push({
      cc: 20,
      control: 'mix',
      mode: r.pick(['abs', 'abs', 'next']),
      wrap: r.chance(0.5),
      by: r.pick([1, 1, 2]),
    });
  }
  if (r.chance(0.5)) {
    controls.b1 = { domain: [0, 1], scope: r.pick(['global', 'preset']), powerup: 0 };
    cc.push({ cc: 21, control: 'b1', mode: r.pick(['switch', 'toggle']) });
    if (r.chance(0.4)) {
      controls.b2 = { domain: [0, 1], scope: 'global', powerup: r.pick([0, 1]) };
      const exclusive = r.chance(0.5);
      cc.push({
        cc: 22,
        control: 'b2',
        mode: r.pick(['switch', 'toggle']),
        ...(exclusive ? { exclusive: ['b1'] } : {}),
        ...(r.chance(0.25) ? { armed: { control: 'b1', values: [1] } } : {}),
      });
    }
  }
  const scoped = Object.entries(controls).filter(([, control]) => control.scope === 'preset');
  if (r.chance(0.75) || scoped.length > 0) {
    const scheme = r.pick(['none', 'none', 'none', 'msb', 'lsb', 'both'] as const);
    const size = r.pick([128, 128, 100]);
    const step = scheme === 'both' ? 128 * 128 * 0 + size : size;
    const numbers =
      scheme === 'none' ? [1, 2, 3].slice(0, 1 + r.below(3)) : [1, 2, step + 1, step + 2].slice(0, 2 + r.below(3));
    const content = (domain: readonly ControlValue[]): ControlValue => (r.chance(0.12) ? '?' : r.pick(domain));
    device.presets = {
      stored: Object.fromEntries(
        numbers.map((n) => [n, Object.fromEntries(scoped.map(([id, control]) => [id, content(control.domain)]))]),
      ),
      powerup: r.pick([numbers[0], numbers[0], 'as left', 'any']),
      scheme,
      bank_size: size,
      sticky: r.chance(0.4),
      repeat: r.pick(['reload', 'reload', 'ignored', 'alternates']),
    };
    if (r.chance(0.15)) cc.push({ cc: 40, control: 'preset', mode: 'next', wrap: r.chance(0.5) });
    if (r.chance(0.2)) {
      device.busy_ms = 50;
      device.busy_policy = r.pick(['drop', 'queue']);
    }
    if (r.chance(0.05)) device.emits = { ch: (index % 3) + 2 };
  }
  device.controls = controls;
  device.cc = cc;
  if (r.chance(0.15) && controls.b1) device.foot = { f: { planned: r.chance(0.3), does: [{ toggle: 'b1' }] } };
  return device;
}

function randomAmp(r: Random): Dev {
  const kind = r.pick(['level', 'edge'] as const);
  return {
    ch: 9,
    inputs: { in1: { kind, powerup: 0 } },
    controls: {
      channel: {
        domain: ['clean', 'lead'],
        table: { 0: 'clean', 1: 'lead' },
        bits: ['in1'],
        inputs: r.pick(['write', 'hold']),
      },
    },
    ...(r.chance(0.5) ? { foot: { fs: { does: [r.chance(0.5) ? { flip_bit: 'in1' } : { next: 'channel' }] } } } : {}),
  };
}

function randomController(
  r: Random,
  loops: readonly string[],
  amp: boolean,
  devices: Readonly<Record<string, Dev>>,
): Ctl {
  const actions = (): Act[] => [
    ...r.some(loops, 0.75).map((loop): Act => ({ loop, to: r.below(2) })),
    ...(amp && r.chance(0.7) ? [{ contact: 'c1', to: r.below(2) } as Act] : []),
    ...Object.values(devices).flatMap((device) => deviceActions(r, device)),
  ];
  const count = 2 + r.below(3);
  const banks = r.chance(0.35) ? 2 : 1;
  const slots: NonNullable<Ctl['slots']> = {};
  for (let i = 0; i < count; i += 1)
    slots[`S${i}`] = {
      bank: i % banks,
      pos: Math.floor(i / banks),
      actions: actions(),
      ...(r.chance(0.85) ? { sound: `s${i}` } : {}),
    };
  const momentary = r.chance(0.2) && loops.length > 0;
  return {
    slots,
    loops: Object.fromEntries(loops.map((loop) => [loop, { powerup: r.chance(0.8) ? 0 : 'as left' }])),
    ...(amp
      ? {
          contacts: {
            c1: {
              kind: r.pick(['latched', 'latched', 'held', 'pulsed', 'pulsed']),
              policy: r.pick(['every', 'belief']),
            },
          },
        }
      : {}),
    ...(momentary ? { momentary: { m: randomMomentary(r, loops[0]) }, fires_while_held: r.chance(0.7) } : {}),
    repeat_press: r.pick(['fires', 'fires', 'fires', 'ignored', 'alternates']),
    bank_move: r.pick(['silent', 'silent', 'silent', 'fires']),
    ...(r.chance(0.1) ? { powerup_fires: 'S0' } : {}),
  } as Ctl;
}

function randomMomentary(r: Random, loop: string) {
  return r.chance(0.5)
    ? { press: [{ save: loop }, { loop, to: 1 }] as Act[], release: [{ restore: loop }] as Act[] }
    : { press: [{ loop, to: 1 }] as Act[], release: r.chance(0.6) ? ([{ loop, to: 0 }] as Act[]) : [] };
}

function deviceActions(r: Random, device: Dev): Act[] {
  const ch = device.ch ?? 1;
  const out: Act[] = [];
  const { presets } = device;
  if (presets && r.chance(0.7)) {
    const number = r.pick(numbersOf(device));
    const size = presets.bank_size ?? 128;
    const bank = Math.floor(number / size);
    if (presets.scheme !== 'none' && r.chance(0.7)) {
      if (presets.scheme !== 'lsb') out.push({ cc: 0, val: presets.scheme === 'both' ? bank >> 7 : bank, ch });
      if (presets.scheme !== 'msb') out.push({ cc: 32, val: bank & 127, ch });
    }
    out.push({ pc: r.chance(0.05) ? 99 : number % size, ch });
    if (device.busy_ms && r.chance(0.4)) out.push({ wait_ms: device.busy_ms });
  }
  for (const message of device.cc ?? [])
    if (r.chance(0.5))
      out.push({ cc: message.cc, val: message.mode === 'abs' ? r.pick([20, 50, 90]) : r.pick([0, 127]), ch });
  return out;
}

/** A song player that calls the switcher's slots; now and then the switcher calls back. */
function addCaller(
  r: Random,
  controllers: Record<string, Ctl>,
  midi: [string, 'out' | 'thru' | 'merge', string][],
): void {
  const { sw } = controllers;
  sw.rx = 16;
  sw.pc_map = { 0: 'S0', 1: 'S1' };
  sw.call_repeat = r.pick(['fires', 'ignored']);
  controllers.app = {
    slots: {
      A0: { bank: 0, pos: 0, actions: [{ pc: 0, ch: 16 }], sound: 's0' },
      A1: { bank: 0, pos: 1, actions: [{ pc: 1, ch: 16 }] },
    },
  };
  midi.push(['app', 'out', 'sw']);
  if (r.chance(0.25)) {
    controllers.app.rx = 15;
    controllers.app.pc_map = { 0: 'A0' };
    sw.slots!.S0.actions = [...(sw.slots!.S0.actions ?? []), { pc: 0, ch: 15 }];
    midi.push(['sw', 'out', 'app']);
  }
}

function randomTopology(
  r: Random,
  devices: Readonly<Record<string, Dev>>,
  loops: readonly string[],
): CaseRig['topology'] {
  const edges: Mutable<CaseRig['topology']['edges'][number]>[] = [];
  let node = 0;
  const here = () => `n${node}`;
  const advance = (make: (from: string, to: string) => void) => {
    make(here(), `n${node + 1}`);
    node += 1;
  };
  const free = [...loops];
  for (const [name, device] of Object.entries(devices)) {
    const gov = [
      ...(device.presets ? (r.chance(0.5) ? [`${name}.preset`] : []) : []),
      ...Object.keys(device.controls ?? {})
        .filter((id) => id !== 'on' && id !== 'mute')
        .map((id) => `${name}.${id}`),
    ];
    const loop = r.chance(0.4) ? free.pop() : undefined;
    if (name === 'mute')
      advance((from, to) => edges.push({ id: name, from, to, when: { 'mute.mute': 0 }, wire: true }));
    else if (name === 'ts')
      advance((from, to) =>
        edges.push(
          { id: 'ts', from, to, when: { 'ts.on': 1 } },
          { id: 'ts bypass', from, to, when: { 'ts.on': 0 }, wire: true },
        ),
      );
    else if (loop)
      advance((from, to) =>
        edges.push(
          { id: name, from, to, when: { [`sw.${loop}`]: 1 }, gov },
          { id: `${name} jumped`, from, to, when: { [`sw.${loop}`]: 0 }, wire: true },
        ),
      );
    else advance((from, to) => edges.push({ id: name, from, to, gov }));
  }
  for (const loop of free)
    advance((from, to) =>
      edges.push(
        { id: `pedal ${loop}`, from, to, when: { [`sw.${loop}`]: 1 }, gov: [] },
        { id: `${loop} jumped`, from, to, when: { [`sw.${loop}`]: 0 }, wire: true },
      ),
    );
  return { sources: ['n0'], dests: [here()], edges };
}

/** Wants close to what a slot sends, so that many recall and many do not. */
function randomSounds(
  r: Random,
  devices: Readonly<Record<string, Dev>>,
  loops: readonly string[],
  sw: Ctl,
): CaseRig['sounds'] {
  const sounds: Record<string, Mutable<CaseRig['sounds'][string]>> = {};
  for (const [name, slot] of Object.entries(sw.slots ?? {})) {
    const id = name.replace('S', 's');
    const wants: Record<string, ControlValue> = {};
    for (const action of slot.actions ?? []) {
      if ('loop' in action && r.chance(0.85))
        wants[`sw.${action.loop}`] = r.chance(0.92) ? action.to : 1 - Number(action.to);
      if ('contact' in action && r.chance(0.85)) wants['amp.channel'] = action.to === 1 ? 'lead' : 'clean';
    }
    for (const loop of loops) if (wants[`sw.${loop}`] === undefined && r.chance(0.2)) wants[`sw.${loop}`] = r.below(2);
    for (const [device, one] of Object.entries(devices)) {
      if (one.presets && r.chance(0.6)) wants[`${device}.preset`] = wantedPreset(r, one, slot.actions ?? []);
      for (const [control, facts] of Object.entries(one.controls ?? {}))
        if (control !== 'channel' && r.chance(0.3)) wants[`${device}.${control}`] = r.pick(facts.domain);
    }
    sounds[id] = {
      wants,
      ...(r.chance(0.04) ? { silence: true } : {}),
      ...(devices.ts && r.chance(0.3) ? { pedals: { ts: r.pick(['on', 'off'] as const) } } : {}),
    };
  }
  return sounds;
}

function wantedPreset(r: Random, device: Dev, actions: readonly Act[]): number {
  const size = device.presets!.bank_size ?? 128;
  const sent = actions.findLast((action) => 'pc' in action && action.ch === device.ch);
  const bank = actions.findLast((action) => (action.cc === 0 || action.cc === 32) && action.ch === device.ch);
  const number = sent ? Number(bank?.val ?? 0) * size + Number(sent.pc) : -1;
  return numbersOf(device).includes(number) && r.chance(0.85) ? number : r.pick(numbersOf(device));
}

/**
 * The same rig with what units that store things have: paths and messages that a preset opens, words that a control
 * change sets, inputs that come up as they were, held contacts that say no more than that.
 */
export function withStoredRouting(rig: CaseRig, r: Random): CaseRig {
  const devices = Object.fromEntries(
    Object.entries(rig.devices ?? {}).map(([name, device]) => [name, richer(r, device as Dev)]),
  );
  const withPresets = Object.keys(devices).filter((name) => devices[name].presets);
  const edges = rig.topology.edges.flatMap((edge) => {
    const device = withPresets.find((name) => edge.id === name);
    if (device === undefined || !r.chance(0.4)) return [edge];
    const numbers = numbersOf(devices[device]);
    const open = r.some(numbers, 0.5);
    const shut = numbers.filter((number) => !open.includes(number));
    const when = (values: readonly number[]) => ({ ...edge.when, [`${device}.preset`]: [...values] });
    return [
      { ...edge, when: when(open) },
      { ...edge, id: `${edge.id} round`, when: when(shut), gov: [], ...(r.chance(0.6) ? { wire: true } : {}) },
    ];
  });
  return { ...rig, devices, topology: { ...rig.topology, edges } } as CaseRig;
}

function richer(r: Random, device: Dev): Dev {
  const numbers = numbersOf(device);
  const cc = (device.cc ?? []).map((message) =>
    numbers.length > 0 && message.armed === undefined && r.chance(0.25)
      ? { ...message, armed: { control: 'preset', values: r.some(numbers, 0.6) } }
      : message,
  );
  const words = Object.entries(device.controls ?? {}).find(([, { domain }]) => typeof domain[0] === 'string');
  if (words && r.chance(0.6)) {
    const [control, { domain }] = words;
    cc.push({
      cc: 30,
      control,
      mode: 'abs',
      ...(r.chance(0.5) ? { table: Object.fromEntries(domain.map((word, i) => [i * 60 + r.below(2), word])) } : {}),
    });
  }
  const inputs = Object.fromEntries(
    Object.entries(device.inputs ?? {}).map(([id, input]) => [
      id,
      input.kind === 'edge' && r.chance(0.3) ? { ...input, powerup: 'as left' as const } : input,
    ]),
  );
  return { ...device, cc, ...(device.inputs ? { inputs } : {}) };
}

/**
 * The same rig with switches on its devices and hands at its controls, and a set of which feet and hands bring up some
 * parts; without what needs no foot and would only take time.
 */
export function withFeet(rig: CaseRig, r: Random): CaseRig {
  const devices = Object.fromEntries(
    Object.entries(rig.devices ?? {}).map(([name, device]) => [name, footed(r, device as Dev)]),
  );
  const known = Object.values(rig.sounds);
  // A sound that has a slot is played by it: these have none.
  const own = Object.fromEntries(
    Array.from({ length: 3 }, (_, i) => {
      const wants = { ...r.pick(known).wants };
      for (const [name, device] of Object.entries(devices))
        for (const [control, { domain }] of Object.entries(device.controls ?? {}))
          if (r.chance(0.4)) wants[`${name}.${control}`] = r.pick(domain);
      for (const name of Object.keys(wants)) if (r.chance(0.25)) delete wants[name];
      return [`x${i}`, { wants }];
    }),
  );
  const byFoot = () => {
    const device = Object.keys(devices).find((name) => devices[name].foot !== undefined);
    return device !== undefined && r.chance(0.15) ? [['foot', device, Object.keys(devices[device].foot!)[0]]] : [];
  };
  const set = [...(rig.set ?? []), ...(rig.set ?? [])].map((part) =>
    r.chance(0.7) ? { sound: `x${r.below(3)}`, before: byFoot(), after: byFoot() } : part,
  );
  return { ...rig, devices, sounds: { ...rig.sounds, ...own }, set } as CaseRig;
}

function footed(r: Random, { emits: _, ...device }: Dev): Dev {
  const controls = Object.fromEntries(
    Object.entries(device.controls ?? {}).map(([id, control]) => [
      id,
      {
        ...control,
        ...(r.chance(0.25) ? { owner: r.pick(['foot', 'hand', 'live'] as const) } : {}),
        ...(r.chance(0.15) && !control.bits ? { powerup: r.pick(['as left', 'any']) } : {}),
      },
    ]),
  );
  const action = (
    id: string,
    control: { readonly domain: readonly ControlValue[]; readonly bits?: readonly string[] },
  ) =>
    control.bits && r.chance(0.7)
      ? { flip_bit: control.bits[0] }
      : control.domain.length === 2 && r.chance(0.7)
        ? { toggle: id }
        : { next: id, wrap: r.chance(0.6), by: r.pick([1, 1, 1, -1, 2]) };
  const does = Object.entries(controls).flatMap(([id, control]) => (r.chance(0.6) ? [action(id, control)] : []));
  if (device.presets && r.chance(0.4)) does.push({ next: 'preset', wrap: r.chance(0.6), by: r.pick([1, -1]) });
  const switches: NonNullable<Dev['foot']> = {};
  for (let i = 0; does.length > 0; i += 1)
    switches[`f${i}`] = { planned: r.chance(0.2), does: does.splice(0, r.chance(0.2) ? 2 : 1) };
  const foot = { ...device.foot, ...switches };
  return { ...device, controls, ...(Object.keys(foot).length > 0 ? { foot } : {}) };
}

/**
 * The same rig with messages that come round: devices that send their recalls on to each other, a switcher that presses
 * its own presets, a chain that closes.
 */
export function withLoops(rig: CaseRig, r: Random): CaseRig {
  const devices = { ...rig.devices } as Record<string, Dev>;
  const controllers = { ...rig.controllers } as Record<string, Ctl>;
  const midi = [...(rig.midi ?? [])] as [string, 'out' | 'thru' | 'merge', string][];
  const link = (from: string, port: 'out' | 'thru' | 'merge', to: string) => {
    if (!midi.some((other) => other.join() === `${from},${port},${to}`)) midi.push([from, port, to]);
  };
  const storing = Object.keys(devices).filter((name) => devices[name].presets);
  if (storing.length > 1 && r.chance(0.5)) {
    const [a, b] = storing;
    devices[a] = { ...devices[a], emits: { ch: devices[b].ch ?? 1 } };
    if (r.chance(0.6)) devices[b] = { ...devices[b], emits: { ch: devices[a].ch ?? 1 } };
    link(a, 'out', b);
    link(b, 'out', a);
  }
  const { sw } = controllers;
  const slots = Object.keys(sw.slots ?? {});
  if (r.chance(0.5) && slots.length > 1) {
    const ch = sw.rx ?? 14;
    const [first, second] = slots;
    const pressed = { ...sw.slots![first], actions: [...(sw.slots![first].actions ?? []), { pc: 1, ch }] };
    controllers.sw = {
      ...sw,
      rx: ch,
      pc_map: { ...sw.pc_map, 1: r.chance(0.85) ? second : first },
      call_repeat: r.pick(['fires', 'ignored']),
      slots: { ...sw.slots, [first]: pressed },
    };
    link('sw', 'out', 'sw');
  }
  const last = midi.at(-1)?.[2];
  if (r.chance(0.25) && last !== undefined && last !== 'sw') link(last, r.pick(['thru', 'merge'] as const), 'sw');
  return { ...rig, devices, controllers, midi } as CaseRig;
}

/**
 * The same rig with what units of today store: an order of two pieces and an input by slot, a branch beside a piece,
 * a block that a preset has on or off, a move that is armed or not, a sound that a foot holds.
 */
export function withStoredUnits(rig: CaseRig, r: Random): CaseRig {
  const devices = Object.fromEntries(
    Object.entries(rig.devices ?? {}).map(([name, device]) => [name, storing(r, device as Dev)]),
  );
  const sw = rig.controllers!.sw as Ctl;
  const loops: Record<string, { powerup?: ControlValue; domain?: ControlValue[] }> = { ...sw.loops };
  let { edges, sources } = rig.topology as Mutable<CaseRig['topology']>;
  edges = edges.flatMap((edge) => blocked(edge, devices));
  const pair = edges.findIndex(
    (edge, i) => isAlone(edges, edge) && edges[i + 1] && isAlone(edges, edges[i + 1]) && edge.to === edges[i + 1].from,
  );
  if (pair >= 0 && r.chance(0.5)) {
    const [a, b] = edges.slice(pair, pair + 2);
    edges = [...edges.slice(0, pair), ...crosspoint(a, b), ...edges.slice(pair + 2)];
    for (const place of ['pa', 'pb'])
      loops[place] = { domain: [1, 2], powerup: r.chance(0.8) ? (place === 'pa' ? 1 : 2) : 'as left' };
  }
  if (r.chance(0.3)) {
    loops.input = { domain: [1, 2] };
    const [into] = sources;
    edges.push(
      { id: 'in A', from: 'na', to: into, when: { 'sw.input': 1 }, wire: true },
      { id: 'in B', from: 'nb', to: into, when: { 'sw.input': 2 }, wire: true },
    );
    sources = r.chance(0.7) ? ['na', 'nb'] : ['na'];
  }
  const beside = edges.find((edge) => isAlone(edges, edge) && r.chance(0.2));
  if (beside) edges.push({ id: `beside ${beside.id}`, from: beside.from, to: beside.to, gov: [] });
  const stored = Object.keys(loops).filter((loop) => loops[loop].domain);
  const slots = Object.fromEntries(
    Object.entries(sw.slots ?? {}).map(([id, slot]) => {
      const order = r.chance(0.5) ? [1, 2] : [2, 1];
      const more = stored.flatMap((loop, i): Act[] =>
        r.chance(0.8) ? [{ loop, to: loop === 'input' ? 1 + r.below(2) : r.chance(0.9) ? order[i % 2] : 1 }] : [],
      );
      return [id, { ...slot, actions: [...(slot.actions ?? []), ...more] }];
    }),
  );
  const sounds = Object.fromEntries(
    Object.entries(rig.sounds).map(([id, sound]) => {
      const wants = { ...sound.wants };
      for (const { loop, to } of (slots[id.replace('s', 'S')]?.actions ?? []) as Act[])
        if (loop !== undefined && stored.includes(String(loop)) && r.chance(0.85)) wants[`sw.${loop}`] = to;
      for (const [name, device] of Object.entries(devices))
        for (const control of ['blk', 'mv', 'hold', 'trk'])
          if (device.controls?.[control] && r.chance(0.25))
            wants[`${name}.${control}`] = r.pick(device.controls[control].domain);
      return [id, { ...sound, wants }];
    }),
  );
  return {
    ...rig,
    devices,
    controllers: {
      ...rig.controllers,
      sw: { ...sw, loops, slots, ...(sw.contacts ? { contacts: resting(r, sw) } : {}) },
    },
    topology: { ...rig.topology, sources, edges },
    sounds,
  } as CaseRig;
}

/** Contacts that are closed at rest, now and then. */
const resting = (r: Random, { contacts }: Ctl): Ctl['contacts'] =>
  Object.fromEntries(
    Object.entries(contacts ?? {}).map(([id, contact]) => [
      id,
      contact.kind !== 'pulsed' && r.chance(0.5) ? { ...contact, rests: 1 as const } : contact,
    ]),
  );

type Edge = Mutable<CaseRig['topology']['edges'][number]>;

/** The only way between its ends, whatever the switches say. */
const isAlone = (edges: readonly Edge[], edge: Edge): boolean =>
  edge.when === undefined && edges.filter((other) => other.from === edge.from || other.to === edge.to).length === 1;

/** Two pieces between the same ends in either order, by the places that a slot gives them. */
function crosspoint(a: Edge, b: Edge): Edge[] {
  const [start, end] = [a.from, b.to];
  const middle = `${a.to} between`;
  const wire = (id: string, from: string, to: string, place: string, at: number): Edge => ({
    id,
    from,
    to,
    when: { [`sw.${place}`]: at },
    wire: true,
  });
  return [a, b].flatMap((piece, i): Edge[] => {
    const place = i === 0 ? 'pa' : 'pb';
    const [into, out] = [`${piece.id} into`, `${piece.id} out`];
    return [
      { ...piece, from: into, to: out },
      wire(`${piece.id} first`, start, into, place, 1),
      wire(`${piece.id} from first`, out, middle, place, 1),
      wire(`${piece.id} second`, middle, into, place, 2),
      wire(`${piece.id} from second`, out, end, place, 2),
    ];
  });
}

/** A block that the preset has on or off, in the place of the whole device. */
function blocked(edge: Edge, devices: Readonly<Record<string, Dev>>): Edge[] {
  const device = devices[edge.id] as Dev | undefined;
  if (!device) return [edge];
  const gov = [
    ...(edge.gov ?? []),
    ...['mv', 'hold', 'trk'].filter((id) => device.controls?.[id]).map((id) => `${edge.id}.${id}`),
  ];
  if (!device.controls?.blk) return [{ ...edge, gov }];
  return [
    { ...edge, gov, when: { ...edge.when, [`${edge.id}.blk`]: 1 } },
    { ...edge, id: `${edge.id} off`, gov: [], when: { ...edge.when, [`${edge.id}.blk`]: 0 }, wire: true },
  ];
}

/** A device with blocks, a move and what holds a sound, each of them where chance has it. */
function storing(r: Random, device: Dev): Dev {
  const controls = { ...device.controls } as NonNullable<Dev['controls']>;
  const cc = [...(device.cc ?? [])];
  const foot = { ...device.foot } as NonNullable<Dev['foot']>;
  const stored: Record<string, readonly ControlValue[]> = {};
  const { presets } = device;
  if (presets && r.chance(0.4)) {
    controls.blk = { domain: [0, 1], scope: 'preset', powerup: 0 };
    stored.blk = [0, 1];
    if (r.chance(0.4)) cc.push({ cc: 50, control: 'blk', mode: 'switch' });
  }
  if (presets && r.chance(0.4)) {
    controls.mv = { domain: [0, 1], scope: 'preset', powerup: 0 };
    controls.ar = { domain: [0, 1], scope: 'preset', powerup: 1 };
    stored.mv = [0, 0, 1];
    stored.ar = [0, 1, 1];
    const armed = { control: 'ar', values: [1] };
    if (r.chance(0.5)) cc.push({ cc: 51, control: 'mv', mode: r.pick(['switch', 'toggle']), armed });
    foot.mv = {
      planned: r.chance(0.3),
      does: [r.chance(0.7) ? { toggle: 'mv', armed } : { put: 'mv', to: r.below(2), armed }],
    };
  }
  if (r.chance(0.2)) {
    controls.hold = { domain: [0, 1], scope: 'global', powerup: 0, owner: r.pick(['programmed', 'foot']) };
    foot.hold = { planned: r.chance(0.4), does: [{ toggle: 'hold' }] };
    if (r.chance(0.5)) cc.push({ cc: 52, control: 'hold', mode: 'switch' });
  }
  if (r.chance(0.15)) {
    controls.trk = { domain: ['empty', 'rec', 'play'], scope: presets ? 'preset' : 'global', powerup: 'empty' };
    if (presets) stored.trk = ['empty', 'empty', 'play'];
    foot.trk = { planned: r.chance(0.3), does: [{ turn: 'trk', table: { empty: 'rec', rec: 'play' } }] };
  }
  const known = Object.keys(stored);
  return {
    ...device,
    controls,
    cc,
    ...(Object.keys(foot).length > 0 ? { foot } : {}),
    ...(presets && known.length > 0
      ? {
          presets: {
            ...presets,
            stored: Object.fromEntries(
              Object.entries(presets.stored).map(([number, values]) => [
                number,
                { ...values, ...Object.fromEntries(known.map((id) => [id, r.chance(0.1) ? '?' : r.pick(stored[id])])) },
              ]),
            ),
          },
        }
      : {}),
  };
}
