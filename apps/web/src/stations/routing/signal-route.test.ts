import { describe, expect, test } from '@jest/globals';
import { type Width, demoShow, buildWiring, inOrder, type Show, starterById, starterIds, Tracer } from '@yunta/core';
import { retraceRig, seededShow } from '@yunta/core/testing';
import { layWeave } from './signal-diagram-layout.ts';
import { apart, freeText, routeRun, type Segment } from './signal-route.ts';

const box = (x: number, y: number, next: readonly number[], widths: readonly Width[] = [], width = 60) => ({
  x,
  y,
  width,
  next,
  widths,
});

/** Verticals that read as one line though they are two. */
function doubled(verticals: readonly Segment[]): readonly (readonly Segment[])[] {
  return verticals.flatMap((a, i) =>
    verticals
      .slice(i + 1)
      .filter(
        (b) =>
          Math.abs(a.x1 - b.x1) < apart - 1 &&
          Math.min(Math.max(a.y1, a.y2), Math.max(b.y1, b.y2)) - Math.max(Math.min(a.y1, a.y2), Math.min(b.y1, b.y2)) >
            1,
      )
      .map((b) => [a, b]),
  );
}

describe('the route of the line', () => {
  test('straight on, up and down between neighbours', () => {
    const { paths, verticals } = routeRun([box(0, 50, [1]), box(60, 50, [2]), box(120, 150, [])]);
    expect(paths.slice(3)).toEqual([{ d: 'M 120 50 L 120 50 L 120 150 L 120 150', isStereo: false }]);
    expect(verticals).toEqual([{ x1: 120, y1: 50, x2: 120, y2: 150 }]);
  });

  test('two lines that cross the same rows at one place go side by side', () => {
    const { verticals } = routeRun([box(0, 50, [2]), box(0, 250, [3]), box(60, 150, []), box(60, 100, [])]);
    expect(doubled(verticals)).toEqual([]);
    expect(verticals).toHaveLength(2);
  });

  test('a line past another pass in its row goes around it, between the rows', () => {
    const { horizontals } = routeRun([box(0, 50, [1, 2]), box(60, 50, [2]), box(120, 50, [])]);
    const around = horizontals.filter((line) => line.y1 !== 50);
    expect(around).toHaveLength(1);
    expect(Math.abs(around[0].y1 - 50)).toBeGreaterThan(18);
  });

  test('stereo is two lines from where it begins to where it ends, and a side alone is named', () => {
    const { paths, sides } = routeRun([
      box(0, 50, [1], ['mono']),
      box(60, 50, [2], ['stereo']),
      box(120, 50, [3], ['stereo']),
      box(180, 50, []),
    ]);
    expect(paths.map(({ isStereo }) => isStereo)).toEqual([false, false, true, true, true]);
    expect(sides).toEqual([]);
    const split = routeRun([box(0, 50, [1, 2], ['left', 'right']), box(60, 50, []), box(60, 150, [])]);
    expect(split.sides.map(({ side }) => side)).toEqual(['left', 'right']);
  });

  test('a line that runs over another parts it, where it ends at one it does not', () => {
    const over = routeRun([box(0, 50, [2]), box(0, 100, [3]), box(60, 150, []), box(120, 100, [])]);
    expect(over.crossings).toEqual([{ x: 60, y: 100 }]);
    expect(routeRun([box(0, 50, [1]), box(60, 150, [])]).crossings).toEqual([]);
  });

  const shows: readonly (readonly [string, Show])[] = [
    ['demo', demoShow()],
    ['80 devices', retraceRig().show],
    ...starterIds.map((id) => [id, starterById(id).make('rig', 'Rig')] as [string, Show]),
    ...[11, 12, 13, 14, 15, 16].map((seed) => [`seed ${seed}`, seededShow(seed)] as [string, Show]),
  ];
  test.each(shows)('%s: no two live lines on one vertical, in any sound', (_, show) => {
    const wiring = buildWiring(show.rig);
    const tracer = new Tracer(wiring);
    let seen = 0;
    for (const sound of [null, ...inOrder(show.rig.sounds)]) {
      const { route } = layWeave(wiring, tracer.trace(sound), 900);
      expect(doubled(route.verticals)).toEqual([]);
      seen += route.paths.length;
    }
    expect(seen).toBeGreaterThan(0);
  });

  test.each(shows.slice(0, 7))('%s: the name of no rail lies under a line', (_, show) => {
    const wiring = buildWiring(show.rig);
    const tracer = new Tracer(wiring);
    for (const sound of inOrder(show.rig.sounds)) {
      const { rails, route } = layWeave(wiring, tracer.trace(sound), 900);
      for (const rail of rails.filter(({ label }) => label !== null)) {
        const at = {
          from: rail.label!.x,
          to: Infinity,
          width: rail.label!.width,
          top: rail.label!.y - 10,
          bottom: rail.label!.y + 2,
        };
        expect(freeText(route, at)).toBe(rail.label!.x);
      }
    }
  });
});
