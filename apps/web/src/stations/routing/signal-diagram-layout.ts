import { type Collapse, inOrder, type Pass, type Trace, type Wiring } from '@yunta/core';
import { type FoldedJumper, type FoldedPass, type FoldedTrace, unfolded } from './fold-trace.ts';
import { freeText, type Routed, routeRun } from './signal-route.ts';

/** Where everything of the weave lies, in pixels. Time runs left to right, one column a pass; rows are places. */
export interface WeaveLayout {
  readonly width: number;
  readonly height: number;
  readonly rows: readonly { readonly name: string; readonly note: string; readonly y: number }[];
  readonly rails: readonly {
    readonly device: string;
    readonly name: string;
    readonly x: number;
    readonly width: number;
    readonly y: number;
    /** Where its name stands with no line through it. */
    readonly label: { readonly x: number; readonly y: number; readonly width: number } | null;
  }[];
  readonly passes: readonly PlacedPass[];
  readonly jumpers: readonly PlacedJumper[];
  /** The live line from pass to pass. */
  readonly route: Routed;
}

export interface PlacedPass {
  readonly pass: FoldedPass;
  readonly x: number;
  readonly width: number;
  readonly y: number;
  readonly onRail: boolean;
  readonly title: string;
  readonly note: string;
  /** Whether it goes on in stereo. */
  readonly isWide: boolean;
}

export interface PlacedJumper {
  readonly jumper: FoldedJumper;
  readonly x: number;
  readonly width: number;
  readonly y: number;
  readonly railY: number;
  readonly title: string;
}

const lane = 48;
const gap = 34;
/** A label, and a piece that hangs in a loop that is out. */
export const strip = { width: 60, height: 32, bypassed: 55 };
const labelColumn = 66;
const railColumn = 36;
const bypassColumn = 61;

/** Rows are laid by place; within a row, what would overlap goes into a lane of its own. */
export function layWeave(wiring: Wiring, whole: Trace | FoldedTrace, room = 0): WeaveLayout {
  const trace = 'hidden' in whole ? whole : unfolded(whole);
  const { rig } = wiring;
  const times = new Map<string, number>();
  for (const pass of trace.passes) times.set(pass.device, (times.get(pass.device) ?? 0) + 1);
  const isRail = (device: string) => (times.get(device) ?? 0) > 1;
  const columns = columnsOf(trace, isRail, room);
  const nameOf = (device: string) => rig.devices[device].name;

  const items: { readonly place: string; readonly from: number; readonly to: number; readonly key: string }[] = [];
  for (const device of new Set(trace.passes.map((pass) => pass.device)))
    if (isRail(device)) {
      const own = trace.passes.filter((pass) => pass.device === device);
      const left = Math.min(...own.map((pass) => columns.at(pass.column)));
      const right = Math.max(...own.map((pass) => columns.at(pass.column) + columns.widthOf(pass.column)));
      items.push({ place: rig.devices[device].place, from: left, to: right, key: `rail ${device}` });
    }
  trace.passes.forEach((pass) => {
    if (!isRail(pass.device))
      items.push({
        place: rig.devices[pass.device].place,
        from: columns.at(pass.column),
        to: columns.at(pass.column) + columns.widthOf(pass.column),
        key: `pass ${pass.index}`,
      });
  });
  const bypassed = jumperSpots(trace, columns);
  for (const { jumper, x } of bypassed)
    items.push({
      place: rig.devices[jumper.holds[0]].place,
      from: x - bypassColumn / 2,
      to: x + bypassColumn / 2,
      key: `jumper ${jumper.loop}`,
    });

  const laneOf = lanes(items);
  const places = inOrder(rig.places).filter((place) => items.some((item) => item.place === place.id));
  const top = new Map<string, number>();
  let y = 22;
  for (const place of places) {
    top.set(place.id, y);
    y += Math.max(1, laneOf.count.get(place.id) ?? 1) * lane + gap;
  }
  const yOf = (place: string, key: string) => (top.get(place) ?? 0) + (laneOf.of.get(key) ?? 0) * lane + lane / 2;

  const passes = trace.passes.map((pass): PlacedPass => {
    const onRail = isRail(pass.device);
    const { place } = rig.devices[pass.device];
    return {
      pass,
      onRail,
      x: columns.at(pass.column),
      width: columns.widthOf(pass.column),
      y: yOf(place, onRail ? `rail ${pass.device}` : `pass ${pass.index}`),
      title: pass.stands.length > 1 ? `${pass.stands.length} quiet` : nameOf(pass.device),
      isWide: trace.widths.links[pass.index]?.some((width) => width !== 'mono') ?? false,
      note: [
        ...(pass.stands.length > 1
          ? []
          : pass.bypassed
            ? ['bypassed']
            : onRail && pass.activeSections.length > 0
              ? [pass.activeSections.join(', ')]
              : []),
        ...trace.widths.collapses.filter((collapse) => collapse.pass === pass.index).map(collapseWords),
      ].join(', '),
    };
  });
  const route = routeRun(
    passes.map((placed) => ({
      ...placed,
      next: placed.pass.next,
      widths: trace.widths.links[placed.pass.index] ?? [],
    })),
  );
  const rails = [...new Set(passes.filter((placed) => placed.onRail).map((placed) => placed.pass.device))].map(
    (device) => {
      const own = passes.filter((placed) => placed.pass.device === device);
      const x = Math.min(...own.map((placed) => placed.x));
      return {
        device,
        name: nameOf(device),
        x,
        width: Math.max(...own.map((placed) => placed.x + placed.width)) - x,
        y: own[0].y,
        label: labelSpot(
          route,
          nameOf(device),
          x,
          Math.max(...own.map((placed) => placed.x + placed.width)),
          own[0].y,
          own.some((placed) => placed.note !== ''),
        ),
      };
    },
  );
  const jumpers = bypassed.map(({ jumper, x }): PlacedJumper => ({
    jumper,
    x,
    width: strip.bypassed,
    y: yOf(rig.devices[jumper.holds[0]].place, `jumper ${jumper.loop}`),
    railY: passes[jumper.pass].y,
    title: jumper.isFolded ? `${jumper.holds.length} off` : jumper.holds.map(nameOf).join(' + '),
  }));
  const counts = new Map<string, number>();
  for (const device of Object.values(rig.devices)) counts.set(device.place, (counts.get(device.place) ?? 0) + 1);
  return {
    width: columns.width,
    height: y + 2,
    rows: places.map((place) => ({
      name: place.name,
      note: `${counts.get(place.id)} ${counts.get(place.id) === 1 ? 'piece' : 'pieces'}`,
      y: top.get(place.id)! + lane / 2,
    })),
    rails,
    passes,
    jumpers,
    route,
  };
}

