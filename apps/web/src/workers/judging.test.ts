import { describe, expect, test } from '@jest/globals';
import { commands, demoShow, flyShow, type Show } from '@yunta/core';
import { Judging } from './judging.ts';

const now = () => Promise.resolve();
const renamed = (show: Show, name: string) => commands.renameRig(show, name).steps;

describe('judging', () => {
  test('two shows side by side: each keeps its own findings and verdicts', async () => {
    const judging = new Judging(now);
    const [demo, fly] = [demoShow(), flyShow()];
    const alone = async (show: Show) => {
      const apart = new Judging(now);
      const judged = await apart.judge('x', { show });
      return [judged, await apart.prove('x', 2)] as const;
    };
    const [first, second] = [await judging.judge('a', { show: demo }), await judging.judge('b', { show: fly })];
    const [proofA, proofB] = [await judging.prove('a', 2), await judging.prove('b', 2)];
    for (const [show, judged, proof] of [
      [demo, first, proofA],
      [fly, second, proofB],
    ] as const) {
      const [expected, proved] = await alone(show);
      if (judged === null || judged === 'out of step' || expected === null || expected === 'out of step')
        throw new Error('not judged');
      expect(judged.findings).toEqual(expected.findings);
      expect(proof?.judgements).toEqual(proved?.judgements);
    }
    expect(proofA?.judgements).not.toEqual(proofB?.judgements);
  });
  test('what follows from a finding is told with it, and counted no second time', async () => {
    const show = demoShow();
    const speaker = Object.values(show.rig.cables).find((cable) => cable.kind === 'speaker')!;
    const judging = new Judging(now);
    await judging.judge('a', { show });
    const judged = await judging.judge('a', { steps: commands.disconnect(show, speaker.id).steps });
    if (judged === null || judged === 'out of step') throw new Error('not judged');
    const noLoad = judged.findings.filter(({ ruleId }) => ruleId === 'loudspeakers/no-load');
    expect(noLoad).toHaveLength(1);
    expect(noLoad[0].following.length).toBeGreaterThan(100);
    expect(new Set(noLoad[0].following.map(({ ruleId }) => ruleId)).has('routing/no-route')).toBe(true);
    expect(judged.findings.length).toBeLessThan(11);
  });
  test('an edit of one does not stop the proof of the other; an edit of its own does', async () => {
    /** Done once, the next time that the proof gives way. */
    let meanwhile: (() => void) | null = null;
    const judging = new Judging(() => {
      const act = meanwhile;
      meanwhile = null;
      act?.();
      return Promise.resolve();
    });
    await judging.judge('a', { show: demoShow() });
    await judging.judge('b', { show: flyShow() });
    const clock = performance.now.bind(performance);
    let late = 0;
    performance.now = () => clock() + (late += 100);
    try {
      meanwhile = () => void judging.judge('b', { show: flyShow() });
      expect((await judging.prove('a', 2))?.judgements.length).toBeGreaterThan(0);
      meanwhile = () => void judging.judge('a', { show: demoShow() });
      expect(await judging.prove('a', 2)).toBeNull();
    } finally {
      performance.now = clock;
    }
  });
  test('steps go on from what is held; where nothing is, or they do not apply, it says so', async () => {
    const judging = new Judging(now);
    const show = demoShow();
    expect(await judging.judge('a', { steps: renamed(show, 'Other') })).toBe('out of step');
    expect(await judging.prove('a', 2)).toBeNull();
    await judging.judge('a', { show });
    expect(await judging.judge('a', { steps: renamed(show, 'Other') })).toMatchObject({ serial: 2 });
    expect(await judging.judge('a', { steps: renamed(show, 'Third') })).toBe('out of step');
    judging.forget('a');
    expect(await judging.judge('a', { steps: renamed(show, 'Other') })).toBe('out of step');
  });
  test('of two edits that come at once only the newer is judged', async () => {
    const judging = new Judging(now);
    const [older, newer] = await Promise.all([
      judging.judge('a', { show: demoShow() }),
      judging.judge('a', { show: flyShow() }),
    ]);
    expect(older).toBeNull();
    expect(newer).toMatchObject({ serial: 2 });
  });
});
