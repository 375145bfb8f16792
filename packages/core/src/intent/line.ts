import { type Hop, hopsFrom } from './hops.ts';
import { mainJacks } from '../entry/jack-words.ts';
import type { Jack } from '../model/anatomy.ts';
import { inOrder } from '../model/documents.ts';
import { conventionOf, type Plug } from '../model/rig.ts';
import { loopsOf } from '../model/switching.ts';
import type { WiredDevice, Wiring } from '../model/wiring.ts';
import {
  guessedMeans,
  insertAfter,
  insertOf,
  type Means,
  type Piece,
  pieceOf,
  usualPlace,
  type WantedPlace,
} from './pieces.ts';

/** Where a piece stands as the rig is wired. */
export type PlaceNow = 'front' | 'insert' | 'after' | 'wet' | 'unwired' | { readonly loop: number };

/** A piece of the line with what is wanted of it. */
export interface LinePiece extends Piece {
  readonly id: string;
  readonly name: string;
  readonly now: PlaceNow;
  readonly place: WantedPlace;
  readonly means: Means;
  /** What was not said, but taken from the type and the wiring. */
  readonly guessed: { readonly place: boolean; readonly means: boolean };
}

/** What loops are given out along: from where the signal comes, through a switcher, to where it goes. */
export interface Line {
  readonly switcher: WiredDevice;
  readonly insertAfter: number | null;
  readonly loops: readonly { readonly control: string; readonly send: string; readonly return: string }[];
  /** In the wanted order. */
  readonly pieces: readonly LinePiece[];
  /** The line beside, where the rig has what feeds one and what it ends in. */
  readonly wet: WetSide | null;
  /** Pieces that could stand in the line and stay as they are wired; loops that they are in. */
  readonly kept: readonly LinePiece[];
  readonly taken: readonly number[];
  readonly from: readonly Plug[];
  readonly to: readonly Plug[];
  /** Where its right side ends, if it comes there in two: a second amp. */
  readonly right: Plug | null;
  /** Cables beyond the end that are not there yet: an amp to its cabinet. */
  readonly beyond: readonly (readonly [Plug, Plug])[];
  /** Cables that a plan unplugs or keeps; all others stay. */
  readonly cables: readonly string[];
}

/** A line beside: what feeds it, pieces in their wanted order, where it ends. */
export interface WetSide {
  readonly from: Plug;
  readonly to: readonly Plug[];
  readonly pieces: readonly LinePiece[];
}

export type NoLine = 'no-switcher' | 'no-source' | 'no-end';

/** The switchers that have loops to give out. */
export const switchersOf = ({ devices }: Wiring): readonly WiredDevice[] =>
  devices.filter(({ anatomy }) => (anatomy.controller?.loops.length ?? 0) > 0);

/** The line through a switcher, the first where none is named; why there is none where there is not. */
export function lineOf(wiring: Wiring, switcherId?: string): Line | NoLine {
  const switchers = switchersOf(wiring);
  const switcher = switchers.find(({ device }) => device.id === switcherId) ?? switchers.at(0);
  if (!switcher) return 'no-switcher';
  return new LineReader(wiring, switcher).read();
}

class LineReader {
  private readonly pieces: ReadonlyMap<string, Piece>;
  private readonly now = new Map<string, PlaceNow>();
  private readonly order: string[] = [];
  private from: readonly Plug[] = [];
  private to: readonly Plug[] = [];

  constructor(
    private readonly wiring: Wiring,
    private readonly switcher: WiredDevice,
  ) {
    this.pieces = new Map(
      wiring.devices.flatMap((wired) => {
        const piece = pieceOf(wired);
        return piece ? [[wired.device.id, piece] as const] : [];
      }),
    );
  }

