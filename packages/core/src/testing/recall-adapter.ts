import type {
  Anatomy,
  Control,
  ControlMessage,
  Domain,
  FootAction,
  Jack,
  ControlValue,
  Owner,
  PowerUp,
  Section,
} from '../model/anatomy.ts';
import { emptyRig, emptySongbook, type Show } from '../model/documents.ts';
import {
  type Action,
  type Cable,
  type Cast,
  type CastAction,
  type Device,
  faultKinds,
  type FaultKind,
  type OutsideChange,
  type Rig,
  type Slot,
  type Sound,
} from '../model/rig.ts';
import { type Part } from '../model/songbook.ts';

/** The small rigs of the recall reference cases, as their description has them. Everything absent is the default. */
export interface CaseRig {
  readonly controllers?: Readonly<Record<string, CaseController>>;
  readonly devices?: Readonly<Record<string, CaseDevice>>;
  readonly midi?: readonly (readonly [string, 'out' | 'thru' | 'merge', string])[];
  readonly contacts?: readonly (readonly [string, string, string, string])[];
  readonly topology: {
    readonly sources: readonly string[];
    readonly dests: readonly string[];
    readonly edges: readonly CaseEdge[];
  };
  readonly pedals?: Readonly<Record<string, { readonly loop?: string; readonly own?: string }>>;
  readonly sounds: Readonly<
    Record<
      string,
      {
        readonly wants?: Readonly<Record<string, ControlValue>>;
        readonly pedals?: Readonly<Record<string, 'on' | 'off'>>;
        readonly silence?: boolean;
      }
    >
  >;
  readonly set?: readonly (readonly [string, string] | CasePart)[];
  readonly external?: readonly { readonly to: string; readonly msg: { readonly pc: number; readonly ch: number } }[];
  readonly faults?: readonly FaultKind[];
  readonly message_limit?: number;
}
/** A part by its slot; or by its sound alone, which feet and hands bring up. */
interface CasePart {
  readonly slot?: readonly [string, string];
  readonly sound?: string;
  readonly before?: readonly (readonly (string | number)[])[];
  readonly after?: readonly (readonly (string | number)[])[];
  readonly again?: boolean;
}
interface CaseController {
  readonly slots?: Readonly<
    Record<
      string,
      {
        readonly bank?: number;
        readonly pos?: number;
        readonly sound?: string;
        readonly actions?: readonly CaseAction[];
      }
    >
  >;
  /** What its slots store: loops, off and on; or, with a domain, a place in an order, an input. */
  readonly loops?: Readonly<
    Record<string, { readonly powerup?: ControlValue; readonly domain?: readonly ControlValue[] }>
  >;
  readonly contacts?: Readonly<
    Record<
      string,
      { readonly kind?: 'latched' | 'held' | 'pulsed'; readonly policy?: 'every' | 'belief'; readonly rests?: 0 | 1 }
    >
  >;
  readonly momentary?: Readonly<
    Record<string, { readonly press?: readonly CaseAction[]; readonly release?: readonly CaseAction[] }>
  >;
  readonly fires_while_held?: boolean;
  readonly bank_move?: 'silent' | 'fires';
  readonly repeat_press?: 'fires' | 'ignored' | 'alternates';
  readonly call_repeat?: 'fires' | 'ignored';
  readonly rx?: number;
  readonly pc_map?: Readonly<Record<string, string>>;
  readonly powerup_fires?: string;
  readonly track_slot?: boolean;
  readonly banks?: number;
}
type CaseAction = Readonly<Record<string, number | string>>;
interface CaseDevice {
  readonly ch?: number;
  readonly omni?: boolean;
  readonly presets?: {
    readonly stored: Readonly<Record<string, Readonly<Record<string, ControlValue>>>>;
    readonly powerup?: number | string;
    readonly scheme?: 'none' | 'msb' | 'lsb' | 'both';
    readonly bank_size?: number;
    readonly sticky?: boolean;
    readonly home?: readonly [number, number];
    readonly repeat?: string | Readonly<Record<string, string>>;
    readonly flips?: string;
  };
  readonly controls?: Readonly<Record<string, CaseControl>>;
  readonly cc?: readonly CaseMessage[];
  readonly inputs?: Readonly<
    Record<string, { readonly kind?: 'level' | 'edge'; readonly powerup?: 0 | 1 | 'as left' }>
  >;
  readonly foot?: Readonly<
    Record<string, { readonly planned?: boolean; readonly does: readonly Readonly<Record<string, unknown>>[] }>
  >;
  readonly busy_ms?: number;
  readonly busy_policy?: 'drop' | 'queue';
  readonly emits?: number | { readonly ch: number } | readonly { readonly ch: number }[];
}
interface CaseControl {
  readonly domain: readonly ControlValue[];
  readonly powerup?: ControlValue;
  readonly scope?: 'global' | 'preset';
  readonly owner?: Owner;
  readonly bits?: readonly string[];
  readonly table?: Readonly<Record<string, ControlValue>>;
  readonly inputs?: 'write' | 'hold';
}
interface CaseMessage {
  readonly cc: number;
  readonly control: string;
  readonly mode: 'abs' | 'switch' | 'toggle' | 'next';
  readonly by?: number;
  readonly wrap?: boolean;
  readonly exclusive?: readonly string[];
  readonly table?: Readonly<Record<string, ControlValue>>;
  readonly armed?: unknown;
}
interface CaseEdge {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly when?: Readonly<Record<string, ControlValue | readonly ControlValue[]>>;
  readonly wire?: boolean;
  readonly gov?: readonly string[];
}

