import { type Anatomy, type Section } from '../model/anatomy.ts';
import { jackFacts } from '../model/jack-kinds.ts';
import { conditionWords, pointWords } from './anatomy-words.ts';

/**
 * A device's paths as they are drawn: each point a vertical, in the order in which the signal comes to it; each path
 * a horizontal between two of them, on a row of its own. Units are columns and rows.
 */
export interface Schematic {
  readonly points: readonly DrawnPoint[];
  readonly paths: readonly DrawnPath[];
}

export interface DrawnPoint {
  readonly point: string;
  readonly label: string;
  readonly is: 'in' | 'out' | 'inside';
  readonly column: number;
  /** The first and the last row that it spans; a jack that no path touches stands on the first. */
  readonly top: number;
  readonly bottom: number;
}

export interface DrawnPath {
  readonly section: Section;
  readonly row: number;
  readonly from: number;
  readonly to: number;
  /** What it asks for, in words; empty where it always carries. */
  readonly condition: string;
}

export function schematicOf(anatomy: Anatomy): Schematic {
  const depth = depthsOf(anatomy);
  const points = [...depth.keys()].sort((a, b) => depth.get(a)! - depth.get(b)!);
  const column = new Map(points.map((point, i) => [point, i]));
  const rows = [...anatomy.sections].sort(
    (a, b) =>
      column.get(a.from)! - column.get(b.from)! ||
      column.get(a.to)! - column.get(b.to)! ||
      Number(b.active) - Number(a.active),
  );
  const paths = rows.map((section, row) => ({
    section,
    row,
    from: column.get(section.from)!,
    to: column.get(section.to)!,
    condition: conditionWords(anatomy, section.when),
  }));
  const rowsAt = new Map<string, number[]>();
  for (const { section, row } of paths)
    for (const point of [section.from, section.to]) rowsAt.set(point, [...(rowsAt.get(point) ?? []), row]);
  return {
    paths,
    points: points.map((point) => {
      const touching = rowsAt.get(point) ?? [];
      return {
        point,
        label: pointWords(anatomy, point),
        is: endOf(anatomy, point),
        column: column.get(point)!,
        top: touching.length === 0 ? 0 : Math.min(...touching),
        bottom: touching.length === 0 ? 0 : Math.max(...touching),
      };
    }),
  };
}

const endOf = ({ jacks }: Anatomy, point: string): DrawnPoint['is'] => {
  const jack = jacks.find(({ id }) => id === point.split('.')[0]);
  return jack ? jackFacts(jack.kind).direction : 'inside';
};

/**
 * How many steps lie before each point at most, circles left out; jacks that give out come after all that leads to
 * them, jacks that take in first. Every signal jack has a place, joined or not.
 */
function depthsOf({ jacks, sections }: Anatomy): ReadonlyMap<string, number> {
  const signal = jacks.filter((jack) => jackFacts(jack.kind).carries === 'signal');
  const first = (direction: 'in' | 'out') =>
    signal.filter((jack) => jackFacts(jack.kind).direction === direction).map(({ id }) => id);
  const points = new Set([...first('in'), ...sections.flatMap(({ from, to }) => [from, to]), ...first('out')]);
  const depth = new Map([...points].map((point) => [point, 0]));
  const leaving = sectionsFrom(sections);
  const { order, isBack } = inOrderOfSignal([...points], leaving);
  for (const point of order)
    for (const section of leaving.get(point) ?? [])
      if (!isBack.has(section)) depth.set(section.to, Math.max(depth.get(section.to)!, depth.get(point)! + 1));
  const last = Math.max(0, ...depth.values());
  for (const id of first('out'))
    if (!sections.some(({ from }) => from === id)) depth.set(id, Math.max(depth.get(id)!, last));
  return depth;
}

function sectionsFrom(sections: readonly Section[]): ReadonlyMap<string, readonly Section[]> {
  const found = new Map<string, Section[]>();
  for (const section of sections) {
    const own = found.get(section.from);
    if (own) own.push(section);
    else found.set(section.from, [section]);
  }
  return found;
}

/** Points, each before those that it leads to, and the paths that lead back (depth first; linear in the paths). */
function inOrderOfSignal(
  points: readonly string[],
  leaving: ReadonlyMap<string, readonly Section[]>,
): { readonly order: readonly string[]; readonly isBack: ReadonlySet<Section> } {
  const isBack = new Set<Section>();
  const state = new Map<string, 'open' | 'done'>();
  const done: string[] = [];
  for (const start of points) {
    if (state.has(start)) continue;
    state.set(start, 'open');
    const stack = [{ point: start, next: 0 }];
    while (stack.length > 0) {
      const here = stack.at(-1)!;
      const section = leaving.get(here.point)?.[here.next];
      if (!section) {
        state.set(here.point, 'done');
        done.push(here.point);
        stack.pop();
        continue;
      }
      here.next += 1;
      const there = state.get(section.to);
      if (there === 'open') isBack.add(section);
      else if (there === undefined) {
        state.set(section.to, 'open');
        stack.push({ point: section.to, next: 0 });
      }
    }
  }
  return { order: done.reverse(), isBack };
}