  read(): Line | NoLine {
    const { wiring, switcher } = this;
    const loops = loopsOf(wiring).flatMap(({ controller, control, send, return: back }) =>
      controller === switcher.device.id && send !== undefined && back !== undefined
        ? [{ control, send, return: back }]
        : [],
    );
    this.walk(loops);
    const wetEnds = this.wetEnds();
    const insert = insertAfter(switcher);
    const all = [...this.pieces.values()].map((piece) => this.wanted(piece, insert, wetEnds !== null));
    // What stays in a loop keeps the loop, with all that is in it.
    const taken = [
      ...new Set(all.flatMap(({ place, now }) => (place === 'kept' && typeof now === 'object' ? [now.loop] : []))),
    ];
    const isInLine = ({ place, now, wired, ampReturn }: LinePiece) =>
      typeof now === 'object'
        ? !taken.includes(now.loop)
        : place === 'kept'
          ? ampReturn === null && isAlong(now)
          : now !== 'unwired' || !isPlugged(wired);
    const kept = all.filter((piece) => !isInLine(piece));
    const ordered = this.sorted(withOneAmp(all.filter(isInLine)));
    const pieces = ordered.filter(({ place }) => place !== 'wet');
    const wet = wetEnds && { ...wetEnds, pieces: ordered.filter(({ place }) => place === 'wet') };
    const from = this.from.length > 0 ? this.from : this.source();
    if (from.length === 0) return 'no-source';
    const amp = pieces.find(({ ampReturn }) => ampReturn !== null);
    const ends = new Set((wet?.pieces.length ?? 0) > 0 ? wet!.to.map(({ device }) => device as string) : []);
    const { to, right, beyond } = this.end(amp, new Set([...pieces.map(({ id }) => id as string), ...ends]));
    if (to.length === 0) return 'no-end';
    return {
      switcher,
      insertAfter: insert,
      loops,
      pieces,
      wet,
      kept,
      taken,
      from,
      to,
      right,
      beyond,
      cables: this.cablesOf(
        pieces,
        loops.filter((_, i) => !taken.includes(i + 1)),
        wet,
      ),
    };
  }

  // ---- as it is wired ----

  private walk(loops: Line['loops']): void {
    const { switcher, wiring } = this;
    const id = switcher.device.id;
    const [into] = mainJacks(switcher.anatomy, 'in', 'signal');
    const [out] = mainJacks(switcher.anatomy, 'out', 'signal');
    const front = this.back({ device: id, jack: into.id } as Plug);
    this.from = front.end;
    this.put(front.passed, 'front');
    loops.forEach(({ send }, i) => {
      this.put(hopsFrom(wiring, this.pieces, { device: id, jack: send } as Plug, id).passed, { loop: i + 1 });
    });
    const insert = insertOf(switcher);
    if (insert) this.put(hopsFrom(wiring, this.pieces, { device: id, jack: insert.send } as Plug, id).passed, 'insert');
    const after = hopsFrom(wiring, this.pieces, { device: id, jack: out.id } as Plug);
    this.put(after.passed, 'after');
    this.to = after.end;
    if (this.from.length > 0 || this.to.length > 0) return;
    // The switcher is not in the line yet: pieces stand between an instrument and its end.
    for (const source of this.sources()) {
      const line = hopsFrom(wiring, this.pieces, source);
      if (line.passed.length === 0 && line.end.length === 0) continue;
      this.from = [source];
      this.put(line.passed, 'front');
      this.to = line.end;
      return;
    }
  }

  /**
   * The line beside: from the line of a tap in the loudspeaker line to a power amp, or as it is wired; null where there
   * is none.
   */
  private wetEnds(): Pick<WetSide, 'from' | 'to'> | null {
    const { devices } = this.wiring;
    const box = devices.find(
      ({ device, anatomy }) => device.type.archetype === 'load-box' && anatomy.jacks.some(isLineOut),
    );
    if (!box) return null;
    const from = { device: box.device.id, jack: box.anatomy.jacks.find(isLineOut)!.id } as Plug;
    const { passed, end } = hopsFrom(this.wiring, this.pieces, from);
    this.put(passed, 'wet');
    if (end.length > 0) return passed.length > 0 ? { from, to: end } : null;
    const amp = devices.find(({ device }) => device.type.archetype === 'power-amp');
    const [into] = amp ? mainJacks(amp.anatomy, 'in', 'signal') : [];
    return amp && !amp.plugged.has(into.id) ? { from, to: [{ device: amp.device.id, jack: into.id } as Plug] } : null;
  }

  /** Pieces in front of a jack, in the order of the signal, and what gives the first of them its signal. */
  private back(jack: Plug): Hop {
    const passed: string[] = [];
    let at = jack;
    for (;;) {
      const cable = this.wiring.signalCables.find(({ plugs }) => plugs.some((plug) => isAt(plug, at)));
      const givers = cable?.plugs.filter((plug) => this.isOut(plug)) ?? [];
      const piece = givers.length === 1 ? this.pieces.get(givers[0].device) : undefined;
      if (piece?.out !== givers.at(0)?.jack || !piece || passed.includes(givers[0].device))
        return { passed, end: givers };
      passed.unshift(givers[0].device);
      at = { device: givers[0].device, jack: piece.in };
    }
  }

