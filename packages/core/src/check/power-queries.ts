import { isTypical, type OutputInUse, type PowerInUse, powerInUse, type WiredLoad } from '../power/wired.ts';
import type { Context, Severity } from './define-rule.ts';

/** What every output bears; nothing is planned, and nothing judged, while there is no supply and no power cable. */
export const plannedPower = ({ show }: Context): PowerInUse | undefined => {
  const power = powerInUse(show.rig);
  return power.isPlanned ? power : undefined;
};

/** Loads that hang on an output, each with it. */
export const fedLoads = (
  context: Context,
): readonly { readonly load: WiredLoad; readonly feed: PowerInUse['feeds'][number] }[] =>
  plannedPower(context)?.feeds.flatMap((feed) => feed.loads.map((load) => ({ load, feed }))) ?? [];

/** What rests on typical values does not stop the show: it is worth knowing until somebody looks it up. */
export const graded = (
  severity: Severity,
  loads: readonly Pick<WiredLoad, 'device'>[],
  outputs: readonly Pick<OutputInUse, 'supply'>[] = [],
): { readonly severity: Severity } => ({
  severity: isTypical(
    ...loads.map(({ device }) => device.type.power?.from),
    ...outputs.map(({ supply }) => supply.type.power?.from),
  )
    ? 'worth-knowing'
    : severity,
});

/** `Typical values.`, or nothing: what was judged was looked up or measured. */
export const basis = (
  loads: readonly Pick<WiredLoad, 'device'>[],
  outputs: readonly Pick<OutputInUse, 'supply'>[] = [],
): string => (graded('stops-the-show', loads, outputs).severity === 'worth-knowing' ? ' (typical values)' : '');

/** Volts and mA with no more digits than they deserve. */
export const voltsWords = (volts: number): string => String(Math.round(volts * 10) / 10);
export const amount = (value: number): string => String(value >= 10 ? Math.round(value) : Math.round(value * 10) / 10);
export const rangeWords = ([low, high]: readonly number[]): string =>
  low === high ? voltsWords(low) : `${voltsWords(low)} to ${voltsWords(high)}`;