/** What a case's show is called by, so that verdicts can be told in the case's own names. */
export interface AdaptedCase {
  readonly show: Show;
  /** `controller.slot/sound` by slot id. */
  readonly names: ReadonlyMap<string, string>;
}

const deviceId = (name: string): string => `d.${safe(name)}`;
const partId = (name: string): string => `c.${safe(name)}`;
const soundId = (name: string): string => `s.${safe(name)}`;
const slotId = (controller: string, slot: string): string => `slot.${safe(controller)}.${safe(slot)}`;
/** Ids are plain; whatever is not is spelled by its code. */
const safe = (name: string): string => name.replace(/[^A-Za-z0-9-]/g, (c) => `_${c.codePointAt(0)!.toString(16)}_`);
const orderOf = (i: number): string => `a${String(i).padStart(6, '0')}`;
const listOf = <T>(value: T | readonly T[]): readonly T[] => (Array.isArray(value) ? value : [value as T]);

/** The case's own names of its slots, controller and slot, by slot id. */
export const slotNames = (rig: CaseRig): ReadonlyMap<string, readonly [string, string]> =>
  new Map(
    Object.entries(rig.controllers ?? {}).flatMap(([controller, { slots }]) =>
      Object.keys(slots ?? {}).map((slot) => [slotId(controller, slot), [controller, slot] as const] as const),
    ),
  );

/** Turns a reference rig into Yunta's own two documents. */
export function adaptCase(rig: CaseRig): AdaptedCase {
  refuseUnknown(rig);
  return new Adapter(rig).adapt();
}

/** Fields of the format, by what holds them. What is not here is left out by name, never silently. */
const knownFields = {
  rig: [
    'controllers',
    'devices',
    'midi',
    'contacts',
    'topology',
    'pedals',
    'sounds',
    'set',
    'external',
    'faults',
    'message_limit',
  ],
  controller: [
    'slots',
    'loops',
    'contacts',
    'momentary',
    'fires_while_held',
    'bank_move',
    'repeat_press',
    'call_repeat',
    'rx',
    'pc_map',
    'powerup_fires',
    'track_slot',
    'banks',
  ],
  device: ['ch', 'omni', 'presets', 'controls', 'cc', 'inputs', 'foot', 'busy_ms', 'busy_policy', 'emits'],
  presets: ['stored', 'powerup', 'scheme', 'bank_size', 'sticky', 'home', 'repeat', 'flips'],
  control: ['domain', 'powerup', 'scope', 'owner', 'bits', 'table', 'inputs'],
  message: ['cc', 'control', 'mode', 'by', 'wrap', 'exclusive', 'table', 'armed'],
  input: ['kind', 'powerup'],
  foot: ['planned', 'does'],
  contact: ['kind', 'policy', 'rests'],
  momentary: ['press', 'release'],
  slot: ['bank', 'pos', 'sound', 'actions'],
  edge: ['id', 'from', 'to', 'when', 'wire', 'gov'],
  sound: ['wants', 'pedals', 'silence'],
  pedal: ['loop', 'own'],
  part: ['slot', 'sound', 'before', 'after', 'again'],
} as const;