  private isOut = ({ device, jack }: Plug): boolean =>
    this.wiring.device.get(device)?.jack.get(jack)?.kind === 'signal-out';

  private put(devices: readonly string[], place: PlaceNow): void {
    for (const device of devices)
      if (!this.now.has(device)) {
        this.now.set(device, place);
        this.order.push(device);
      }
  }

  // ---- what is wanted ----

  private wanted(piece: Piece, insert: number | null, hasWetSide: boolean): LinePiece {
    const { rig } = this.wiring;
    const { device } = piece.wired;
    const now = this.now.get(device.id) ?? 'unwired';
    const { place, means } = device.intent ?? {};
    const guess = this.ridesAlong(device.id) ? (['loop'] as const) : guessedMeans(piece, rig);
    const switched = means ?? guess;
    return {
      ...piece,
      id: device.id,
      name: device.name,
      now,
      place:
        place === 'wet' && !hasWetSide
          ? 'after'
          : (place ??
            (hasWetSide && now === 'unwired' && !isPlugged(piece.wired) && isTimeEffect(piece)
              ? 'wet'
              : this.guessedPlace(piece, now, switched, insert))),
      means: switched,
      guessed: { place: place === undefined, means: means === undefined },
    };
  }

  private guessedPlace(piece: Piece, now: PlaceNow, means: Means, insert: number | null): WantedPlace {
    if (piece.ampReturn !== null) {
      if (now === 'unwired')
        return isPlugged(piece.wired) || this.freeAmps().length > 1 ? 'kept' : insert === null ? 'loop' : 'insert';
      if (typeof now === 'object') return 'loop';
      return now === 'front' ? 'kept' : now;
    }
    if (now === 'unwired' && isPlugged(piece.wired)) return 'kept';
    if (now === 'wet') return 'wet';
    const rider = this.order.find((id) => this.ridesAlong(id) && isSameLoop(this.now.get(id), now));
    if (rider !== undefined && typeof now === 'object') return now.loop;
    if (means.length > 0) return 'anywhere';
    if (now === 'front' || now === 'insert' || now === 'after') return now;
    return usualPlace(piece, false) > 12 ? 'after' : 'front';
  }

  /** Nothing switches it, and it stands in a loop: it is there whenever the loop is, with what else is in it. */
  private ridesAlong(id: string): boolean {
    const piece = this.pieces.get(id)!;
    return (
      piece.ampReturn === null &&
      typeof this.now.get(id) === 'object' &&
      guessedMeans(piece, this.wiring.rig).length === 0
    );
  }

  /** In the wanted order; as they are wired, or as their kind mostly stands, where nobody said. */
  private sorted(pieces: readonly LinePiece[]): readonly LinePiece[] {
    const { rig } = this.wiring;
    const isTimeInFront = conventionOf(rig, 'time') === 'in front';
    const usualOf = (piece: LinePiece) => usualPlace(piece, isTimeInFront);
    const wired = pieces
      .filter(({ now }) => now !== 'unwired')
      .sort((a, b) => this.alongTheLine(a) - this.alongTheLine(b));
    const order = [...wired];
    for (const piece of pieces.filter(({ now }) => now === 'unwired').sort((a, b) => usualOf(a) - usualOf(b))) {
      const next = order.findIndex((other) => usualOf(other) > usualOf(piece));
      order.splice(next < 0 ? order.length : next, 0, piece);
    }
    const said = (rig.settings.wantedOrder ?? []).flatMap((id) => order.find((piece) => piece.id === id) ?? []);
    // What nobody put in order stays behind the piece that it stood behind.
    const sorted = [...said];
    order.forEach((piece, i) => {
      if (sorted.includes(piece)) return;
      const before = order[i - 1] as LinePiece | undefined;
      sorted.splice(before ? sorted.indexOf(before) + 1 : 0, 0, piece);
    });
    return sorted;
  }

  private alongTheLine({ id, now }: LinePiece): number {
    const insert = insertAfter(this.switcher) ?? 1_000;
    const within = this.order.indexOf(id) / 10_000;
    if (now === 'front') return -1 + within;
    if (now === 'wet') return 20_000 + within;
    if (now === 'insert') return insert + 0.5 + within;
    if (typeof now === 'object') return now.loop + within;
    return 10_000 + within;
  }