/** What stands beside a pass where stereo ends. */
export const collapseWords = ({ lost }: Collapse): string => (lost ? `${lost.side} side lost` : 'sums left, right');

interface Columns {
  readonly width: number;
  readonly at: (column: number) => number;
  readonly widthOf: (column: number) => number;
}

/** A column is as wide as its label or what hangs under its passes needs; what room there is is shared out. */
function columnsOf(trace: FoldedTrace, isRail: (device: string) => boolean, room: number): Columns {
  const count = Math.max(1, ...trace.passes.map((pass) => pass.column + 1));
  const need = (pass: Pass): number => {
    const bypassed = trace.jumpers.filter((jumper) => jumper.pass === pass.index).length * bypassColumn;
    const own = isRail(pass.device) ? (pass.activeSections.length > 0 ? labelColumn : railColumn) : labelColumn;
    return Math.max(own, bypassed > 0 ? bypassed + 14 : 0);
  };
  const widths = Array.from({ length: count }, (_, column) =>
    Math.max(railColumn, ...trace.passes.filter((pass) => pass.column === column).map(need)),
  );
  const margin = 8;
  const total = widths.reduce((sum, width) => sum + width, 0);
  const stretch = Math.min(1.6, Math.max(0.915, (room - 2 * margin) / total));
  const starts = [margin];
  for (const width of widths) starts.push(starts.at(-1)! + width * stretch);
  return {
    width: starts.at(-1)! + margin,
    at: (column) => starts[column],
    widthOf: (column) => starts[column + 1] - starts[column],
  };
}

function jumperSpots(trace: FoldedTrace, columns: Columns) {
  return trace.passes.flatMap((pass) => {
    const own = trace.jumpers.filter((jumper) => jumper.pass === pass.index && jumper.holds.length > 0);
    const room = columns.widthOf(pass.column) / own.length;
    return own.map((jumper, i) => ({ jumper, x: columns.at(pass.column) + room * (i + 0.5) }));
  });
}

/** The first lane of its place in which an item overlaps nothing; rails first, so that they keep the top. */
function lanes(
  items: readonly { readonly place: string; readonly from: number; readonly to: number; readonly key: string }[],
) {
  const taken = new Map<string, { from: number; to: number }[][]>();
  const of = new Map<string, number>();
  for (const item of [...items].sort((a, b) => Number(b.key.startsWith('rail')) - Number(a.key.startsWith('rail')))) {
    const rows = taken.get(item.place) ?? [];
    taken.set(item.place, rows);
    let i = rows.findIndex((row) => row.every((other) => item.to - 4 <= other.from || item.from >= other.to - 4));
    if (i < 0) i = rows.push([]) - 1;
    rows[i].push({ from: item.from, to: item.to });
    of.set(item.key, i);
  }
  return { of, count: new Map([...taken].map(([place, rows]) => [place, rows.length])) };
}

/** Above its rail, or below it where nothing is noted there, a name stands where no line runs through it. */
function labelSpot(route: Routed, name: string, from: number, to: number, y: number, isNoted: boolean) {
  const width = name.length * 6.2;
  const above = freeText(route, { from: from + 8, to, width, top: y - 27, bottom: y - 15 });
  if (above !== null) return { x: above, y: y - 17, width };
  const below = isNoted ? null : freeText(route, { from: from + 8, to, width, top: y + 14, bottom: y + 26 });
  return below === null ? null : { x: below, y: y + 24, width };
}
