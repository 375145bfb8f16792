import { nameOf } from '../../queries.ts';
import { defineSoundRule, isHeard } from '../../sound-rule.ts';

export const notOnPath = defineSoundRule({
  meta: {
    id: 'routing/not-on-path',
    severity: 'fix-before-load-in',
    title: 'Wanted on, but the signal does not pass it',
    why: 'The sound asks for this piece, and the line goes round it: it cannot be heard.',
    remedy: 'Plug it into the line or into a loop that the sound takes, or take it out of the sound.',
    source: 'traced: no pass of the run goes through what it does',
    messages: { unheard: '{sound} wants {device} on, and the signal does not pass it.' },
  },
  each: (soundCase) => {
    if (!isHeard(soundCase)) return [];
    const { pedals } = soundCase.sound;
    const { passes } = soundCase.trace();
    const actsAtAll = (device: string) =>
      soundCase.wiring.device.get(device)?.anatomy.sections.some(({ active }) => active) ?? false;
    const isPassed = (device: string) =>
      passes.some(
        (pass) => pass.device === device && !pass.bypassed && (pass.activeSections.length > 0 || !actsAtAll(device)),
      );
    const unheard: string[] = [];
    for (const device in pedals) if (pedals[device] === 'on' && !isPassed(device)) unheard.push(device);
    return unheard.map((device) => ({
      messageId: 'unheard' as const,
      at: { sound: soundCase.sound.id, device },
      data: { sound: soundCase.sound.name, device: nameOf(soundCase, device) },
    }));
  },
});
