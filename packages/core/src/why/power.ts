import type { BatteryLife } from '../power/battery.ts';
import type { MainsNode } from '../power/mains.ts';
import { wallAmps, wallVa } from '../power/mains.ts';
import type { FeedInUse, LimitInUse, PowerInUse, WiredLoad } from '../power/wired.ts';
import { isTypical } from '../power/wired.ts';
import { hoursWords, loadedPercent } from '../power/words.ts';
import type { MainsVenue, PowerSource } from '../model/power.ts';
import type { Device } from '../model/rig.ts';
import { tenths } from '../units/shown.ts';
import type { Evidence } from './evidence.ts';

const papers = 'currents and limits as the devices’ papers or typical values say, added up';
const sourceOf = (device: Device): PowerSource | undefined => device.type.power?.from;
const restsOn = (...devices: readonly Device[]): Evidence['rests'] =>
  isTypical(...devices.map(sourceOf)) ? 'typical' : 'entered';
const labelOf = ({ outputs }: FeedInUse): string =>
  outputs.map(({ supply, output }) => `${supply.name} ${output.label.toLowerCase()}`).join(' + ');
const drawnBy = (loads: readonly WiredLoad[]): Evidence['inputs'] =>
  loads.map(({ device, needs }) => [device.name, `${tenths(needs.ma)} mA`]);

/** What hangs on an output, of what it gives. */
export const outputDrawn = (feed: FeedInUse): Evidence => ({
  of: `Drawn from ${labelOf(feed)}`,
  value: `${tenths(feed.drawn)} of ${tenths(feed.ma)} mA`,
  inputs: [
    ...drawnBy(feed.loads),
    ...feed.outputs.map(({ output, volts, ma }): Evidence['inputs'][number] => [
      `${output.label} gives at ${tenths(volts)} V`,
      `${tenths(ma)} mA`,
    ]),
  ],
  formula: {
    alone: 'the sum of what the pieces draw',
    series: 'the sum of what the pieces draw; of two in series the lower current counts',
    parallel: 'the sum of what the pieces draw; the currents of two in parallel add',
  }[feed.how],
  source: papers,
  rests: restsOn(...feed.loads.map(({ device }) => device), ...feed.outputs.map(({ supply }) => supply)),
});

/** The share of an output that is used. */
export const outputUsed = (feed: FeedInUse, percent: number): Evidence => ({
  of: `Used of ${labelOf(feed)}`,
  value: `${loadedPercent(feed)} %`,
  inputs: [
    ['drawn', `${tenths(feed.drawn)} mA`],
    ['it gives', `${tenths(feed.ma)} mA`],
    ['may be used', `${percent} %`],
  ],
  formula: 'drawn / what it gives × 100',
  source: 'common practice: a fifth to a quarter stays free',
  rests: restsOn(...feed.loads.map(({ device }) => device), ...feed.outputs.map(({ supply }) => supply)),
});

/** What is taken of a limit that several outputs share. */
export const limitTaken = (limit: LimitInUse, { feeds }: PowerInUse): Evidence => {
  const under = feeds.filter(
    ({ outputs, loads }) =>
      loads.length > 0 &&
      outputs.some(({ supply, output }) => supply.id === limit.supply.id && limit.outputs.includes(output.id)),
  );
  return {
    of: `Taken of what ${limit.supply.name} gives together`,
    value: `${tenths(limit.taken)} of ${tenths(limit.most)} ${limit.unit}`,
    inputs: under.map((feed) => [
      labelOf(feed),
      limit.unit === 'mA' ? `${tenths(feed.drawn)} mA` : `${tenths(feed.drawn)} mA at ${tenths(feed.volts)} V`,
    ]),
    formula:
      limit.unit === 'mA'
        ? 'the sum of what its outputs give'
        : 'the sum of volts × amperes of its outputs; of two in parallel each may bear all of it',
    source: papers,
    rests: restsOn(limit.supply, ...under.flatMap(({ loads }) => loads.map(({ device }) => device))),
  };
};

/** What all pieces draw together. */
export const allDrawn = ({ loads }: PowerInUse): Evidence => ({
  of: 'Drawn by all pieces',
  value: `${tenths(loads.reduce((sum, { needs }) => sum + needs.ma, 0))} mA`,
  inputs: drawnBy(loads),
  formula: 'the sum of what the pieces draw, whatever voltage they take',
  source: papers,
  rests: restsOn(...loads.map(({ device }) => device)),
});

const rated = (chain: readonly MainsNode[]): Evidence['inputs'] =>
  chain.filter(({ ownVa }) => ownVa > 0).map(({ device, ownVa }) => [device.name, `${tenths(ownVa)} VA`]);

/** What everything takes from the wall. */
export const wallTaken = (chain: readonly MainsNode[]): Evidence => ({
  of: 'Taken from the wall',
  value: `${tenths(wallVa(chain))} VA`,
  inputs: rated(chain),
  formula: 'the sum of the ratings: what flows is less',
  source: 'ratings as the devices’ papers or typical values say',
  rests: restsOn(...chain.map(({ device }) => device)),
});

/** The current that this is at a venue. */
export const wallCurrent = (chain: readonly MainsNode[], venue: MainsVenue): Evidence => ({
  of: `Current at ${venue.name}`,
  value: `${tenths(wallAmps(chain, venue))} A`,
  inputs: [
    ['taken', `${tenths(wallVa(chain))} VA`],
    ['voltage', `${tenths(venue.volts)} V`],
  ],
  formula: 'VA / V',
  source: 'definition of apparent power',
  rests: restsOn(...chain.map(({ device }) => device)),
});

/** How long a battery lasts. */
export function batteryLasts({ device, drawn, unit, hours }: BatteryLife): Evidence {
  const { supply, needs } = device.type.power ?? {};
  const ofSupply = unit === 'W' ? supply?.battery : undefined;
  return {
    of: `${device.name} lasts`,
    value: hours === null ? '' : hoursWords(hours),
    inputs: [
      ...(ofSupply
        ? ([
            ['it holds', `${tenths(ofSupply.wh)} Wh`],
            ['of that comes out', `${ofSupply.efficiency ?? 100} %`],
          ] as const)
        : ([['it holds', `${tenths(needs?.battery?.mah ?? 0)} mAh`]] as const)),
      ['drawn', `${tenths(drawn)} ${unit}`],
    ],
    formula: ofSupply ? 'Wh × share that comes out / W' : 'mAh / mA',
    source: 'definitions; at a full charge and the rated drain, so at best',
    rests: restsOn(device),
  };
}
