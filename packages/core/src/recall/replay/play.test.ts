import { describe, expect, test } from '@jest/globals';
import type { Show } from '../../model/documents.ts';
import { clean, fourCable, lead } from '../../testing/build-show.ts';
import { lossAt, type Sequence } from '../deliver/sequence.ts';
import { proverOf } from '../prove/prover-of.ts';
import { firstWrong, play } from './play.ts';

const built = fourCable().sound('lead', lead).sound('clean', clean).laid().show;
const withSlot = (show: Show, id: string, actions: Show['rig']['slots'][string]['actions']): Show => ({
  ...show,
  rig: { ...show.rig, slots: { ...show.rig.slots, [id]: { ...show.rig.slots[id], actions } } },
});
const press = (slot: string) => ({ kind: 'press' as const, slot });
const sequence = (...steps: Sequence['steps']): Sequence => ({ needs: [], steps });

describe('a sequence played on the simulated rig', () => {
  const prover = proverOf(built);
  const { lead: sound } = built.rig.sounds;

  test('tells what goes over the wires, byte by byte: one after the other, 320 µs a byte, after the wait', () => {
    const { steps } = play(prover, sequence(press('slot-lead')), sound, 2);
    expect(steps.map(({ step }) => step.kind)).toEqual(['power-up', 'press']);
    // Source: MIDI 1.0, 31,250 baud, ten bits a byte: 320 µs; the program change is 2 bytes, the control change 3.
    expect(steps[1].heard).toEqual([
      { from: 'switcher', bytes: 'C1 05', at: 640 },
      { from: 'switcher', bytes: 'B1 66 7F', at: 640 + 20_000 + 960 },
    ]);
  });
  test('tells what moved, from what to what, and every want against what came up', () => {
    const { steps, wants, silent } = play(prover, sequence(press('slot-lead')), sound, 2);
    expect(steps[1].changed).toEqual(
      expect.arrayContaining([
        { ref: 'switcher/loop-1', from: 0, to: 1 },
        { ref: 'combo/channel', from: 'clean', to: 'lead' },
      ]),
    );
    expect(steps[1].quiet).toBe(true);
    expect(wants.map(({ ref, right }) => [ref, right])).toEqual(wants.map(({ ref }) => [ref, true]));
    expect(wants.find(({ ref }) => ref === 'delay/preset')).toEqual({
      ref: 'delay/preset',
      wanted: 5,
      cameUp: 5,
      right: true,
    });
    expect(silent).toBe(false);
  });
  test('with a message lost, the want that it carried comes up wrong', () => {
    const event = prover.table.press.get(prover.model.slot.get('slot-lead')!.index)!;
    const point = event.losses().points.find((point) => point.kind === 'receiver' && point.device.id === 'delay')!;
    const { wants } = play(
      prover,
      {
        needs: [{ device: 'delay', part: 'preset', value: '0' }],
        steps: [{ ...press('slot-lead'), lost: lossAt(point) }],
      },
      sound,
      2,
    );
    expect(wants.filter(({ right }) => !right).map(({ ref, cameUp }) => [ref, cameUp])).toEqual([['delay/preset', 0]]);
  });
  test('a slot that forgets: the first want that comes up wrong is told, and again only once it is another', () => {
    const forgetful = withSlot(built, 'slot-lead', [{ kind: 'set', control: 'loop-2', value: 1 }]);
    const prover = proverOf(forgetful);
    const way = sequence(press('slot-clean'), press('slot-lead'));
    const wrong = firstWrong(prover, way, sound)!;
    expect(wrong).toMatchObject({ ref: 'switcher/loop-1', wanted: 1, cameUp: 0, right: false });
    expect(firstWrong(prover, way, sound)).toBe(wrong);
    const mended = proverOf(built);
    expect(firstWrong(mended, way, sound)).toBeUndefined();
    expect(firstWrong(prover, way, sound)).toEqual(wrong);
  });
  test('nothing in the line that sounds: said so', () => {
    const dead = withSlot(built, 'slot-lead', [{ kind: 'set', control: 'loop-4', value: 1 }]);
    expect(play(proverOf(dead), sequence(press('slot-lead')), sound, 2).silent).toBe(true);
  });
});
