import { ShowBuilder } from './build-show.ts';
import { typeById } from '../catalogue/types.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { emptyRig, emptySongbook, type Show } from '../model/documents.ts';
import {
  type Action,
  type Cable,
  type Cast,
  type Device,
  type DeviceType,
  type Plug,
  type Rig,
  type Slot,
  type Sound,
} from '../model/rig.ts';
import { type Part, type Song } from '../model/songbook.ts';
import type { Judgement } from '../recall/prove/verdict.ts';
import type { Prover } from '../recall/prove/prover.ts';
import { Random } from './random.ts';

/** Rigs of stated sizes, the same for the same seed: what speed is measured on. */
export interface LargeRig {
  readonly show: Show;
  /** What the rig holds, for the bench to say. */
  readonly facts: Readonly<Record<string, number>>;
}

const key = (i: number): string => `a${String(i).padStart(6, '0')}`;

class Drawing {
  readonly devices: Record<string, Device> = {};
  readonly cables: Record<string, Cable> = {};
  readonly sounds: Record<string, Sound> = {};
  readonly slots: Record<string, Slot> = {};
  readonly casting: Record<string, Cast> = {};
  readonly songs: Record<string, Song> = {};
  readonly parts: Record<string, Part> = {};

  device(id: string, type: DeviceType, facts: Partial<Device> = {}): string {
    const order = key(Object.keys(this.devices).length);
    this.devices[id] = {
      id,
      name: id,
      order,
      place: 'board',
      type,
      channel: null,
      firstPresetNumber: 1,
      presets: {},
      plannedSwitches: [],
      owners: {},
      powerUps: {},
      momentaries: {},
      ...facts,
    };
    return id;
  }

  cable(from: Plug, to: Plug): void {
    const kind = anatomyOf(this.devices[from.device].type).jacks.find((jack) => jack.id === from.jack)!;
    const id = `cable-${Object.keys(this.cables).length + 1}`;
    this.cables[id] = {
      id,
      tag: id,
      order: key(Object.keys(this.cables).length),
      kind: kind.kind.startsWith('midi')
        ? 'midi'
        : kind.kind.startsWith('contact')
          ? 'contact'
          : kind.speaker
            ? 'speaker'
            : 'signal',
      plugs: [from, to],
      length: 1,
      loom: null,
    };
  }

  show(name: string): Show {
    const base = emptyRig(name, name);
    const rig: Rig = {
      ...base,
      places: { board: { id: 'board', name: 'Board', order: 'b' } },
      devices: this.devices,
      cables: this.cables,
      sounds: this.sounds,
      slots: this.slots,
      casting: this.casting,
    };
    const songbook = {
      ...emptySongbook(`${name}-book`, name),
      songs: this.songs,
      parts: this.parts,
      setLists: { set: { id: 'set', name: 'Set', order: 'b', songs: Object.keys(this.songs) } },
    };
    return { rig, songbook };
  }
}

const jack = (device: string, name: string): Plug => ({ device, jack: name });
const typeOf = (id: string, params: DeviceType['params']): DeviceType => ({
  ...typeById(id).type,
  params: { ...typeById(id).type.params, ...params },
});

/** A switcher with a pedal in each loop, MIDI effects in line after it, a valve amp and a cabinet. */
function line(d: Drawing, loops: number, effects: number, positions: number, banks: number, effect: DeviceType): void {
  d.device('guitar', typeById('guitar').type);
  d.device('switcher', typeOf('switcher-10', { loops, insertAfter: 0, contacts: 2, positions, banks }));
  d.cable(jack('guitar', 'out'), jack('switcher', 'in'));
  for (let i = 1; i <= loops; i += 1) {
    d.device(`pedal-${i}`, typeById('drive').type);
    d.cable(jack('switcher', `send-${i}`), jack(`pedal-${i}`, 'in'));
    d.cable(jack(`pedal-${i}`, 'out'), jack('switcher', `return-${i}`));
  }
  let last = jack('switcher', 'out');
  let midi = jack('switcher', 'midi-out');
  for (let i = 1; i <= effects; i += 1) {
    d.device(`effect-${i}`, effect, {
      channel: ((i - 1) % 16) + 1,
      presets: Object.fromEntries(Array.from({ length: 12 }, (_, n) => [String(n * 20), { values: { mix: n * 5 } }])),
    });
    d.cable(last, jack(`effect-${i}`, 'in'));
    d.cable(midi, jack(`effect-${i}`, 'midi-in'));
    last = jack(`effect-${i}`, 'out');
    midi = jack(`effect-${i}`, 'midi-thru');
  }
  d.device('combo', typeById('valve-combo').type);
  d.device('cabinet', typeById('cabinet').type);
  d.cable(last, jack('combo', 'in'));
  d.cable(jack('combo', 'speaker'), jack('cabinet', 'in'));
  d.cable(jack('switcher', 'contact-1'), jack('combo', 'remote-1'));
}