function refuseUnknown(rig: CaseRig): void {
  const see = (what: keyof typeof knownFields, where: string, data: object) => {
    for (const field of Object.keys(data))
      if (!(knownFields[what] as readonly string[]).includes(field))
        throw new Error(`${where}: the field "${field}" is not understood`);
  };
  see('rig', 'rig', rig);
  for (const [name, one] of Object.entries(rig.controllers ?? {})) {
    see('controller', name, one);
    for (const [id, slot] of Object.entries(one.slots ?? {})) see('slot', `${name}.${id}`, slot);
    for (const [id, contact] of Object.entries(one.contacts ?? {})) see('contact', `${name}.${id}`, contact);
    for (const [id, momentary] of Object.entries(one.momentary ?? {})) see('momentary', `${name}.${id}`, momentary);
  }
  for (const [name, one] of Object.entries(rig.devices ?? {})) {
    see('device', name, one);
    if (one.presets) see('presets', `${name}.presets`, one.presets);
    for (const [id, control] of Object.entries(one.controls ?? {})) see('control', `${name}.${id}`, control);
    for (const message of one.cc ?? []) see('message', `${name}.cc ${message.cc}`, message);
    for (const [id, input] of Object.entries(one.inputs ?? {})) see('input', `${name}.${id}`, input);
    for (const [id, foot] of Object.entries(one.foot ?? {})) see('foot', `${name}.${id}`, foot);
  }
  for (const edge of rig.topology.edges) see('edge', `edge ${edge.id}`, edge);
  for (const [name, sound] of Object.entries(rig.sounds)) see('sound', name, sound);
  for (const [name, pedal] of Object.entries(rig.pedals ?? {})) see('pedal', name, pedal);
  for (const [i, part] of (rig.set ?? []).entries()) {
    if (isListed(part)) continue;
    see('part', `part ${i + 1}`, part);
    if ((part.slot === undefined) === (part.sound === undefined))
      throw new Error(`part ${i + 1}: it takes either a slot or a sound`);
  }
}

class Adapter {
  private readonly anatomies = new Map<string, { jacks: Jack[]; sections: Section[] }>();
  private readonly plugs = new Map<string, { device: string; jack: string }[]>();
  private readonly extra: string[] = [];
  private serial = 0;

  constructor(private readonly rig: CaseRig) {}

  adapt(): AdaptedCase {
    const { rig } = this;
    this.topology();
    const devices: Device[] = [
      ...Object.entries(rig.controllers ?? {}).map(([name, one]) => this.controllerOf(name, one)),
      ...Object.entries(rig.devices ?? {})
        .filter(([name]) => !rig.controllers?.[name])
        .map(([name, one]) => this.deviceOf(name, ...this.device(name, one))),
      ...this.extra.map((name) => this.bare(name)),
    ].map((device, i) => ({ ...device, order: orderOf(i) }));
    const slots = Object.entries(rig.controllers ?? {}).flatMap(([name, one]) => this.slots(name, one));
    const parts = (rig.set ?? []).map((part, i) => this.part(part, i));
    const built: Rig = {
      ...emptyRig('case', 'Case'),
      settings: {
        roles: [],
        faults: rig.faults ?? faultKinds,
        messageLimit: rig.message_limit ?? 10_000,
        setList: null,
      },
      places: { p: { id: 'p', name: 'Board', order: 'a' } },
      devices: byId(devices),
      cables: byId(this.cables()),
      sounds: byId(Object.keys(rig.sounds).map((name, i) => this.sound(name, i))),
      slots: byId(slots),
      casting: byId(parts.map((part) => part.cast)),
      outside: byId(
        (rig.external ?? []).map((change, i): OutsideChange => ({
          id: `o${i}`,
          device: deviceId(change.to),
          channel: change.msg.ch,
          program: change.msg.pc,
        })),
      ),
    };
    const songbook = {
      ...emptySongbook('book', 'Case'),
      songs: { song: { id: 'song', name: 'Case', order: 'a', tempo: null } },
      parts: byId(parts.map((part) => part.part)),
      setLists: { set: { id: 'set', name: 'Set', order: 'a', songs: ['song'] } },
    };
    const names = new Map(
      Object.entries(rig.controllers ?? {}).flatMap(([controller, one]) =>
        Object.entries(one.slots ?? {}).flatMap(([slot, entry]) =>
          entry.sound === undefined
            ? []
            : [[slotId(controller, slot), `${controller}.${slot}/${entry.sound}`] as const],
        ),
      ),
    );
    return { show: { rig: built, songbook }, names };
  }

