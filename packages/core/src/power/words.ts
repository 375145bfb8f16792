import type { PowerNeeds, PowerOutput } from '../model/power.ts';
import type { Rig } from '../model/rig.ts';
import { tenths } from '../units/shown.ts';
import { assertNever } from '../units/problem.ts';
import type { Seat, SupplyCost, SupplyPlan } from '../supply/judge.ts';
import type { CompiledSupply } from '../supply/problem.ts';
import type { PowerCure, TriedCure } from './cures.ts';
import { seatsOfToday } from './problem-of.ts';
import type { FeedInUse, WiredLoad } from './wired.ts';

export const voltsRange = ([low, high]: readonly number[]): string =>
  low === high ? `${tenths(low)} V` : `${tenths(low)}–${tenths(high)} V`;

/** `9–18 V`, `minus centre`: what an inlet wants, in the trade's words. */
export function needsWords({ kind, volts, centre, plug, digital, earth, battery }: PowerNeeds): readonly string[] {
  return [
    `${voltsRange(volts)}${kind === 'ac' ? ' AC' : ''}`,
    ...(kind === 'ac' ? [] : [centreWords(centre)]),
    plug,
    ...(digital === true ? ['digital'] : []),
    ...(earth === '+' ? ['earth on plus'] : []),
    ...(battery ? [`battery ${tenths(battery.mah)} mAh`] : []),
  ];
}

export const centreWords = (centre: PowerNeeds['centre']): string =>
  centre === 'any' ? 'either centre' : centre === '+' ? 'plus centre' : 'minus centre';

/** `9 V 500 mA`, each that it may be set to. */
export const choiceWords = ({ volts, ma }: { readonly volts: number; readonly ma: number }): string =>
  `${tenths(volts)} V ${tenths(ma)} mA`;
export const outputWords = ({ choices, kind, centre, plug, rail }: PowerOutput): string =>
  [
    choices.map(choiceWords).join(' or '),
    ...(kind === 'ac' ? ['AC'] : centre === '+' ? ['plus centre'] : []),
    plug,
    rail === undefined ? 'isolated' : `rail ${rail}`,
  ].join(', ');

/** What hangs on an output, in per cent of what it gives. */
export const loadedPercent = ({ drawn, ma }: Pick<FeedInUse, 'drawn' | 'ma'>): number =>
  ma === 0 ? (drawn === 0 ? 0 : Infinity) : Math.round((drawn / ma) * 100);

/** What is special about the lead to a load, and what is lost on it where its wire is known. */
export function leadWords(load: WiredLoad, feed: FeedInUse | undefined): string {
  return [
    ...(load.isReversed ? ['reversing'] : []),
    ...(load.isAdapted ? [`adapter to ${load.needs.plug}`] : []),
    ...(feed && feed.loads.length > 1 ? [`chain of ${feed.loads.length}`] : []),
    ...(load.lost >= 0.05 ? [`${tenths(load.lost)} V lost on the way`] : []),
    ...(feed && feed.how !== 'alone' ? [`joins two in ${feed.how === 'series' ? 'series' : 'parallel'}`] : []),
  ].join(', ');
}

const count = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

/** What a plan costs beyond what is unpowered. */
export function supplyCostWords(cost: SupplyCost): string {
  return [
    ...(cost.withoutHeadroom > 0 ? [`${cost.withoutHeadroom} without headroom`] : []),
    ...(cost.digitalSharing > 0
      ? [`${count(cost.digitalSharing, 'digital piece shares', 'digital pieces share')} a rail`]
      : []),
    ...(cost.onBattery > 0 ? [`${cost.onBattery} on battery`] : []),
    ...(cost.specialLeads > 0 ? [count(cost.specialLeads, 'special lead', 'special leads')] : []),
    ...(cost.joins > 0 ? [count(cost.joins, 'join', 'joins')] : []),
    count(cost.outputsUsed, 'output', 'outputs'),
  ].join('; ');
}

export function cureWords(rig: Rig, cure: PowerCure): string {
  const name = (id: string): string => rig.devices[id]?.name ?? id;
  switch (cure.kind) {
    case 'leave':
      return `Leave ${name(cure.load)} at home`;
    case 'lead':
      return cure.lead === 'reversing' ? 'One reversing lead more' : 'One adapter lead more';
    case 'chain':
      return `A chain lead with ${cure.plugs} plugs more`;
    case 'output':
      return `One isolated output more: ${tenths(cure.volts)} V${cure.current === 'ac' ? ' AC' : ''} ${tenths(cure.ma)} mA${cure.centre === '+' ? ', plus centre' : ''}`;
    case 'supply':
      return `A second ${name(cure.like).toLowerCase()}`;
    default:
      return assertNever(cure, 'cure');
  }
}

export const cureLeft = ({ left }: TriedCure): string =>
  left === 0 ? 'then everything has power' : `then ${left} ${left === 1 ? 'is' : 'are'} left without power`;

/** `5 h 20 min` */
export function hoursWords(hours: number): string {
  const minutes = Math.round(hours * 60);
  if (minutes >= 100 * 60) return `${Math.round(hours)} h`;
  const [h, min] = [Math.floor(minutes / 60), minutes % 60];
  return h === 0 ? `${min} min` : min === 0 ? `${h} h` : `${h} h ${min} min`;
}

/** What a plan changes, piece by piece: where each comes to be, and where it is now. */
export function planChanges(
  rig: Rig,
  problem: CompiledSupply,
  { seats }: SupplyPlan,
): readonly { readonly device: string; readonly to: string; readonly now: string }[] {
  const today = seatsOfToday(rig, problem);
  const words = (seat: Seat | undefined): string => {
    if (seat === undefined || seat === 'unpowered') return 'nothing';
    if (seat === 'battery') return 'its battery';
    return problem.feeds[seat].outputs
      .map((output) => {
        const [supply, id] = problem.source.outputs[output].name.split('/');
        const label = rig.devices[supply].type.power?.supply?.outputs.find((each) => each.id === id)?.label ?? id;
        return `${rig.devices[supply].name} ${label.toLowerCase()}`;
      })
      .join(' + ');
  };
  return problem.loads.flatMap(({ name }, l) =>
    words(seats[l]) === words(today[l]) ? [] : [{ device: name, to: words(seats[l]), now: words(today[l]) }],
  );
}