function place(
  d: Drawing,
  i: number,
  positions: number,
  sound: Omit<Sound, 'id' | 'name' | 'order' | 'silence' | 'role'>,
  actions: readonly Action[] | null,
): void {
  const id = `sound-${i + 1}`;
  d.sounds[id] = { id, name: id, order: key(i), role: '', silence: false, ...sound };
  d.slots[`slot-${i + 1}`] = {
    id: `slot-${i + 1}`,
    controller: 'switcher',
    bank: Math.floor(i / positions),
    position: i % positions,
    sound: id,
    actions,
  };
}

/** 80 devices and 60 sounds in 20 songs; one sound in twelve is entered by hand and forgets something. */
export function retraceRig(seed = 1): LargeRig {
  const r = new Random(seed);
  const d = new Drawing();
  line(d, 60, 16, 5, 20, typeOf('midi-multi', { loadMs: 20, mixCc: 20 }));
  const pedals = Array.from({ length: 60 }, (_, i) => `pedal-${i + 1}`);
  const effects = Array.from({ length: 16 }, (_, i) => `effect-${i + 1}`);
  for (let i = 0; i < 60; i += 1) {
    const sound = {
      pedals: Object.fromEntries(
        [...pedals, ...effects].map((pedal): [string, 'on' | 'off'] => [pedal, r.chance(0.2) ? 'on' : 'off']),
      ),
      wants: {
        'combo/channel': r.pick(['clean', 'lead']),
        ...Object.fromEntries(effects.map((effect): [string, number] => [`${effect}/preset`, r.below(12) * 20])),
      },
    };
    place(d, i, 5, sound, i % 12 === 5 ? [{ kind: 'set', control: 'loop-1', value: 1 }] : null);
  }
  for (let i = 0; i < 20; i += 1) {
    d.songs[`song-${i}`] = { id: `song-${i}`, name: `Song ${i}`, order: key(i), tempo: null };
    for (let n = 0; n < 3; n += 1) {
      const part = `part-${i * 3 + n}`;
      d.parts[part] = { id: part, song: `song-${i}`, name: `Part ${n}`, order: key(i * 3 + n) };
      d.casting[part] = { id: part, part, slot: `slot-${i * 3 + n + 1}`, before: [], after: [], again: false };
    }
  }
  return {
    show: d.show('retrace'),
    facts: { devices: Object.keys(d.devices).length, sounds: 60, cables: Object.keys(d.cables).length },
  };
}

/** 1,000 slots, each setting half of 200 loops by hand; one sound in fifty also wants a loop that its slot forgets. */
export function kernelRig(seed = 1): LargeRig {
  const r = new Random(seed);
  const d = new Drawing();
  line(d, 200, 0, 20, 50, typeById('midi-delay').type);
  const loops = Array.from({ length: 200 }, (_, i) => i + 1);
  for (let i = 0; i < 1000; i += 1) {
    const set = new Map(
      shuffled(r, loops)
        .slice(0, 100)
        .map((loop): [number, 0 | 1] => [loop, r.chance(0.3) ? 1 : 0]),
    );
    const forgotten = i % 50 === 7 ? loops.find((loop) => !set.has(loop))! : null;
    const wants = Object.fromEntries(
      [...set, ...(forgotten === null ? [] : [[forgotten, 1]])].map(([loop, to]) => [`switcher/loop-${loop}`, to]),
    );
    place(
      d,
      i,
      20,
      { pedals: {}, wants },
      [...set].map(([loop, to]): Action => ({ kind: 'set', control: `loop-${loop}`, value: to })),
    );
  }
  return { show: d.show('kernel'), facts: { slots: 1000, controls: 200 } };
}

