import {
  anatomyOf,
  commands,
  type Device,
  inOrder,
  isDeclared,
  type Line,
  lineOf,
  type LinePiece,
  wantPlace,
  switchingOf,
  type WiredDevice,
  freshId,
} from '@yunta/core';
import { useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { placeChoices, placeTyped, placeValue } from '../routing/loops/place-choices.ts';
import { StationHead } from '../../ui/StationHead.tsx';
import { RigEntry } from '../entry/RigEntry.tsx';
import { channelWords, doesWords, plugsOf, switchedBy } from './gear-words.ts';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { DeviceEditor } from './inside/DeviceEditor.tsx';
import { PresetsPage } from './presets/PresetsPage.tsx';
import { OwnTypes } from './OwnTypes.tsx';
import './gear.css';

/** What there is; or, of one piece, what it stores or what is inside where that is written out. */
export function GearStation() {
  const { show } = useShow();
  const [params, setParams] = useSearchParams();
  const inside = params.get('inside');
  const device = inside === null ? undefined : show.rig.devices[inside];
  const stores = params.get('presets');
  const storing = stores === null ? undefined : show.rig.devices[stores];
  if (storing && anatomyOf(storing.type).presets)
    return <PresetsPage key={storing.id} device={storing} onClose={() => setParams({})} />;
  return device && isDeclared(device.type) ? (
    <DeviceEditor key={device.id} id={device.id} onClose={() => setParams({})} />
  ) : (
    <GearTable />
  );
}

/** What there is and what each piece needs to be told; the selected piece is in the inspector. */
function GearTable() {
  const { show, wiring, device: selected, selectDevice } = useShow();
  const switching = useMemo(() => switchingOf(wiring), [wiring]);
  const line = useMemo(() => lineOf(wiring), [wiring]);
  const wanted = (id: string) => {
    if (typeof line === 'string') return undefined;
    const piece = [...line.pieces, ...(line.wet?.pieces ?? []), ...line.kept].find((each) => each.id === id);
    return piece && { line, piece };
  };
  const devices = inOrder(show.rig.devices);
  const walk = (event: React.KeyboardEvent<HTMLTableSectionElement>) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step === 0 || (event.target as HTMLElement).matches('input, select')) return;
    event.preventDefault();
    const at = devices.findIndex((device) => device.id === selected);
    const next = devices[Math.min(devices.length - 1, Math.max(0, at + step))];
    if (!next) return;
    selectDevice(next.id);
    event.currentTarget.querySelector<HTMLElement>(`[data-device="${next.id}"]`)?.focus();
  };
  return (
    <>
      <StationHead
        name="Gear"
        startAt={['[aria-label="Add a device"]']}
        question="What do I have, and what does each piece need to be told?"
      >
        <span className="soft num">{devices.length} pieces</span>
      </StationHead>
      <RigEntry
        label="Add a device"
        placeholder="What do you have? drive, delay, valve amp …, or a whole line: guitar > tuner > switcher"
      />
      {devices.length === 0 ? (
        <p className="sheet soft" style={{ margin: 0, padding: '12px 14px' }}>
          Nothing yet. Type what you have, a piece or a whole line: <i>guitar</i>, <i>drive</i>,{' '}
          <i>guitar &gt; tuner &gt; switcher</i>. Each comes with typical values that you can change.
        </p>
      ) : (
        <div className="sheet" style={{ overflowX: 'auto', borderTop: 0 }}>
          <DataTable className="gear">
            <thead>
              <tr>
                <th>Name</th>
                <th>Type</th>
                <th>Does</th>
                <th>Place</th>
                <th>Switched by</th>
                <th>Wanted</th>
                <th>Channel</th>
                <th>Presets</th>
                <th>Plugs</th>
                <th />
              </tr>
            </thead>
            <tbody onKeyDown={walk}>
              {devices.map((device) => (
                <GearRow
                  key={device.id}
                  device={device}
                  wired={wiring.device.get(device.id)!}
                  switched={switchedBy(wiring, switching.get(device.id) ?? {})}
                  wanted={wanted(device.id)}
                  selected={device.id === selected}
                />
              ))}
            </tbody>
          </DataTable>
        </div>
      )}
      {devices.length > 0 && (
        <p className="keys">
          <span>
            <kbd>↑↓</kbd> walk the pieces
          </span>
          <span className="typical">typical</span>
          <span>values come with the type; check each in the device’s own papers and change it in the inspector</span>
        </p>
      )}
      <OwnTypes />
    </>
  );
}