  // ---- signal ----

  private topology(): void {
    const { topology } = this.rig;
    for (const [kind, nodes] of [['source', topology.sources] as const, ['destination', topology.dests] as const])
      nodes.forEach((node, i) => {
        const name = `${kind} ${i}`;
        this.extra.push(name);
        this.plug(node, name, kind === 'source' ? 'out' : 'in', kind === 'source' ? 'signal-out' : 'signal-in');
        this.at(name).sections.push({
          id: 'end',
          label: '',
          from: kind === 'source' ? '*end' : 'in',
          to: kind === 'source' ? 'out' : '*end',
          active: false,
        });
      });
    for (const edge of topology.edges) this.edge(edge);
  }

  /** An edge becomes a chain of devices: each controls what it can, the one that does something does it. */
  private edge(edge: CaseEdge): void {
    const chain = new Map<string, { when: Record<string, ControlValue[]>; gov: string[] }>();
    const link = (device: string) => {
      let item = chain.get(device);
      if (!item) chain.set(device, (item = { when: {}, gov: [] }));
      return item;
    };
    for (const [ref, values] of Object.entries(edge.when ?? {})) {
      const [device, control] = splitName(ref);
      link(device).when[safe(control)] = [...listOf(values)];
    }
    for (const ref of edge.gov ?? []) {
      const [device, control] = splitName(ref);
      link(device).gov.push(control === 'preset' ? 'preset' : safe(control));
    }
    if (chain.size === 0) {
      const name = `edge ${edge.id}`;
      if (!this.extra.includes(name)) this.extra.push(name);
      link(name);
    }
    const devices = [...chain];
    const active = edge.wire !== true;
    const acting = devices.findIndex(([, one]) => one.gov.length > 0);
    let node = edge.from;
    devices.forEach(([device, one], i) => {
      const last = i === devices.length - 1;
      const to = last ? edge.to : `~${edge.id}.${i}`;
      const n = (this.serial += 1);
      this.plug(node, device, `i${n}`, 'signal-in');
      this.plug(to, device, `o${n}`, 'signal-out');
      // Which loop holds a pedal, the case says itself: a section of a controller that ended on its jack would be taken
      // for the send of a loop, and whatever is cabled to it for a pedal in that loop.
      const isController = this.rig.controllers?.[device] !== undefined;
      if (isController)
        this.at(device).sections.push({ id: `${n}.out`, label: '', from: `*${n}`, to: `o${n}`, active: false });
      this.at(device).sections.push({
        id: `${edge.id}.${i}`.slice(0, 70),
        label: edge.id.slice(0, 100),
        from: `i${n}`,
        to: isController ? `*${n}` : `o${n}`,
        active: active && (one.gov.length > 0 || (acting < 0 && last)),
        ...(Object.keys(one.when).length > 0 ? { when: { controls: one.when } } : {}),
        ...(one.gov.length > 0 ? { parameters: one.gov } : {}),
      });
      node = to;
    });
  }

  private at(device: string) {
    let item = this.anatomies.get(device);
    if (!item) this.anatomies.set(device, (item = { jacks: [], sections: [] }));
    return item;
  }

  private plug(node: string, device: string, jack: string, kind: Jack['kind']): void {
    this.at(device).jacks.push({ id: jack, label: jack, kind });
    this.plugs.set(node, [...(this.plugs.get(node) ?? []), { device: deviceId(device), jack }]);
  }