  // ---- its ends ----

  private sources(): readonly Plug[] {
    return this.wiring.devices.flatMap(({ device, anatomy }) => {
      const isSource = anatomy.source !== undefined || device.type.archetype === 'receiver';
      const [out] = mainJacks(anatomy, 'out', 'signal');
      return isSource && (out as unknown) ? [{ device: device.id, jack: out.id } as Plug] : [];
    });
  }

  /** Where nothing is plugged in yet: a selector that instruments come together in, a receiver, an instrument. */
  private source(): readonly Plug[] {
    const { devices } = this.wiring;
    const last = (archetype: string): readonly Plug[] =>
      devices.flatMap((wired) => {
        const [out] = mainJacks(wired.anatomy, 'out', 'signal');
        return wired.device.type.archetype === archetype && (out as unknown) && !wired.plugged.has(out.id)
          ? [{ device: wired.device.id, jack: out.id } as Plug]
          : [];
      });
    const free = this.sources().filter(({ device, jack }) => !this.wiring.device.get(device)!.plugged.has(jack));
    return [...last('selector'), ...last('receiver'), ...free].slice(0, 1);
  }

  /** Amps that nothing is plugged into yet: two of them are ends, one may stand in the line. */
  private freeAmps(): readonly Piece[] {
    return [...this.pieces.values()].filter(({ ampReturn, wired }) => ampReturn !== null && !isPlugged(wired));
  }

  private end(amp: LinePiece | undefined, members: ReadonlySet<string>): Pick<Line, 'to' | 'right' | 'beyond'> {
    const { wiring } = this;
    const beyond = this.loudspeakers();
    if (amp) {
      const isAsWired =
        this.to.length > 0 &&
        amp.now !== 'unwired' &&
        amp.place === this.guessedPlace(amp, amp.now, amp.means, insertAfter(this.switcher));
      const to = isAsWired ? this.to : [{ device: amp.id, jack: amp.ampReturn! } as Plug];
      return { to, right: null, beyond };
    }
    if (this.to.length > 0) {
      // The line ended in the return of an amp that is its end now: it ends in its input.
      const to = this.to.map((plug) => {
        const piece = this.pieces.get(plug.device);
        return piece?.ampReturn === plug.jack && !members.has(plug.device) ? { ...plug, jack: piece.in } : plug;
      });
      return { to, right: null, beyond };
    }
    const to = freeEnd(wiring, members);
    const [first, second] = this.freeAmps().map((piece) => ({ device: piece.wired.device.id, jack: piece.in }) as Plug);
    const parts = to.flatMap(({ device }) => partsOf(wiring.device.get(device)!));
    return parts.length > 0
      ? { to, right: null, beyond: [...beyond, ...pairs(parts, [first, second])] }
      : { to, right: to.at(0)?.device === first?.device ? (second ?? null) : null, beyond };
  }

  /** Amps with a free loudspeaker output, each with a cabinet that nothing is plugged into. */
  private loudspeakers(): Line['beyond'] {
    const { devices } = this.wiring;
    const cabinets = devices.filter(
      ({ anatomy, plugged }) =>
        anatomy.destination !== undefined && plugged.size === 0 && anatomy.jacks.some(({ speaker }) => speaker),
    );
    const taps = devices.filter(
      ({ device, plugged, anatomy }) =>
        device.type.archetype === 'load-box' && plugged.size === 0 && anatomy.jacks.some(isLoudspeakerOut),
    );
    const amps = devices.filter((wired) => {
      const out = wired.anatomy.jacks.find(isLoudspeakerOut);
      return out !== undefined && !wired.plugged.has(out.id) && !taps.includes(wired);
    });
    const waiting = [...taps];
    const free = [...cabinets];
    return amps.flatMap((wired): Line['beyond'] => {
      const tap = wired.device.type.archetype === 'amp' ? waiting.shift() : undefined;
      const cabinet = free.shift();
      const way = [...(tap ? [tap] : []), ...(cabinet ? [cabinet] : [])];
      return way.map((into, i) => [outOfAmp(way[i - 1] ?? wired), intoLoudspeaker(into)]);
    });
  }