function GearRow({
  device,
  wired,
  switched,
  wanted,
  selected,
}: {
  readonly device: Device;
  readonly wired: WiredDevice;
  readonly switched: string;
  /** What is wanted of it where loops are given out; none of what is no piece of a line. */
  readonly wanted: { readonly line: Line; readonly piece: LinePiece } | undefined;
  readonly selected: boolean;
}) {
  const { show, run, attempt, selectDevice } = useShow();
  const presets = wired.anatomy.presets;
  return (
    <tr aria-selected={selected}>
      <td>
        <InlineField
          label={`Name of ${device.name}`}
          value={device.name}
          onCommit={(name) =>
            name === '' ? 'A device needs a name.' : attempt(commands.setDevice(show, device.id, 'name', name))
          }
        />
      </td>
      <td className="soft">{device.type.name}</td>
      <td className="soft">{doesWords(wired)}</td>
      <td>
        <PlaceSelect device={device} />
      </td>
      <td>{switched}</td>
      <td>
        {wanted && (
          <span className={wanted.piece.guessed.place ? 'guess' : undefined}>
            <CellSelect
              label={`Wanted place of ${device.name}`}
              value={placeValue(wanted.piece)}
              choices={placeChoices(wanted.line, wanted.piece)}
              onPick={(picked) => run(wantPlace(show, device.id, placeTyped(picked)))}
            />
          </span>
        )}
      </td>
      <td className="num">{channelWords(device, wired)}</td>
      <td className="num">
        {presets
          ? `${'list' in presets.numbers ? presets.numbers.list.length : presets.numbers.count}, from ${device.firstPresetNumber}`
          : ''}
      </td>
      <td className="num">{plugsOf(wired)}</td>
      <td>
        <LinkButton
          data-device={device.id}
          aria-pressed={selected}
          aria-label={`${selected ? 'Close' : 'Inspect'} ${device.name}`}
          onClick={() => selectDevice(selected ? null : device.id)}
        >
          {selected ? 'Close' : 'Inspect'}
        </LinkButton>
      </td>
    </tr>
  );
}

/** Where a piece stands; a new place is made by typing its name where it stood. */
function PlaceSelect({ device }: { readonly device: Device }) {
  const { show, run, attempt } = useShow();
  const [naming, setNaming] = useState(false);
  const cell = useRef<HTMLSpanElement>(null);
  const add = (name: string): string | null => {
    if (name === '') return null;
    const id = freshId(name, show.rig.places, 'place');
    const added = commands.addPlace(show, id, name);
    return attempt({ ...added, steps: [...added.steps, ...commands.setDevice(show, device.id, 'place', id).steps] });
  };
  const leave = () => {
    setNaming(false);
    requestAnimationFrame(() => {
      if (document.activeElement === document.body) cell.current?.querySelector('button')?.focus();
    });
  };
  return (
    <span ref={cell}>
      {naming ? (
        <InlineField
          label={`New place for ${device.name}`}
          value=""
          placeholder="its name ↵"
          onCommit={add}
          autoFocus
          onLeave={leave}
        />
      ) : (
        <CellSelect
          label={`Place of ${device.name}`}
          value={device.place}
          choices={[
            ...inOrder(show.rig.places).map((place) => ({ value: place.id, label: place.name })),
            { value: '+', label: 'another place …' },
          ]}
          onPick={(picked) =>
            picked === '+' ? setNaming(true) : run(commands.setDevice(show, device.id, 'place', picked))
          }
        />
      )}
    </span>
  );
}