  private cables(): Cable[] {
    const cable = (id: string, kind: Cable['kind'], plugs: Cable['plugs']): Cable => ({
      id,
      tag: '',
      order: orderOf((this.serial += 1)),
      kind,
      plugs,
      length: null,
      loom: null,
    });
    const signal = [...this.plugs]
      .filter(([, plugs]) => plugs.length > 1)
      .map(([, plugs], i) => cable(`n${i}`, 'signal', plugs));
    const midi = new Map<string, Cable>();
    for (const [from, port, to] of this.rig.midi ?? []) {
      const jack = `midi-${port}`;
      const key = `${from}.${jack}`;
      const fromPlug = { device: deviceId(from), jack };
      const serial = [...(this.midiIns.get(to) ?? [])].indexOf(key);
      const toPlug = { device: deviceId(to), jack: `midi-in-${serial}` };
      const known = midi.get(key);
      midi.set(
        key,
        known ? { ...known, plugs: [...known.plugs, toPlug] } : cable(`m.${safe(key)}`, 'midi', [fromPlug, toPlug]),
      );
    }
    const contacts = new Map<string, { device: string; jack: string }[]>();
    for (const [controller, contact, device, input] of this.rig.contacts ?? []) {
      const key = `${controller}.${contact}`;
      contacts.set(key, [
        ...(contacts.get(key) ?? [{ device: deviceId(controller), jack: safe(contact) }]),
        { device: deviceId(device), jack: safe(input) },
      ]);
    }
    return [
      ...signal,
      ...midi.values(),
      ...[...contacts].map(([key, plugs]) => cable(`k.${safe(key)}`, 'contact', plugs)),
    ];
  }

  /** One MIDI input for each cable that comes in, by device. */
  private get midiIns(): ReadonlyMap<string, readonly string[]> {
    const ins = new Map<string, string[]>();
    for (const [from, port, to] of this.rig.midi ?? []) {
      const key = `${from}.midi-${port}`;
      const list = ins.get(to) ?? [];
      if (!list.includes(key)) ins.set(to, [...list, key]);
    }
    return ins;
  }

  private midiJacks(name: string): Jack[] {
    const outs = [...new Set((this.rig.midi ?? []).filter(([from]) => from === name).map(([, port]) => port))];
    return [
      ...outs.map((port): Jack => ({ id: `midi-${port}`, label: `MIDI ${port}`, kind: `midi-${port}` })),
      ...(this.midiIns.get(name) ?? []).map((_, i): Jack => ({
        id: `midi-in-${i}`,
        label: 'MIDI in',
        kind: 'midi-in',
      })),
    ];
  }

  // ---- devices ----

  private bare(name: string): Device {
    const ends = name.startsWith('source ')
      ? { source: '*end' }
      : name.startsWith('destination ')
        ? { destination: '*end' }
        : {};
    return this.deviceOf(name, { ...this.at(name), ...ends });
  }

  private deviceOf(name: string, anatomy: Partial<Anatomy>, facts: Partial<Device> = {}): Device {
    const { jacks, sections } = this.at(name);
    const whole = {
      ...anatomy,
      jacks: [...jacks, ...this.midiJacks(name), ...(anatomy.jacks ?? []).filter((jack) => !jacks.includes(jack))],
      sections,
    };
    const pedal = this.rig.pedals?.[name];
    return {
      id: deviceId(name),
      name,
      order: 'a',
      place: 'p',
      type: { id: `case.${name}`, revision: 1, name, archetype: 'declared', params: { anatomy: whole } },
      channel: null,
      firstPresetNumber: 0,
      presets: {},
      plannedSwitches: [],
      owners: {},
      powerUps: {},
      momentaries: {},
      ...(pedal
        ? {
            switching: {
              ...(pedal.loop ? { loop: refOf(pedal.loop) } : {}),
              ...(pedal.own ? { own: refOf(pedal.own) } : {}),
            },
          }
        : {}),
      ...facts,
    };
  }

  /** A unit may have slots and be a device of its own, which its own messages call. */
  private controllerOf(name: string, caseController: CaseController): Device {
    const [anatomy, facts] = this.controller(name, caseController);
    const own = this.rig.devices?.[name];
    if (!own) return this.deviceOf(name, anatomy, facts);
    const [deviceAnatomy, deviceFacts] = this.device(name, own);
    const both = <K extends 'jacks' | 'controls'>(key: K) => [...(anatomy[key] ?? []), ...(deviceAnatomy[key] ?? [])];
    return this.deviceOf(
      name,
      { ...deviceAnatomy, ...anatomy, jacks: both('jacks') as Jack[], controls: both('controls') as Control[] },
      { ...facts, ...deviceFacts },
    );
  }

