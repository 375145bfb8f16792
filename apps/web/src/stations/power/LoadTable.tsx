import { Checkbox } from '@mantine/core';
import {
  feedLoad,
  leadWords,
  needsReversing,
  needsWords,
  outputLabel,
  type Plug,
  type PowerInUse,
  setUnitPower,
  tenths,
  why,
  type WiredLoad,
} from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { SeverityMark } from '../../ui/SeverityMark.tsx';
import { Why } from '../../ui/Why.tsx';
import { TakeTypical } from '../entry/TakeTypical.tsx';
import { SpecialLeads } from './SpecialLeads.tsx';

/** What needs power, what it needs, and what feeds it; those without power are marked. */
export function LoadTable({ power }: { readonly power: PowerInUse }) {
  const { device: selected } = useShow();
  const walk = (event: React.KeyboardEvent<HTMLTableSectionElement>) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    const target = event.target as HTMLElement;
    if (step === 0 || !target.matches('[data-load]')) return;
    event.preventDefault();
    const all = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-load]')];
    all[Math.min(all.length - 1, Math.max(0, all.indexOf(target) + step))]?.focus();
  };
  return (
    <section aria-label="Pieces that need power">
      <div className="sectionhead">
        <h2>Pieces</h2>
        <span className="soft">
          <Why evidence={why.allDrawn(power)} /> in all
        </span>
        <span className="tools">
          <TakeTypical /> <SpecialLeads />
        </span>
      </div>
      {power.loads.length === 0 ? (
        <p className="sheet soft" style={{ margin: 0, padding: '10px 14px' }}>
          Nothing in this rig needs a supply, as far as anybody has said. What a piece needs is told in its inspector,
          under Power.
        </p>
      ) : (
        <div className="sheet scroll-x">
          <DataTable className="power">
            <thead>
              <tr>
                <th>Piece</th>
                <th>Needs</th>
                <th>mA</th>
                <th style={{ width: 210 }}>Fed by</th>
                <th>Lead</th>
                <th style={{ width: 90 }} title="Solve leaves it where it is">
                  Held
                </th>
              </tr>
            </thead>
            <tbody onKeyDown={walk}>
              {power.loads.map((load) => (
                <LoadRow key={load.device.id} load={load} power={power} isSelected={load.device.id === selected} />
              ))}
            </tbody>
          </DataTable>
        </div>
      )}
    </section>
  );
}

function LoadRow({
  load,
  power,
  isSelected,
}: {
  readonly load: WiredLoad;
  readonly power: PowerInUse;
  readonly isSelected: boolean;
}) {
  const { show, run, selectDevice } = useShow();
  const { device, needs, by } = load;
  const feed = power.feeds.find(({ loads }) => loads.some((each) => each.device.id === device.id));
  const hasNone = power.isPlanned && (by === 'nothing' || by === 'loose');
  const [first, ...more] = needsWords(needs);
  return (
    <tr aria-selected={isSelected}>
      <td>
        <LinkButton
          data-load={device.id}
          aria-label={`${isSelected ? 'Close' : 'Inspect'} ${device.name}`}
          onClick={() => selectDevice(isSelected ? null : device.id)}
        >
          {device.name}
        </LinkButton>
      </td>
      <td>
        {first} <span className="soft">{more.join(', ')}</span>{' '}
        {device.type.power?.from === 'typical' && <span className="typical">typical</span>}
      </td>
      <td className="num">{tenths(needs.ma)}</td>
      <td>
        <span className="powerfed">
          {hasNone && <SeverityMark is="stops-the-show" />}
          <CellSelect
            label={`What feeds ${device.name}`}
            value={feedValue(load, feed?.outputs.map(({ supply, output }) => `${supply.id}/${output.id}`) ?? [])}
            choices={() => feedChoices(power, load)}
            shownAs={fedWords(load, feed)}
            onPick={(picked) => run(feedLoad(show, device.id, ...pickedFeed(power, load, picked)))}
          />
        </span>
      </td>
      <td className="soft">{leadWords(load, feed)}</td>
      <td>
        <Checkbox
          aria-label={`${device.name} is held`}
          checked={device.power?.held === true}
          onChange={(event) => run(setUnitPower(show, device.id, { held: event.currentTarget.checked }))}
        />
      </td>
    </tr>
  );
}

const feedValue = ({ by }: WiredLoad, outputs: readonly string[]): string =>
  outputs.length > 0 ? outputs[0] : by === 'battery' ? 'battery' : 'nothing';

function fedWords({ by, cable }: WiredLoad, feed: PowerInUse['feeds'][number] | undefined): string {
  if (feed) return feed.outputs.map(outputLabel).join(' + ');
  if (by === 'battery') return 'its battery';
  return by === 'loose' ? `${cable?.tag ?? 'a cable'} from nowhere` : 'nothing';
}

function feedChoices({ feeds }: PowerInUse, { needs }: WiredLoad) {
  return [
    ...feeds.map((feed) => ({
      value: `${feed.outputs[0].supply.id}/${feed.outputs[0].output.id}`,
      label: `${feed.outputs.map(outputLabel).join(' + ')}, ${tenths(feed.volts)} V, ${
        feed.loads.length === 0 ? `free, ${tenths(feed.ma)} mA` : `${tenths(feed.ma - feed.drawn)} mA left`
      }`,
    })),
    ...(needs.battery ? [{ value: 'battery', label: 'its battery' }] : []),
    { value: 'nothing', label: 'nothing' },
  ];
}

/** Where it is plugged in, and what its lead has to do there. */
function pickedFeed(
  { feeds }: PowerInUse,
  { needs }: WiredLoad,
  picked: string,
): [Plug | 'battery' | 'nothing', { readonly reverses: boolean; readonly adapts: boolean }?] {
  if (picked === 'battery' || picked === 'nothing') return [picked];
  const feed = feeds.find(({ outputs: [{ supply, output }] }) => `${supply.id}/${output.id}` === picked)!;
  const { supply, output } = feed.outputs[0];
  return [
    { device: supply.id, jack: output.id },
    { reverses: needsReversing(needs, output), adapts: needs.plug !== output.plug },
  ];
}
