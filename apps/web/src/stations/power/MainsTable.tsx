import {
  freshId,
  mainsChain,
  type MainsNode,
  type MainsVenue,
  numberTyped,
  setPowerSettings,
  standsMains,
  tenths,
  voltsRange,
  wallAmps,
  why,
} from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { Why } from '../../ui/Why.tsx';

/** The mains from the wall to the last inlet, and what each venue has. */
export function MainsTable() {
  const { show } = useShow();
  const chain = mainsChain(show.rig);
  return (
    <section aria-label="Mains">
      <div className="sectionhead">
        <h2>Mains, from the wall on</h2>
        <span className="soft">
          <Why evidence={why.wallTaken(chain)} /> in all, as rated: what flows is less
        </span>
      </div>
      {chain.length === 0 ? (
        <p className="sheet soft" style={{ margin: 0, padding: '10px 14px' }}>
          Nothing has a mains lead, as far as anybody has said.
        </p>
      ) : (
        <div className="sheet scroll-x">
          <DataTable className="power">
            <thead>
              <tr>
                <th>Piece</th>
                <th>Plugged into</th>
                <th>Made for</th>
                <th>Own</th>
                <th>With what hangs on it</th>
                <th>Its outlets</th>
              </tr>
            </thead>
            <tbody>
              {chain.map((node) => (
                <NodeRow key={node.device.id} node={node} />
              ))}
            </tbody>
          </DataTable>
        </div>
      )}
      <Venues chain={chain} />
    </section>
  );
}

function NodeRow({ node }: { readonly node: MainsNode }) {
  const { selectDevice } = useShow();
  const { device, depth, into, ownVa, va, outlets, isUnearthed } = node;
  const mains = device.type.power!.mains!;
  return (
    <tr>
      <td style={{ paddingLeft: 8 + depth * 18 }}>
        <LinkButton aria-label={`Inspect ${device.name}`} onClick={() => selectDevice(device.id)}>
          {device.name}
        </LinkButton>
      </td>
      <td className="soft">{into ? into.name : 'the wall'}</td>
      <td>
        {voltsRange(mains.volts)}, {mains.hertz[0] === mains.hertz[1] ? mains.hertz[0] : mains.hertz.join('–')} Hz
        {mains.earthed === true && <span className="soft">, earthed</span>}
        {isUnearthed && mains.earthed === true && <b className="stop"> no protective earth</b>}
      </td>
      <td className="num">{tenths(ownVa)} VA</td>
      <td className="num">{tenths(va)} VA</td>
      <td>
        {outlets && (
          <>
            <span className="num">
              {tenths(outlets.taken)} of {tenths(outlets.most)} VA
            </span>{' '}
            {outlets.taken > outlets.most && <b className="stop">too much</b>}
          </>
        )}
      </td>
    </tr>
  );
}

type Figure = 'volts' | 'hertz' | 'amps';
const ranges: Readonly<Record<Figure, readonly [low: number, high: number, unit: string]>> = {
  volts: [50, 500, 'V'],
  hertz: [10, 500, 'Hz'],
  amps: [0.5, 400, 'A'],
};

/** The mains of each place where it plays; what is not made for it is named. */
function Venues({ chain }: { readonly chain: readonly MainsNode[] }) {
  const { show, run, attempt } = useShow();
  const venues = show.rig.settings.power?.venues ?? [];
  const write = (next: readonly MainsVenue[]) => setPowerSettings(show, { venues: next.length > 0 ? next : undefined });
  const change = (id: string, changed: Partial<MainsVenue>) =>
    attempt(
      write(
        venues.map((venue) => {
          if (venue.id !== id) return venue;
          const { amps, ...rest } = { ...venue, ...changed };
          return amps === undefined ? rest : { ...rest, amps };
        }),
      ),
    );
  const setFigure = (id: string, what: Figure) => (typed: string) => {
    const [low, high, unit] = ranges[what];
    if (what === 'amps' && typed === '') return change(id, { amps: undefined });
    const value = numberTyped(typed);
    return value === undefined || value < low || value > high
      ? `“${typed}” will not do: write ${low} to ${high} ${unit}.`
      : change(id, { [what]: value });
  };
  const add = () => {
    const taken = Object.fromEntries(venues.map(({ id }) => [id, true]));
    const last = venues.at(-1);
    run(
      write([
        ...venues,
        {
          id: freshId('venue', taken, 'venue'),
          name: `Venue ${venues.length + 1}`,
          volts: last?.volts ?? 230,
          hertz: last?.hertz ?? 50,
        },
      ]),
    );
  };
  return (
    <>
      <div className="sectionhead">
        <h3>Where it is plugged in</h3>
        <LinkButton onClick={add}>Add a venue</LinkButton>
        {venues.length === 0 && (
          <span className="soft">Say what the venues have, and what is not made for it is told.</span>
        )}
      </div>
      {venues.length > 0 && (
        <div className="sheet scroll-x">
          <DataTable className="power">
            <thead>
              <tr>
                <th>Venue</th>
                <th>Voltage</th>
                <th>Frequency</th>
                <th>Its outlet gives</th>
                <th>Drawn there</th>
                <th>Not made for it</th>
                <th style={{ width: 80 }} />
              </tr>
            </thead>
            <tbody>
              {venues.map((venue) => (
                <tr key={venue.id}>
                  <td>
                    <InlineField
                      label={`Name of ${venue.name}`}
                      value={venue.name}
                      maxLength={120}
                      onCommit={(name) => (name === '' ? 'A venue needs a name.' : change(venue.id, { name }))}
                    />
                  </td>
                  {(['volts', 'hertz', 'amps'] as const).map((what) => (
                    <td key={what} data-figure>
                      <InlineField
                        look="mono"
                        label={`${{ volts: 'Voltage', hertz: 'Frequency', amps: 'Current' }[what]} of ${venue.name}`}
                        value={venue[what] === undefined ? '' : String(venue[what])}
                        unit={ranges[what][2]}
                        placeholder="—"
                        onCommit={setFigure(venue.id, what)}
                      />
                    </td>
                  ))}
                  <td className="num">
                    <Why evidence={why.wallCurrent(chain, venue)} />{' '}
                    {venue.amps !== undefined && wallAmps(chain, venue) > venue.amps && (
                      <b className="stop">too much</b>
                    )}
                  </td>
                  <td>
                    {chain
                      .filter(({ device }) => standsMains(device, venue) !== 'yes')
                      .map(({ device }) => device.name)
                      .join(', ') || <span className="soft">nothing</span>}
                  </td>
                  <td className="doings">
                    <LinkButton
                      aria-label={`Remove ${venue.name}`}
                      onClick={() => run(write(venues.filter(({ id }) => id !== venue.id)))}
                    >
                      Remove
                    </LinkButton>
                  </td>
                </tr>
              ))}
            </tbody>
          </DataTable>
        </div>
      )}
    </>
  );
}