  private device(name: string, caseDevice: CaseDevice): [Partial<Anatomy>, Partial<Device>] {
    const inputs = Object.entries(caseDevice.inputs ?? {});
    const anatomy: Partial<Anatomy> = {
      jacks: inputs.map(([id]): Jack => ({ id: safe(id), label: id, kind: 'contact-in' })),
      controls: Object.entries(caseDevice.controls ?? {}).map(([id, control]) => controlOf(id, control)),
      messages: (caseDevice.cc ?? []).map(messageOf),
      inputs: inputs.map(([id, input]) => ({
        id: safe(id),
        kind: input.kind ?? 'level',
        powerUp:
          input.powerup === undefined ? 0 : input.powerup === 0 || input.powerup === 1 ? input.powerup : 'last-state',
      })),
      switches: Object.entries(caseDevice.foot ?? {}).map(([id, foot]) => ({
        id: safe(id),
        label: id,
        actions: foot.does.map(actionOfFoot),
      })),
      ...(caseDevice.presets ? { presets: presetsOf(caseDevice.presets) } : {}),
      ...(caseDevice.busy_ms ? { busy: { ms: caseDevice.busy_ms, policy: caseDevice.busy_policy ?? 'drop' } } : {}),
      ...(caseDevice.emits === undefined ? {} : { emits: { channel: emitsOn(name, caseDevice.emits) } }),
    };
    const scoped = Object.entries(caseDevice.controls ?? {})
      .filter(([, control]) => control.scope === 'preset')
      .map(([id]) => id);
    const facts: Partial<Device> = {
      channel: caseDevice.omni ? 'omni' : (caseDevice.ch ?? null),
      presets: Object.fromEntries(
        Object.entries(caseDevice.presets?.stored ?? {}).map(([number, content]) => [
          number,
          {
            values: Object.fromEntries(
              Object.entries(content).map(([id, value]) => [safe(id), value === '?' ? null : value]),
            ),
            keeps: scoped.filter((id) => !(id in content)).map(safe),
          },
        ]),
      ),
      plannedSwitches: Object.entries(caseDevice.foot ?? {})
        .filter(([, foot]) => foot.planned)
        .map(([id]) => safe(id)),
    };
    return [anatomy, facts];
  }

  private controller(name: string, caseController: CaseController): [Partial<Anatomy>, Partial<Device>] {
    const slots = Object.values(caseController.slots ?? {});
    const banks = caseController.banks ?? Math.max(0, ...slots.map((slot) => slot.bank ?? 0)) + 1;
    const contacts = Object.entries(caseController.contacts ?? {});
    const anatomy: Partial<Anatomy> = {
      jacks: contacts.map(([id]): Jack => ({ id: safe(id), label: id, kind: 'contact-out' })),
      controls: Object.entries(caseController.loops ?? {}).map(([id, loop]): Control => ({
        id: safe(id),
        label: id,
        domain: loop.domain ? { kind: 'choice', values: loop.domain } : { kind: 'switch' },
        scope: 'slot',
        powerUp: powerUp(loop.powerup ?? loop.domain?.[0] ?? 0),
        owner: 'programmed',
      })),
      controller: {
        banks,
        positions: Math.max(0, ...slots.map((slot) => slot.pos ?? 0)) + 1,
        loops: Object.entries(caseController.loops ?? {}).flatMap(([id, { domain }]) => (domain ? [] : [safe(id)])),
        contacts: contacts.map(([id, contact]) => ({
          id: safe(id),
          kind: contact.kind ?? 'latched',
          policy: contact.policy ?? 'every',
          ...(contact.rests === undefined ? {} : { rests: contact.rests }),
        })),
        momentaries: Object.keys(caseController.momentary ?? {}).map((id) => ({ id: safe(id), label: id })),
        firesWhileHeld: caseController.fires_while_held ?? true,
        bankMove: caseController.bank_move ?? 'silent',
        repeatPress: caseController.repeat_press ?? 'fires',
        callRepeat: caseController.call_repeat ?? 'fires',
      },
    };
    const actionOf = actionReader(name, caseController);
    const facts: Partial<Device> = {
      momentaries: Object.fromEntries(
        Object.entries(caseController.momentary ?? {}).map(([id, both]) => [
          safe(id),
          { press: (both.press ?? []).map(actionOf), release: (both.release ?? []).map(actionOf) },
        ]),
      ),
      ...(caseController.rx !== undefined
        ? {
            calls: {
              channel: caseController.rx,
              programs: Object.fromEntries(
                Object.entries(caseController.pc_map ?? {}).map(([program, slot]) => [program, slotId(name, slot)]),
              ),
            },
          }
        : {}),
      ...(caseController.powerup_fires === undefined
        ? {}
        : { powerUpSlot: slotId(name, caseController.powerup_fires) }),
    };
    return [anatomy, facts];
  }

