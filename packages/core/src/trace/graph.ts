import { type Anatomy, type ControlValue, type EffectKind, type Side, sideOfPole } from '../model/anatomy.ts';
import { isOut } from '../model/cable-ends.ts';
import { memoised } from '../model/memo.ts';
import { type ControlRef } from '../model/rig.ts';
import { numberAt, placeIn, type WiredDevice, type Wiring } from '../model/wiring.ts';
import { append, type Csr, identity, transpose } from './csr.ts';
import { type Points, pointsOf } from './points.ts';

/**
 * The trace graph of a rig: nodes are poles (poles that a cable joins are one node), edges are sections.
 * Plug presence is resolved here, once; control values are asked for at each reading.
 */
export interface TraceGraph {
  readonly nodeCount: number;
  readonly edges: readonly TraceEdge[];
  /** The nodes of each edge again, laid out flat: what is walked for every sound. */
  readonly from: Int32Array;
  readonly to: Int32Array;
  /** 1 for each edge that does something. */
  readonly active: Uint8Array;
  /** Edges that leave each node, and that arrive there. */
  readonly leaving: Csr;
  readonly arriving: Csr;
  readonly sources: readonly Terminal[];
  readonly destinations: readonly Terminal[];
  /** Signal jacks at each node, in document order. */
  readonly jacks: readonly (readonly JackAt[])[];
  /** Poles that carry a side of a stereo pair, in document order; none in a rig that is mono throughout. */
  readonly sided: readonly SidedPole[];
}

/** A pole that carries one side of a pair. */
export interface SidedPole extends JackAt {
  readonly node: number;
  readonly side: Side;
  /** What both poles of a pair share: the left one's jack. */
  readonly pair: string;
  readonly isOut: boolean;
}

export interface JackAt {
  readonly device: string;
  readonly jack: string;
}

export interface TraceEdge {
  readonly index: number;
  readonly device: string;
  readonly section: string;
  readonly label: string;
  readonly from: number;
  readonly to: number;
  readonly active: boolean;
  /** Magnitude of its gain, 1 where nobody said. */
  readonly gain: number;
  /** Each control, by its number in the wiring too, must hold one of the values. */
  readonly when: readonly {
    readonly ref: ControlRef;
    readonly control: number;
    readonly values: readonly ControlValue[];
  }[];
  /** Numbers of the controls whose values are heard in it. */
  readonly parameters: readonly number[];
  readonly effect?: EffectKind;
  /** With which others of its device it is passed together. */
  readonly pair?: string;
}

export interface Terminal {
  readonly device: string;
  readonly node: number;
}

/** The trace graph of a wiring, drawn once. */
export const traceGraph = memoised(({ wiringMemo }: Wiring) => wiringMemo, draw);

function draw(wiring: Wiring): TraceGraph {
  const points = wiring.devices.map((wired) => pointsOf(wired.anatomy));
  const first = new Int32Array(points.length + 1);
  for (let i = 0; i < points.length; i += 1) first[i + 1] = first[i] + points[i].count;
  const { nodeOf, count } = joined(wiring, points, first);
  const edges: TraceEdge[] = [];
  for (const wired of wiring.devices) edgesOf(wiring, wired, (point) => nodeOf[first[wired.index] + point], edges);
  const terminals = (which: 'source' | 'destination'): Terminal[] =>
    wiring.devices.flatMap((wired) => {
      const point = points[wired.index][which];
      return point === undefined ? [] : [{ device: wired.device.id, node: nodeOf[first[wired.index] + point] }];
    });
  const from = new Int32Array(edges.length);
  const to = new Int32Array(edges.length);
  const active = new Uint8Array(edges.length);
  for (let i = 0; i < edges.length; i += 1) {
    from[i] = edges[i].from;
    to[i] = edges[i].to;
    active[i] = edges[i].active ? 1 : 0;
  }
  return {
    nodeCount: count,
    edges,
    from,
    to,
    active,
    leaving: transpose(identity(from), count),
    arriving: transpose(identity(to), count),
    sources: terminals('source'),
    destinations: terminals('destination'),
    sided: sidedPoles(wiring, points, (device, point) => nodeOf[first[device] + point]),
    jacks: jacksByNode(wiring, points, (device, point) => nodeOf[first[device] + point], count),
  };
}

/** The sections of a device that its plugs allow. */
function edgesOf({ controls }: Wiring, wired: WiredDevice, nodeAt: (point: number) => number, into: TraceEdge[]): void {
  const {
    device: { id },
    firstControl,
  } = wired;
  for (const { section, label, from, to, active, gain, plugs, when, parameters, effect, pair } of sectionsOf(
    wired.anatomy,
  )) {
    if (!plugsAllow(wired, plugs)) continue;
    into.push({
      index: into.length,
      device: id,
      section,
      label,
      from: nodeAt(from),
      to: nodeAt(to),
      active,
      gain,
      when:
        when.length === 0
          ? nothing
          : when.map(({ place, values }) => ({
              ref: controls.refs[firstControl + place],
              control: numberAt(firstControl, place),
              values,
            })),
      parameters: parameters.length === 0 ? nothing : parameters.map((place) => numberAt(firstControl, place)),
      effect,
      pair,
    });
  }
}

