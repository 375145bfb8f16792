import { describe, expect, test } from '@jest/globals';
import { demoShow, inOrder, Tracer, buildWiring } from '@yunta/core';
import { fourCable, lead, retraceRig } from '@yunta/core/testing';
import { layWeave, strip } from './signal-diagram-layout.ts';

const laid = (show: ReturnType<typeof demoShow>, sound: string, room = 740) => {
  const wiring = buildWiring(show.rig);
  return layWeave(wiring, new Tracer(wiring).trace(show.rig.sounds[sound]), room);
};

describe('the weave', () => {
  const weave = laid(fourCable().sound('lead', lead).show, 'lead');

  test('four cables are four crossings between the places', () => {
    expect(weave.rows.map((row) => row.name)).toEqual(['Board', 'Combo']);
    const crossings = weave.passes
      .slice(1)
      .filter((placed, i) => placed.pass.device === 'combo' || weave.passes[i].pass.device === 'combo');
    expect(crossings).toHaveLength(4);
  });
  test('what the line passes more than once is a rail from its first pass to its last', () => {
    expect(weave.rails.map((rail) => rail.device).sort()).toEqual(['combo', 'switcher']);
    const rail = weave.rails.find((rail) => rail.device === 'switcher')!;
    const own = weave.passes.filter((placed) => placed.pass.device === 'switcher');
    expect(rail.x).toBe(own[0].x);
    expect(rail.x + rail.width).toBeCloseTo(own.at(-1)!.x + own.at(-1)!.width, 6);
  });
  test('time runs left to right: each pass begins where the one before ends', () => {
    for (const [i, placed] of weave.passes.entries())
      if (i > 0) expect(placed.x).toBeCloseTo(weave.passes[i - 1].x + weave.passes[i - 1].width, 6);
  });
  test('it takes the room that there is, and no less than it needs', () => {
    expect(laid(fourCable().sound('lead', lead).show, 'lead', 900).width).toBeGreaterThan(weave.width);
    expect(laid(fourCable().sound('lead', lead).show, 'lead', 100).width).toBeGreaterThan(400);
  });

  test.each([
    ...inOrder(demoShow().rig.sounds).map((sound) => ['demo', sound.id] as const),
    ['80 devices', 'sound-1'] as const,
  ])('%s, %s: no label lies over another', (which, sound) => {
    const { passes, jumpers, height, width } = laid(which === 'demo' ? demoShow() : retraceRig().show, sound);
    const boxes = [
      ...passes
        .filter((placed) => !placed.onRail)
        .map((placed) => ({ x: placed.x + placed.width / 2, y: placed.y, half: strip.width / 2 })),
      ...jumpers.map((jumper) => ({ x: jumper.x, y: jumper.y, half: jumper.width / 2 })),
    ];
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1))
        if (a.y === b.y) expect(Math.abs(a.x - b.x)).toBeGreaterThanOrEqual(a.half + b.half - 8);
    for (const box of boxes) {
      expect(box.y).toBeLessThan(height);
      expect(box.x).toBeLessThan(width);
    }
  });
});