  private cablesOf(line: readonly LinePiece[], loops: Line['loops'], wet: WetSide | null): readonly string[] {
    const { switcher } = this;
    const jacks = new Set<string>();
    const add = (device: string, jack: string) => {
      jacks.add(`${device}/${jack}`);
      for (const twin of this.wiring.device.get(device)!.anatomy.jacks)
        if (twin.twin === jack) jacks.add(`${device}/${twin.id}`);
    };
    for (const piece of [...line, ...(wet?.pieces ?? [])]) {
      add(piece.id, piece.in);
      add(piece.id, piece.out);
    }
    const insert = insertOf(switcher);
    const [into] = mainJacks(switcher.anatomy, 'in', 'signal');
    const [out] = mainJacks(switcher.anatomy, 'out', 'signal');
    for (const jack of [
      into.id,
      out.id,
      ...loops.flatMap((loop) => [loop.send, loop.return]),
      ...(insert ? [insert.send, insert.return] : []),
    ])
      add(switcher.device.id, jack);
    for (const plug of [...this.from, ...this.to]) if (this.order.length > 0) add(plug.device, plug.jack);
    return inOrder(this.wiring.rig.cables)
      .filter(
        ({ kind, plugs }) => kind === 'signal' && plugs.some(({ device, jack }) => jacks.has(`${device}/${jack}`)),
      )
      .map(({ id }) => id);
  }
}

const isAlong = (now: PlaceNow): boolean => now === 'front' || now === 'insert' || now === 'after';

const isSameLoop = (a: PlaceNow | undefined, b: PlaceNow): boolean =>
  typeof a === 'object' && typeof b === 'object' && a.loop === b.loop;

const isAt = (a: Plug, b: Plug): boolean => a.device === b.device && a.jack === b.jack;
const isPlugged = ({ anatomy, plugged }: WiredDevice): boolean =>
  anatomy.jacks.some(({ id, kind }) => plugged.has(id) && (kind === 'signal-in' || kind === 'signal-out'));

/** The free outputs of a box at which the line parts; none of anything else. */
const partsOf = ({ device, anatomy, plugged }: WiredDevice): readonly Plug[] =>
  device.type.archetype === 'splitter' || device.type.archetype === 'router'
    ? mainJacks(anatomy, 'out', 'signal').flatMap(({ id }) =>
        plugged.has(id) ? [] : [{ device: device.id, jack: id } as Plug],
      )
    : [];

const pairs = (from: readonly Plug[], to: readonly (Plug | undefined)[]): readonly (readonly [Plug, Plug])[] =>
  from.flatMap((plug, i) => {
    const end = to[i];
    return end ? [[plug, end] as const] : [];
  });

const isLoudspeakerOut = ({ kind, speaker }: Jack): boolean => speaker === true && kind === 'signal-out';
const outOfAmp = ({ device, anatomy }: WiredDevice): Plug =>
  ({ device: device.id, jack: anatomy.jacks.find(isLoudspeakerOut)!.id }) as Plug;
const intoLoudspeaker = ({ device, anatomy }: WiredDevice): Plug =>
  ({ device: device.id, jack: anatomy.jacks.find(({ kind, speaker }) => speaker && kind === 'signal-in')!.id }) as Plug;

const isLineOut = ({ kind, speaker }: Jack): boolean => kind === 'signal-out' && !speaker;

/** A delay or a reverb: what a wet side is mostly for. */
const isTimeEffect = (piece: Piece): boolean => usualPlace(piece, false) === 10 || usualPlace(piece, false) === 11;

/** One amp alone can stand in the line: another one is where it ends, or stays as it is. */
function withOneAmp(pieces: readonly LinePiece[]): readonly LinePiece[] {
  const first =
    pieces.find(({ ampReturn, now }) => ampReturn !== null && now !== 'unwired') ??
    pieces.find(({ ampReturn }) => ampReturn !== null);
  return pieces.filter((piece) => piece.ampReturn === null || piece === first);
}

/** Where a line may end that nothing is plugged into yet: an amp, a power amp, a direct box, a line to the desk. */
function freeEnd({ devices }: Wiring, members: ReadonlySet<string>): readonly Plug[] {
  for (const archetype of ['splitter', 'router', 'amp', 'power-amp', 'direct-box', 'load-box', 'mixer', 'line'])
    for (const { device, anatomy, plugged } of devices) {
      if (device.type.archetype !== archetype || members.has(device.id)) continue;
      const jacks = mainJacks(anatomy, 'in', 'signal').filter(({ id, speaker }) => !speaker && !plugged.has(id));
      const left = jacks.find(({ twin }) => twin === undefined);
      if (left) return [{ device: device.id, jack: left.id } as Plug];
    }
  return [];
}