  private slots(controller: string, caseController: CaseController): Slot[] {
    return Object.entries(caseController.slots ?? {}).map(([name, slot]) => ({
      id: slotId(controller, name),
      controller: deviceId(controller),
      bank: slot.bank ?? 0,
      position: slot.pos ?? 0,
      sound: slot.sound === undefined ? null : soundId(slot.sound),
      actions: (slot.actions ?? []).map(actionReader(controller, caseController)),
    }));
  }

  // ---- show ----

  private sound(name: string, i: number): Sound {
    const sound = this.rig.sounds[name];
    return {
      id: soundId(name),
      name,
      order: orderOf(i),
      role: '',
      silence: sound.silence ?? false,
      wants: Object.fromEntries(Object.entries(sound.wants ?? {}).map(([ref, value]) => [refOf(ref), value])),
      pedals: Object.fromEntries(
        Object.entries(sound.pedals ?? {}).map(([device, state]) => [deviceId(device), state]),
      ),
    };
  }

  private part(given: readonly [string, string] | CasePart, i: number): { cast: Cast; part: Part } {
    const part: CasePart = isListed(given) ? { slot: given } : given;
    const actionsOf = (list: CasePart['before']): CastAction[] =>
      (list ?? []).map((action) =>
        action[0] === 'foot'
          ? { kind: 'foot', device: deviceId(String(action[1])), switch: safe(String(action[2])) }
          : { kind: 'cue', control: refOf(String(action[1])), value: action[2] },
      );
    return {
      cast: {
        id: partId(`${i}`),
        part: partId(`${i}`),
        ...(part.slot ? { slot: slotId(...part.slot) } : { slot: null, sound: soundId(part.sound ?? '') }),
        before: actionsOf(part.before),
        after: actionsOf(part.after),
        again: part.again ?? false,
      },
      part: { id: partId(`${i}`), song: 'song', name: `Part ${i + 1}`, order: orderOf(i) },
    };
  }
}

const isListed = (part: readonly [string, string] | CasePart): part is readonly [string, string] => Array.isArray(part);

const byId = <T extends { readonly id: string }>(list: readonly T[]): Record<string, T> =>
  Object.fromEntries(list.map((entry) => [entry.id, entry]));

function splitName(ref: string): [string, string] {
  const at = ref.indexOf('.');
  return [ref.slice(0, at), ref.slice(at + 1)];
}

function refOf(ref: string): string {
  const [device, control] = splitName(ref);
  return `${deviceId(device)}/${control === 'preset' ? 'preset' : safe(control)}`;
}

function powerUp(value: ControlValue): PowerUp {
  if (value === 'as left' || value === 'as_left') return { is: 'last-state' };
  return value === 'any' ? { is: 'any' } : { is: 'value', value };
}

function controlOf(id: string, control: CaseControl): Control {
  const domain: Domain = { kind: 'choice', values: control.domain };
  return {
    id: safe(id),
    label: id,
    domain,
    scope: control.scope ?? 'global',
    powerUp: powerUp(control.powerup ?? control.domain[0]),
    owner: control.owner ?? 'programmed',
    ...(control.bits
      ? {
          contacts: {
            inputs: control.bits.map(safe),
            table: Object.fromEntries(
              Object.entries(control.table ?? {}).map(([bits, value]) => [bits.replace(/[^01]/g, ''), value]),
            ),
            mode: control.inputs ?? 'write',
          },
        }
      : {}),
  };
}

function messageOf(message: CaseMessage): ControlMessage {
  return {
    cc: message.cc,
    control: message.control === 'preset' ? 'preset' : safe(message.control),
    mode: message.mode === 'abs' ? 'absolute' : message.mode,
    ...(message.by === undefined ? {} : { by: message.by }),
    ...(message.wrap === undefined ? {} : { wrap: message.wrap }),
    ...(message.exclusive ? { exclusive: message.exclusive.map(safe) } : {}),
    ...(message.table ? { table: message.table } : {}),
    ...(message.armed ? { armed: armedOf(message.armed) } : {}),
  };
}

