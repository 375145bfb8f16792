import { describe, expect, test } from '@jest/globals';
import { buildWiring, type Trace, Tracer } from '@yunta/core';
import { retraceRig, seededShow, ShowBuilder } from '@yunta/core/testing';
import { foldTrace, unfolded } from './fold-trace.ts';
import { layWeave } from './signal-diagram-layout.ts';

/** A line of pedals of which some are off by their own switch, and a sound in which the last is on. */
function longLine() {
  const names = ['p1', 'p2', 'p3', 'p4', 'p5', 'p6'];
  const { show } = new ShowBuilder()
    .text(`guitar > ${names.map((name) => `${name} = drive`).join(' > ')} > amp > cabinet`)
    .sound('song', {
      pedals: { p1: 'on', ...Object.fromEntries(names.slice(1).map((name) => [name, 'off' as const])) },
    });
  const wiring = buildWiring(show.rig);
  return { wiring, trace: new Tracer(wiring).trace(show.rig.sounds.song) };
}

const names = (trace: Pick<Trace, 'passes'>) => trace.passes.map(({ device }) => device);

describe('folding', () => {
  const { wiring, trace } = longLine();
  test('a stretch that does nothing becomes one mark; what does something stays', () => {
    const folded = foldTrace(trace);
    expect(names(folded)).toEqual(['guitar', 'p1', 'p2', 'amp', 'cabinet']);
    expect(folded.passes[2].stands).toEqual([2, 3, 4, 5, 6]);
    expect(folded.passes.map(({ next }) => next)).toEqual([[1], [2], [3], [4], []]);
    expect(folded.passes.map(({ column }) => column)).toEqual([0, 1, 2, 3, 4]);
    expect(folded.hidden).toBe(4);
    expect(layWeave(wiring, folded).passes.map(({ title }) => title)).toContain('5 quiet');
    expect(layWeave(wiring, folded).width).toBeLessThan(layWeave(wiring, trace).width);
  });
  test('what differs from the other run is not hidden', () => {
    expect(names(foldTrace(trace, new Set([4])))).toEqual(names(trace));
    expect(foldTrace(trace, new Set([2])).passes.map(({ stands }) => stands.length)).toEqual([1, 1, 1, 4, 1, 1]);
  });
  test('pieces that hang under one pass become one', () => {
    const { show } = retraceRig();
    const its = buildWiring(show.rig);
    const whole = new Tracer(its).trace(show.rig.sounds['sound-1']);
    const folded = foldTrace(whole);
    expect(folded.jumpers.length).toBeLessThan(whole.jumpers.length);
    expect(folded.jumpers.flatMap(({ holds }) => holds).sort()).toEqual(
      whole.jumpers.flatMap(({ holds }) => holds).sort(),
    );
  });
  test('law: every pass is in one mark, and a mark leads to another where its passes led to theirs', () => {
    for (let seed = 700; seed < 740; seed += 1) {
      const show = seededShow(seed);
      const tracer = new Tracer(buildWiring(show.rig));
      for (const sound of Object.values(show.rig.sounds)) {
        const whole = tracer.trace(sound);
        const folded = foldTrace(whole);
        expect(folded.passes.flatMap(({ stands }) => stands).sort((a, b) => a - b)).toEqual(
          whole.passes.map(({ index }) => index),
        );
        const markOf = new Map(folded.passes.flatMap(({ index, stands }) => stands.map((at) => [at, index])));
        const links = new Set(
          whole.passes.flatMap(({ index, next }) => next.map((to) => `${markOf.get(index)} ${markOf.get(to)}`)),
        );
        const inside = [...links].filter((link) => new Set(link.split(' ')).size === 1);
        const told = folded.passes.flatMap(({ index, next }) => next.map((to) => `${index} ${to}`));
        expect(told.sort()).toEqual([...links].filter((link) => !inside.includes(link) || told.includes(link)).sort());
        expect(unfolded(whole).hidden).toBe(0);
      }
    }
  });
});
