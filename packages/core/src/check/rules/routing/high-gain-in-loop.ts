import { memoised } from '../../../model/memo.ts';
import { conventionOf } from '../../../model/rig.ts';
import type { WiredDevice, Wiring } from '../../../model/wiring.ts';
import { passesAfter } from '../../../trace/reachable-passes.ts';
import { nameOf } from '../../queries.ts';
import { defineSoundRule, isHeard } from '../../sound-rule.ts';

export const highGainInLoop = defineSoundRule({
  meta: {
    id: 'routing/high-gain-in-loop',
    severity: 'worth-knowing',
    title: 'High gain inside the amp’s loop',
    why: 'A drive between preamp and power amp is hit by line level: it clips harder and hisses more than in front. Some want just that.',
    remedy: 'Put the drive in front of the amp; or set the rig’s convention for gain to the loop.',
    source: 'common practice; conventions differ',
    messages: { inside: 'In {sound}, {drive} distorts inside the loop of {amp}.' },
  },
  applies: ({ show }) => conventionOf(show.rig, 'gain') !== 'gain in the loop',
  each: (soundCase) => {
    if (!isHeard(soundCase)) return [];
    const trace = soundCase.trace();
    return withInserts(soundCase.wiring).flatMap(({ device: { id }, anatomy }) => {
      const own = trace.passes.filter((pass) => pass.device === id);
      const into = own.find((pass) => anatomy.inserts!.some((insert) => pass.exits.includes(insert.send)));
      const back = own.find((pass) => anatomy.inserts!.some((insert) => pass.entries.includes(insert.return)));
      if (!into || !back) return [];
      return passesAfter(trace, into)
        .filter(
          (pass) => pass.device !== id && pass.effects.includes('drive') && passesAfter(trace, pass).includes(back),
        )
        .map((pass) => ({
          messageId: 'inside' as const,
          at: { sound: soundCase.sound.id, device: pass.device },
          data: { sound: soundCase.sound.name, drive: nameOf(soundCase, pass.device), amp: nameOf(soundCase, id) },
        }));
    });
  },
});

/** Amps and preamps with a loop: what has channels or a loudspeaker output. The loops of a band split are none. */
const withInserts = memoised(
  ({ displayMemo }: Wiring) => displayMemo,
  ({ devices }): readonly WiredDevice[] =>
    devices.filter(
      ({ anatomy }) =>
        (anatomy.inserts?.length ?? 0) > 0 &&
        (anatomy.controls.some(({ weight }) => weight === 'channel') ||
          anatomy.jacks.some(({ kind, speaker }) => speaker === true && kind === 'signal-out')),
    ),
);