/** `{control, values}`, `{control: value(s)}` or `[control, value(s)]`. */
function armedOf(armed: unknown): NonNullable<ControlMessage['armed']> {
  if (Array.isArray(armed)) return { control: safe(String(armed[0])), values: [...listOf(armed[1] as ControlValue)] };
  const given = armed as Record<string, unknown>;
  if ('control' in given)
    return {
      control: safe(String(given.control)),
      values: [...listOf((given.values ?? given.value ?? given.when ?? given.in) as ControlValue)],
    };
  const [control, values] = Object.entries(given)[0];
  return { control: safe(control), values: [...listOf(values as ControlValue)] };
}

function emitsOn(name: string, emits: NonNullable<CaseDevice['emits']>): number {
  if (typeof emits === 'number') return emits;
  const [first, ...more] = listOf(emits);
  if (more.length > 0 || Object.keys(first).join() !== 'ch')
    throw new Error(`${name}: that it emits ${JSON.stringify(emits)} is not understood`);
  return first.ch;
}

function actionOfFoot(update: Readonly<Record<string, unknown>>): FootAction {
  const steps = {
    ...(update.by === undefined ? {} : { by: Number(update.by) }),
    ...(update.wrap === undefined ? {} : { wrap: Boolean(update.wrap) }),
  };
  const target = (name: unknown) => (name === 'preset' ? 'preset' : safe(String(name)));
  const armed = update.armed ? { armed: armedOf(update.armed) } : {};
  if ('toggle' in update) return { toggle: target(update.toggle), ...armed };
  if ('turn' in update)
    return { turn: target(update.turn), table: update.table as Readonly<Record<string, ControlValue>>, ...armed };
  if ('put' in update) return { put: target(update.put), to: update.to as ControlValue, ...armed };
  if ('next' in update) return { next: target(update.next), ...steps, ...armed };
  return { flip: safe(String(update.flip_bit)) };
}

function presetsOf(presets: NonNullable<CaseDevice['presets']>): Anatomy['presets'] {
  const numbers = Object.keys(presets.stored)
    .map(Number)
    .sort((a, b) => a - b);
  const repeat = presets.repeat ?? 'reload';
  const flips =
    typeof repeat === 'object'
      ? (repeat.flips ?? repeat.control)
      : repeat.startsWith('flips')
        ? (presets.flips ?? repeat.slice(6).trim())
        : undefined;
  return {
    numbers: { list: numbers },
    powerUp: powerUp(presets.powerup ?? numbers[0]),
    scheme: presets.scheme ?? 'none',
    bankSize: presets.bank_size ?? 128,
    sticky: presets.sticky ?? false,
    home: presets.home ?? [0, 0],
    repeat:
      flips === undefined
        ? { is: repeat as 'reload' | 'ignored' | 'alternates' }
        : { is: 'flips', control: safe(flips) },
  };
}

/** A contact that is closed while a switch is held may leave out where it goes; every other says it. */
const actionReader =
  (name: string, { contacts }: CaseController) =>
  (action: CaseAction): Action => {
    if (!('contact' in action) || 'to' in action) return actionOf(name, action);
    if (contacts?.[action.contact]?.kind !== 'held')
      throw new Error(`${name}: where the contact ${action.contact} goes is not said`);
    return actionOf(name, { ...action, to: 1 });
  };

function actionOf(name: string, action: CaseAction): Action {
  if ('pc' in action) return { kind: 'program', channel: Number(action.ch), program: Number(action.pc) };
  if ('cc' in action)
    return { kind: 'control', channel: Number(action.ch), cc: Number(action.cc), value: Number(action.val) };
  if ('loop' in action) return { kind: 'set', control: safe(String(action.loop)), value: Number(action.to ?? 0) };
  if ('contact' in action)
    return { kind: 'contact', contact: safe(String(action.contact)), to: action.to === 1 ? 1 : 0 };
  if ('wait_ms' in action) return { kind: 'wait', ms: Number(action.wait_ms) };
  if ('save' in action) return { kind: 'save', control: safe(String(action.save)) };
  if ('restore' in action) return { kind: 'restore', control: safe(String(action.restore)) };
  throw new Error(`${name}: the action ${JSON.stringify(action)} is not understood`);
}
