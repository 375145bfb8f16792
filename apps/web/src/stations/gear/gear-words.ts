import { type Device, type Owner, splitRef, type Switching, type WiredDevice, type Wiring } from '@yunta/core';

/** How slots switch a piece, in words: its loop, its own switch, or by hand. */
export function switchedBy(wiring: Wiring, { loop, own }: Switching): string {
  const words: string[] = [];
  if (loop !== undefined) {
    const { device, control } = splitRef(loop);
    words.push(
      `${wiring.device.get(device)?.device.name ?? device} ${(wiring.device.get(device)?.control.get(control)?.label ?? 'loop').toLowerCase()}`,
    );
  }
  if (own !== undefined) {
    const { device, control } = splitRef(own);
    const wired = wiring.device.get(device);
    const sent = wired?.anatomy.messages.find((message) => message.control === control);
    if (sent) words.push(`CC ${sent.cc}`);
    else if (loop === undefined) words.push('its own switch');
  }
  return words.join(', ');
}

/** The receive channel; `deaf` where messages could mean something to it and it listens to none. */
export function channelWords(device: Device, { anatomy }: WiredDevice): string {
  if (!anatomy.presets && anatomy.messages.length === 0) return '';
  return device.channel === null ? 'none' : String(device.channel);
}

/** What its sections do, as far as they are told. */
export const doesWords = ({ anatomy }: WiredDevice): string =>
  [
    ...new Set(
      anatomy.sections.flatMap((section) =>
        section.effect === undefined || section.effect === 'other' ? [] : [section.effect.replace('-', ' ')],
      ),
    ),
  ].join(', ');

/** Jacks that hold a plug, of all it has. */
export const plugsOf = ({ anatomy, plugged }: WiredDevice): string => `${plugged.size} of ${anatomy.jacks.length}`;

/** Who answers for a control. */
export const ownerWords: Record<Owner, string> = {
  programmed: 'slots must deliver it',
  foot: 'the player’s foot',
  hand: 'a hand',
  live: 'the player, live',
};
