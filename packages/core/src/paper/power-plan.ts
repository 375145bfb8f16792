import { type Show } from '../model/documents.ts';
import { batteryLives, hoursNeeded } from '../power/battery.ts';
import { mainsChain, standsMains, wallAmps } from '../power/mains.ts';
import { hoursWords, leadWords, loadedPercent, needsWords } from '../power/words.ts';
import { feedLabel, type FeedInUse, powerInUse, type WiredLoad } from '../power/wired.ts';
import type { Sheet, SheetLine } from './sheet.ts';

const amount = (value: number): string => String(Math.round(value * 10) / 10);

/** What hangs on which output, what runs on battery, what has none, and the mains from the wall on. */
export function powerPlan({ rig }: Show): Sheet {
  const power = powerInUse(rig);
  const supplies = [...new Set(power.feeds.map((feed) => feed.outputs[0].supply))];
  const line = (id: string, ...cells: readonly string[]): SheetLine => ({ id, cells });
  const feedLine = (feed: FeedInUse): SheetLine =>
    line(
      `feed/${feedLabel(feed)}`,
      feed.outputs.map(({ output }) => output.label).join(' + '),
      `${amount(feed.volts)} V`,
      feed.loads.map(({ device }) => device.name).join(' + '),
      feed.loads.length > 0 ? `${amount(feed.drawn)} of ${amount(feed.ma)} mA, ${loadedPercent(feed)} %` : '',
      feed.loads.length > 0
        ? [...new Set(feed.loads.map((load) => leadWords(load, feed)))].filter(Boolean).join(', ')
        : '',
      feed.cable?.tag ?? '',
    );
  const loadLine = (load: WiredLoad): SheetLine =>
    line(
      `load/${load.device.id}`,
      load.device.name,
      '',
      needsWords(load.needs).join(', '),
      `${amount(load.needs.ma)} mA`,
      '',
      '',
    );
  const chain = mainsChain(rig);
  const venues = rig.settings.power?.venues ?? [];
  const groups = [
    ...supplies.map((supply) => ({
      heading: [
        supply.name,
        ...power.limits
          .filter((limit) => limit.supply.id === supply.id)
          .map(({ taken, most, unit }) => `${amount(taken)} of ${amount(most)} ${unit}`),
      ].join(', '),
      lines: power.feeds.filter((feed) => feed.outputs[0].supply.id === supply.id).map(feedLine),
    })),
    { heading: 'On battery', lines: power.loads.filter(({ by }) => by === 'battery').map(loadLine) },
    {
      heading: 'Without power',
      lines: power.isPlanned ? power.loads.filter(({ by }) => by === 'nothing' || by === 'loose').map(loadLine) : [],
    },
    {
      heading: `Batteries; ${hoursWords(hoursNeeded(rig))} are needed`,
      lines: batteryLives(rig, power).map(({ device, drawn, unit, hours }) =>
        line(
          `battery/${device.id}`,
          device.name,
          '',
          hours === null ? 'nothing draws from it' : hoursWords(hours),
          `${amount(drawn)} ${unit}`,
          '',
          '',
        ),
      ),
    },
    {
      heading: 'Mains, from the wall on',
      lines: chain.map(({ device, depth, into, va, outlets }) =>
        line(
          `mains/${device.id}`,
          `${'– '.repeat(depth)}${device.name}`,
          '',
          into ? `in ${into.name}` : 'in the wall',
          `${amount(va)} VA`,
          outlets ? `outlets ${amount(outlets.taken)} of ${amount(outlets.most)} VA` : '',
          '',
        ),
      ),
    },
    {
      heading: 'Where it is plugged in',
      lines: venues.map((venue) =>
        line(
          `venue/${venue.id}`,
          venue.name,
          `${amount(venue.volts)} V`,
          `${amount(venue.hertz)} Hz`,
          `${amount(wallAmps(chain, venue))}${venue.amps === undefined ? '' : ` of ${amount(venue.amps)}`} A`,
          chain
            .filter(({ device }) => standsMains(device, venue) !== 'yes')
            .map(({ device }) => `not ${device.name}`)
            .join(', '),
          '',
        ),
      ),
    },
  ];
  return {
    title: 'Power plan',
    about: rig.name,
    look: 'list',
    columns: ['Output', 'Set to', 'Feeds', 'Drawn', 'Lead', 'Tag'],
    groups: groups.filter(({ lines }) => lines.length > 0),
    notes: [
      'Mains and earthing are for a licensed electrician, under the local code. Never lift a protective earth.',
      'Disconnect the mains before anything is opened; capacitors stay charged.',
    ],
  };
}
