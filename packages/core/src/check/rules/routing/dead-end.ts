import { isOut } from '../../../model/cable-ends.ts';
import type { WiredDevice } from '../../../model/wiring.ts';
import type { Trace } from '../../../trace/trace.ts';
import { defineSoundRule } from '../../sound-rule.ts';

export const deadEnd = defineSoundRule({
  meta: {
    id: 'routing/dead-end',
    severity: 'fix-before-load-in',
    title: 'A branch ends at an open jack',
    why: 'The signal goes into a jack that nothing is plugged into (or a cable that leads nowhere) though nothing else carries it on. An unused direct output is none of this.',
    remedy: 'Plug the cable in, or take the loop out of this sound.',
    source: 'common practice',
    messages: { open: 'In {sound} the signal ends at {jack} of {device}, which leads nowhere.' },
  },
  each: ({ sound, wiring, trace }) =>
    sound.silence
      ? []
      : trace().deadEnds.flatMap((end) => {
          const wired = wiring.device.get(end.device)!;
          if (
            isWaiting(wired) ||
            isUnusedInsert(wired, end.jack) ||
            isOtherSide(wired, end.jack, trace()) ||
            isNotSelected(wired, end.jack, trace())
          )
            return [];
          return [
            {
              messageId: 'open' as const,
              at: { sound: sound.id, device: end.device },
              data: { sound: sound.name, device: wired.device.name, jack: wired.jack.get(end.jack)!.label },
            },
          ];
        }),
});

/** An instrument on its stand, or at an input that is not selected. Where none is heard, that is told as silence. */
const isWaiting = ({ anatomy }: WiredDevice): boolean => anatomy.source !== undefined;

/** An insert with nothing in it: the signal goes on inside the device. */
const isUnusedInsert = ({ anatomy, plugged }: WiredDevice, jack: string): boolean =>
  anatomy.inserts?.some((insert) => insert.send === jack && !plugged.has(insert.send) && !plugged.has(insert.return)) ??
  false;

/** A side of a pair whose other side goes on: what that costs is told as stereo that ends. */
function isOtherSide({ device, jack }: WiredDevice, id: string, { passes }: Trace): boolean {
  const here = jack.get(id)!;
  const isOther = (exit: string) =>
    here.stereo ? exit === id : here.side !== undefined && (exit === here.twin || jack.get(exit)!.twin === id);
  return passes.some((pass) => pass.device === device.id && pass.exits.some(isOther));
}

/** An input that a switch of the device chooses, while another is chosen: what is plugged in there waits. */
function isNotSelected({ device, jack, anatomy }: WiredDevice, id: string, { passes }: Trace): boolean {
  return (
    !isOut(jack.get(id)!) &&
    anatomy.sections.some((section) => section.from === id && section.when?.controls !== undefined) &&
    passes.some((pass) => pass.device === device.id && pass.entries.length > 0 && !pass.entries.includes(id))
  );
}
