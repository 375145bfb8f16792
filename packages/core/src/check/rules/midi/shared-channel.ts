import type { WiredDevice } from '../../../model/wiring.ts';
import { midiReach } from '../../../program/compile.ts';
import { defineRule } from '../../define-rule.ts';
import { setFix } from '../../fix.ts';

export const sharedChannel = defineRule({
  meta: {
    id: 'midi/shared-channel',
    severity: 'fix-before-load-in',
    title: 'Two devices answer on one channel',
    why: 'What is meant for the one moves the other too.',
    remedy: 'Give one of them a channel of its own, here and on the device.',
    source: 'MIDI 1.0: a channel message is taken by every receiver set to that channel',
    messages: { shared: '{first} and {second} both answer on channel {channel} of {controller}.' },
  },
  check: ({ wiring }) =>
    wiring.devices
      .filter((wired) => wired.anatomy.controller)
      .flatMap((controller) => {
        const reach = midiReach(wiring, controller.device.id);
        const listening = wiring.devices.filter(
          (wired) => reach.has(wired.device.id) && typeof wired.device.channel === 'number' && understands(wired),
        );
        return listening.flatMap((second, i) => {
          const first = listening
            .slice(0, i)
            .find((wiredDevice) => wiredDevice.device.channel === second.device.channel);
          if (!first) return [];
          const free = freeChannel(listening);
          const data = {
            first: first.device.name,
            second: second.device.name,
            channel: Number(second.device.channel),
            controller: controller.device.name,
          };
          const fix =
            free === undefined
              ? {}
              : {
                  fix: setFix(
                    `Put ${second.device.name} on channel ${free}`,
                    ['devices', second.device.id, 'channel'],
                    free,
                    second.device.channel,
                  ),
                };
          return [{ messageId: 'shared' as const, at: { device: second.device.id }, data, ...fix }];
        });
      }),
});

const understands = (wired: WiredDevice): boolean =>
  wired.anatomy.presets !== undefined || wired.anatomy.messages.length > 0;

function freeChannel(listening: readonly WiredDevice[]): number | undefined {
  const taken = new Set(listening.map((wired) => wired.device.channel));
  return Array.from({ length: 16 }, (_, i) => i + 1).find((channel) => !taken.has(channel));
}
