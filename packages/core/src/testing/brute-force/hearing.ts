import type { CaseRig } from '../recall-adapter.ts';
import type { State } from './plain-rig.ts';
import { contentOf, isUnknown, listOf, plain, type Value } from './values.ts';

/** The same moment under each assumption of the contents. */
export type Moment = readonly State[];

type Edge = CaseRig['topology']['edges'][number];

/** What a sound lays over the state, under one assumption of the contents. */
interface Laid {
  readonly wants: ReadonlyMap<string, Value>;
  /** Named by the sound itself, not by a preset that it wants. */
  readonly named: ReadonlySet<string>;
  /** What the player sets. */
  readonly cues: ReadonlyMap<string, Value>;
}

/** Judges what is heard, by laying a sound's wants over a state and comparing what sounds before and after. */
export class Hearing {
  constructor(
    private readonly rig: CaseRig,
    private readonly contents: readonly (readonly number[])[],
  ) {}

  /** Under each assumption whether the moment is right for a sound; `obey`: cues are taken as done. */
  isRight(moment: Moment, sound: string, obey: boolean): readonly boolean[] {
    const laid = moment.map((_, i) => this.lay(sound, this.contents[i]));
    const now = moment.map((state, i) => (obey ? overlaid(state, laid[i].cues) : state));
    const then = now.map((state, i) => overlaid(state, laid[i].wants));
    const varies = (states: Moment, name: string) =>
      states.some((state) => isUnknown(state.get(name)!)) &&
      states.some((state) => plain(state.get(name)!) !== plain(states[0].get(name)!));
    return now.map((state, i) => {
      const before = this.trace(state);
      const after = this.trace(then[i]);
      if (!before.sounds && this.rig.sounds[sound].silence !== true) return false;
      if (before.shape !== after.shape) return false;
      return before.governing.every((name) => {
        const device = name.slice(0, name.indexOf('.'));
        const preset = `${device}.preset`;
        const wanted = laid[i].wants.get(preset);
        const isStored = this.rig.devices?.[device]?.presets !== undefined && name !== preset;
        if (
          isStored &&
          !laid[i].named.has(name) &&
          wanted !== undefined &&
          (varies(now, name) || varies(then, name)) &&
          state.get(preset) !== wanted
        )
          return false;
        return plain(state.get(name)!) === plain(then[i].get(name)!);
      });
    });
  }

  /** Whether nothing is heard in some of these moments, under some assumption. */
  isSilent(moments: readonly Moment[]): boolean {
    return moments.some((moment) => moment.some((state) => !this.trace(state).sounds));
  }

  /** Whatever some sound can be told by. */
  heardAtAll(): ReadonlySet<string> {
    return new Set(
      this.rig.topology.edges.flatMap(({ when, gov }) =>
        [...Object.keys(when ?? {}), ...(gov ?? [])].flatMap((name) => [
          name,
          `${name.slice(0, name.indexOf('.'))}.preset`,
        ]),
      ),
    );
  }

  /** What a sound asks for, by itself or by the presets that it wants. */
  asked(sound: string): ReadonlySet<string> {
    return new Set(this.contents.flatMap((contents) => [...this.lay(sound, contents).wants.keys()]));
  }

  private lay(sound: string, contents: readonly number[]): Laid {
    const { rig } = this;
    const { wants: own, pedals } = rig.sounds[sound];
    const wants = new Map<string, Value>();
    for (const [pedal, state] of Object.entries(pedals ?? {})) {
      const { loop, own: switched } = rig.pedals?.[pedal] ?? {};
      const lay = (name: string | undefined, at: 0 | 1) => name !== undefined && wants.set(name, this.ends(name)[at]);
      if (state === 'on') {
        lay(loop, 1);
        lay(switched, 1);
      } else lay(switched ?? loop, 0);
    }
    for (const [name, value] of Object.entries(own ?? {})) if (this.exists(name)) wants.set(name, value);
    const named = new Set(wants.keys());
    for (const [name, value] of [...wants]) {
      if (!name.endsWith('.preset')) continue;
      const device = name.slice(0, -'.preset'.length);
      for (const [control, { scope }] of Object.entries(rig.devices?.[device]?.controls ?? {})) {
        const content = scope === 'preset' ? contentOf(rig, contents, device, Number(value), control) : undefined;
        if (content !== undefined && !named.has(`${device}.${control}`)) wants.set(`${device}.${control}`, content);
      }
    }
    const cues = new Map([...wants].filter(([name]) => (this.control(name)?.owner ?? 'programmed') !== 'programmed'));
    return { wants, named, cues };
  }

  private control(name: string) {
    const at = name.indexOf('.');
    return this.rig.devices?.[name.slice(0, at)]?.controls?.[name.slice(at + 1)];
  }

  private exists(name: string): boolean {
    const at = name.indexOf('.');
    const [id, part] = [name.slice(0, at), name.slice(at + 1)];
    if (this.rig.controllers?.[id]?.loops?.[part] !== undefined) return true;
    return this.control(name) !== undefined || (part === 'preset' && this.rig.devices?.[id]?.presets !== undefined);
  }

  /** What a switch is when it is off and when it is on. */
  private ends(name: string): readonly Value[] {
    const control = this.control(name);
    return control && !control.domain.includes(1) ? control.domain : [0, 1];
  }

  /** What sounds in a state: which sections feed which, and the values that govern them. */
  private trace(state: State): {
    readonly sounds: boolean;
    readonly shape: string;
    readonly governing: readonly string[];
  } {
    const { topology } = this.rig;
    const closed = topology.edges.filter((edge) =>
      Object.entries(edge.when ?? {}).every(([name, values]) => listOf(values).includes(plain(state.get(name)!))),
    );
    const ahead = spread(
      topology.sources,
      closed,
      (edge) => edge.from,
      (edge) => edge.to,
    );
    const behind = spread(
      topology.dests,
      closed,
      (edge) => edge.to,
      (edge) => edge.from,
    );
    const live = closed.filter((edge) => ahead.has(edge.from) && behind.has(edge.to));
    const acting = live.filter((edge) => edge.wire !== true);
    const wires = live.filter((edge) => edge.wire === true);
    const fed = (name: string, node: string): readonly string[] => {
      const here = spread(
        [node],
        wires,
        (edge) => edge.from,
        (edge) => edge.to,
      );
      return [
        ...acting.filter((edge) => here.has(edge.from)).map((edge) => `${name}>${topology.edges.indexOf(edge)}`),
        ...topology.dests.filter((dest) => here.has(dest)).map((dest) => `${name}>dest ${dest}`),
      ];
    };
    const shape = [
      ...topology.sources.flatMap((source) => fed(`source ${source}`, source)),
      ...acting.flatMap((edge) => fed(String(topology.edges.indexOf(edge)), edge.to)),
    ];
    return {
      sounds: topology.dests.some((dest) => ahead.has(dest)),
      shape: [...new Set(shape)].sort().join(' '),
      governing: [...new Set(acting.flatMap((edge) => edge.gov ?? []))],
    };
  }
}

const overlaid = (state: State, over: ReadonlyMap<string, Value>): State =>
  over.size === 0 ? state : new Map([...state, ...over]);

/** The nodes that can be reached from some, over edges. */
function spread(
  from: readonly string[],
  edges: readonly Edge[],
  start: (edge: Edge) => string,
  end: (edge: Edge) => string,
): ReadonlySet<string> {
  const met = new Set(from);
  for (let grew = true; grew;) {
    grew = false;
    for (const edge of edges)
      if (met.has(start(edge)) && !met.has(end(edge))) {
        met.add(end(edge));
        grew = true;
      }
  }
  return met;
}