/** A section as every device of a kind has it: its ends by the points of the anatomy, its controls by their places. */
interface KindSection extends Pick<
  TraceEdge,
  'section' | 'label' | 'from' | 'to' | 'active' | 'gain' | 'effect' | 'pair'
> {
  readonly plugs: readonly (readonly [jack: string, present: boolean])[];
  readonly when: readonly {
    readonly place: number;
    readonly values: readonly ControlValue[];
  }[];
  readonly parameters: readonly number[];
}

const ofKind = new WeakMap<Anatomy, readonly KindSection[]>();

/** Read once for all devices of a kind. */
function sectionsOf(anatomy: Anatomy): readonly KindSection[] {
  let known = ofKind.get(anatomy);
  if (!known) ofKind.set(anatomy, (known = readSections(anatomy)));
  return known;
}

function readSections(anatomy: Anatomy): readonly KindSection[] {
  const { from, to } = pointsOf(anatomy);
  return anatomy.sections.map(({ id, label, active, gainDb, when, parameters, effect, pair }, i) => ({
    section: id,
    label,
    from: from[i],
    to: to[i],
    active,
    gain: gainDb === undefined ? 1 : 10 ** (gainDb / 20),
    effect,
    pair,
    plugs: when?.plugs ? Object.entries(when.plugs) : nothing,
    when: Object.entries(when?.controls ?? {}).map(([control, values]) => ({
      place: placeOf(anatomy, control),
      values,
    })),
    parameters: (parameters ?? nothing).map((control) => placeIn(anatomy, control)),
  }));
}

/** That a section depends on what is there was checked when the rig was read; nothing is skipped. */
function placeOf(anatomy: Anatomy, control: string): number {
  const place = placeIn(anatomy, control);
  if (place < 0) throw new Error(`a section depends on ${control}, which is not there`);
  return place;
}

const nothing: readonly never[] = [];

function plugsAllow({ plugged }: WiredDevice, plugs: KindSection['plugs']): boolean {
  for (let i = 0; i < plugs.length; i += 1) if (plugged.has(plugs[i][0]) !== plugs[i][1]) return false;
  return true;
}

/** Joins the poles that cables join (union–find), and numbers the nodes in document order. */
function joined(
  wiring: Wiring,
  points: readonly Points[],
  first: Int32Array,
): { readonly nodeOf: Int32Array; readonly count: number } {
  const parent = new Int32Array(first[points.length]);
  for (let i = 0; i < parent.length; i += 1) parent[i] = i;
  const root = (n: number): number => {
    let here = n;
    while (parent[here] !== here) here = parent[here] = parent[parent[here]];
    return here;
  };
  const join = (one: number, other: number) => void (parent[root(other)] = root(one));
  for (const { plugs, poles } of wiring.signalCables) {
    const pointsAt = plugs.map((plug) => {
      const wired = wiring.device.get(plug.device);
      return (wired ? (points[wired.index].poles.get(plug.jack) ?? nothing) : nothing).map(({ pole, point }) => ({
        pole,
        here: first[wired!.index] + point,
      }));
    });
    if (poles) {
      for (const wire of poles) {
        const ends = wire.flatMap(({ plug, pole }) => pointsAt[plug]?.find((end) => end.pole === pole) ?? nothing);
        for (let i = 1; i < ends.length; i += 1) join(ends[0].here, ends[i].here);
      }
      continue;
    }
    const ends = new Map<string, number>();
    for (const { pole, here } of pointsAt.flat()) {
      const other = ends.get(pole);
      if (other === undefined) ends.set(pole, here);
      else join(here, other);
    }
  }
  const nodeOf = new Int32Array(parent.length);
  const numbers = new Int32Array(parent.length).fill(-1);
  let count = 0;
  for (let i = 0; i < parent.length; i += 1) {
    const top = root(i);
    if (numbers[top] < 0) numbers[top] = count++;
    nodeOf[i] = numbers[top];
  }
  return { nodeOf, count };
}

function sidedPoles(
  wiring: Wiring,
  points: readonly Points[],
  nodeAt: (device: number, point: number) => number,
): readonly SidedPole[] {
  const found: SidedPole[] = [];
  for (const { device, index, anatomy } of wiring.devices)
    for (const jack of anatomy.jacks)
      if (jack.side !== undefined || jack.stereo)
        for (const { pole, point } of points[index].poles.get(jack.id) ?? nothing) {
          const side = sideOfPole(jack, pole);
          if (side !== undefined)
            found.push({
              device: device.id,
              jack: jack.id,
              node: nodeAt(index, point),
              side,
              pair: jack.twin ?? jack.id,
              isOut: isOut(jack),
            });
        }
  return found;
}

function jacksByNode(
  wiring: Wiring,
  points: readonly Points[],
  nodeAt: (device: number, point: number) => number,
  count: number,
): readonly (readonly JackAt[])[] {
  const jacks = new Array<readonly JackAt[]>(count).fill(nothing);
  for (const { device, index } of wiring.devices)
    for (const [jack, poles] of points[index].poles) {
      for (let i = 0; i < poles.length; i += 1) {
        const node = nodeAt(index, poles[i].point);
        // Two of its poles may be one node.
        if (i === 0 || jacks[node].at(-1)?.jack !== jack || jacks[node].at(-1)?.device !== device.id)
          jacks[node] = append(jacks[node], { device: device.id, jack });
      }
    }
  return jacks;
}