/**
 * 1,000 slots over 200 controls with bytes behind them: 152 loops and 16 devices with a sticky bank that ignore a
 * repeated program change, so that preset and bank, and mix with both, are followed together.
 */
export function documentRig(seed = 1): LargeRig {
  const r = new Random(seed);
  const d = new Drawing();
  const effects = 16;
  line(
    d,
    152,
    effects,
    20,
    50,
    typeOf('midi-multi', { loadMs: 0, sticky: true, repeat: 'ignored', presets: 300, mixCc: 20, footswitch: false }),
  );
  const loops = Array.from({ length: 152 }, (_, i) => i + 1);
  for (let i = 0; i < 1000; i += 1) {
    const set = new Map(
      shuffled(r, loops)
        .slice(0, 76)
        .map((loop): [number, 0 | 1] => [loop, r.chance(0.3) ? 1 : 0]),
    );
    const wants: Record<string, number> = Object.fromEntries(
      [...set].map(([loop, to]) => [`switcher/loop-${loop}`, to]),
    );
    const actions: Action[] = [...set].map(([loop, to]) => ({ kind: 'set', control: `loop-${loop}`, value: to }));
    for (const effect of shuffled(
      r,
      Array.from({ length: effects }, (_, n) => n + 1),
    ).slice(0, 8))
      recall(r, effect, i, wants, actions);
    place(d, i, 20, { pedals: {}, wants }, actions);
  }
  return { show: d.show('document'), facts: { slots: 1000, controls: 152 + 3 * effects } };
}

/** Preset, mix and switch of one device; now and then the bank is forgotten. */
function recall(r: Random, effect: number, slot: number, wants: Record<string, number>, actions: Action[]): void {
  const preset = r.below(12) * 20;
  const on = r.chance(0.5) ? 1 : 0;
  const mix = r.below(128);
  wants[`effect-${effect}/preset`] = preset;
  wants[`effect-${effect}/on`] = on;
  wants[`effect-${effect}/mix`] = mix;
  const forgets = slot % 97 === effect;
  if (!forgets) actions.push({ kind: 'control', channel: effect, cc: 32, value: Math.floor(preset / 128) });
  actions.push({ kind: 'program', channel: effect, program: preset % 128 });
  actions.push({ kind: 'control', channel: effect, cc: 102, value: on === 1 ? 127 : 0 });
  actions.push({ kind: 'control', channel: effect, cc: 20, value: mix });
}

function shuffled<T>(r: Random, list: readonly T[]): T[] {
  const copy = [...list];
  for (let i = copy.length - 1; i > 0; i -= 1) {
    const j = r.below(i + 1);
    [copy[i], copy[j]] = [copy[j], copy[i]];
  }
  return copy;
}

/** Everything before the verdicts done: events compiled, sounds laid out. Returns the verdicts' own work. */
export function proveCompiled(prover: Prover): () => readonly Judgement[] {
  for (const { sound } of prover.pairs()) prover.targetOf(sound);
  return () => prover.all(2);
}

/** So many times in series a split into two pedals that a mixer joins again: 2 to the power of that many ways. */
export function diamondRig(count = 30): Show {
  const stages = Array.from({ length: count }, (_, i) => {
    const before = i === 0 ? 'guitar' : `mix ${i - 1}`;
    return `${before} > soft ${i} = drive + hard ${i} = drive
mix ${i} = mixer two inputs
soft ${i} > mix ${i} in 1; hard ${i} > mix ${i} in 2`;
  });
  return new ShowBuilder().text(`guitar\n${stages.join('\n')}\nmix ${count - 1} > desk`).show;
}
