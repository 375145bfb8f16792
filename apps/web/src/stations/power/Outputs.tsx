import {
  centreWords,
  choiceWords,
  type FeedInUse,
  headroomOf,
  lacksHeadroom,
  outputWords,
  type PowerInUse,
  setUnitPower,
  suppliesOf,
  tenths,
  why,
} from '@yunta/core';
import type { Device } from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { Why } from '../../ui/Why.tsx';
import { RigEntry } from '../entry/RigEntry.tsx';
import { HeadroomBar } from './HeadroomBar.tsx';

/** Each supply with its outputs as bars: as long as what they give, filled with what hangs on them. */
export function Outputs({ power }: { readonly power: PowerInUse }) {
  const { show } = useShow();
  const supplies = suppliesOf(show.rig);
  return (
    <>
      {supplies.length === 0 && (
        <div className="sheet" style={{ padding: '12px 14px' }}>
          <p style={{ margin: '0 0 8px' }}>
            No supply yet. Type which one there is: <i>power supply</i>, <i>battery supply</i>, <i>mains adapter</i>;
            its outputs come with typical values that you can change.
          </p>
          <RigEntry label="Add a supply" placeholder="power supply, or power supply out 1 > tuner" />
        </div>
      )}
      {supplies.map((supply) => (
        <Supply key={supply.id} supply={supply} power={power} />
      ))}
      {supplies.length > 0 && (
        <RigEntry label="Add a supply" placeholder="One supply more, or a cable: supply out 3 > echo" />
      )}
    </>
  );
}

function Supply({ supply, power }: { readonly supply: Device; readonly power: PowerInUse }) {
  const { show, selectDevice } = useShow();
  const feeds = power.feeds.filter((feed) => feed.outputs[0].supply.id === supply.id);
  const limits = power.limits.filter((limit) => limit.supply.id === supply.id);
  const longest = Math.max(...feeds.map(({ ma, drawn }) => Math.max(ma, drawn)), 1);
  const percent = headroomOf(show.rig);
  return (
    <section aria-label={supply.name}>
      <div className="sectionhead">
        <h2>{supply.name}</h2>
        <span className="soft">
          {supply.type.power?.from === 'typical' ? <span className="typical">typical</span> : supply.type.power?.from}
        </span>
        {limits.map((limit) => (
          <span key={limit.outputs.join()} className="powerlimit">
            <span className="soft">
              {limit.outputs.length === feeds.flatMap(({ outputs }) => outputs).length
                ? 'all of it'
                : limit.outputs.map((id) => labelOf(supply, id)).join(', ')}
            </span>
            <HeadroomBar
              label={`${supply.name}, ${limit.unit}`}
              parts={[{ name: 'drawn', value: limit.taken }]}
              most={limit.most}
              scale={limit.most}
              percent={percent}
              width={140}
            />
            <span className="num">
              <Why dense evidence={why.limitTaken(limit, power)} />
            </span>
            <Headroom taken={limit.taken} most={limit.most} percent={percent} />
          </span>
        ))}
        <span className="tools">
          <LinkButton aria-label={`Inspect ${supply.name}`} onClick={() => selectDevice(supply.id)}>
            Inspect
          </LinkButton>
        </span>
      </div>
      <div className="sheet scroll-x">
        <DataTable className="power">
          <thead>
            <tr>
              <th style={{ width: 80 }}>Output</th>
              <th style={{ width: 130 }}>Set to</th>
              <th style={{ width: 140 }}>Polarity, rail</th>
              <th>Load, as long as the current</th>
              <th style={{ width: 120 }}>Drawn</th>
              <th style={{ width: 150 }}>Headroom</th>
            </tr>
          </thead>
          <tbody>
            {feeds.map((feed) => (
              <Feed key={feed.outputs[0].output.id} feed={feed} longest={longest} percent={percent} />
            ))}
          </tbody>
        </DataTable>
      </div>
    </section>
  );
}

function Feed({
  feed,
  longest,
  percent,
}: {
  readonly feed: FeedInUse;
  readonly longest: number;
  readonly percent: number;
}) {
  const { show, run, selectDevice } = useShow();
  const label = feed.outputs.map(({ output }) => output.label).join(' + ');
  const shared = feed.loads.length > 1;
  return (
    <tr>
      <td title={feed.outputs.map(({ output }) => outputWords(output)).join('; ')}>
        {label}
        {feed.how !== 'alone' && <span className="soft"> in {feed.how}</span>}
      </td>
      <td>
        {feed.outputs.map(({ supply, output, volts, ma }) =>
          output.choices.length > 1 ? (
            <CellSelect
              key={output.id}
              label={`${supply.name} ${output.label} set to`}
              value={String(volts)}
              choices={output.choices.map((choice) => ({ value: String(choice.volts), label: choiceWords(choice) }))}
              onPick={(picked) =>
                run(
                  setUnitPower(show, supply.id, {
                    volts: { ...show.rig.devices[supply.id].power?.volts, [output.id]: Number(picked) },
                  }),
                )
              }
            />
          ) : (
            <span key={output.id} className="num powerset">
              {choiceWords({ volts, ma })}
            </span>
          ),
        )}
      </td>
      <td className="soft powerpolarity">
        {feed.outputs[0].output.kind === 'ac' ? 'AC' : centreWords(feed.outputs[0].output.centre)},{' '}
        {feed.outputs[0].output.rail === undefined ? 'isolated' : `rail ${feed.outputs[0].output.rail}`}
      </td>
      <td>
        <HeadroomBar
          label={`${feed.outputs[0].supply.name} ${label}`}
          parts={feed.loads.map(({ device, needs }) => ({ name: device.name, value: needs.ma }))}
          most={feed.ma}
          scale={longest}
          percent={percent}
        />
        <span className="powernames">
          {feed.loads.length === 0 && <span className="soft">free</span>}
          {feed.loads.map(({ device, needs }) => (
            <span key={device.id}>
              <LinkButton onClick={() => selectDevice(device.id)} aria-label={`Inspect ${device.name}`}>
                {device.name}
              </LinkButton>
              {shared && <span className="num soft"> {tenths(needs.ma)}</span>}
            </span>
          ))}
        </span>
      </td>
      <td className="num">{feed.loads.length > 0 && <Why dense evidence={why.outputDrawn(feed)} />}</td>
      <td className="nowrap">
        {feed.loads.length > 0 && (
          <>
            <span className="num">
              <Why dense evidence={why.outputUsed(feed, percent)} />
            </span>{' '}
            <Headroom taken={feed.drawn} most={feed.ma} percent={percent} />
          </>
        )}
      </td>
    </tr>
  );
}

function Headroom({
  taken,
  most,
  percent,
}: {
  readonly taken: number;
  readonly most: number;
  readonly percent: number;
}) {
  if (taken > most) return <b className="stop">too much</b>;
  return lacksHeadroom(taken, most, percent) ? <b className="powerlow">no headroom</b> : null;
}

const labelOf = (supply: Device, id: string): string =>
  supply.type.power?.supply?.outputs.find((output) => output.id === id)?.label ?? id;
