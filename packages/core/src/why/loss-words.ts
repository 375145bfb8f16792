import type { Wiring } from '../model/wiring.ts';
import type { Loss } from '../recall/deliver/sequence.ts';

const words: Record<Loss['kind'], (name: string) => string> = {
  sent: (name) => `what ${name} sends`,
  link: (name) => `on the cable into ${name}`,
  receiver: (name) => `at ${name}`,
  edge: (name) => `the pulse into ${name}`,
};

/** Where a message or a pulse is lost, as a player says it: `at Echo`. */
export const lossWords = ({ device: devices }: Wiring, { kind, device }: Loss): string =>
  words[kind](devices.get(device)?.device.name ?? device);
