import { Checkbox, Select } from '@mantine/core';
import {
  type Device,
  type MainsNeeds,
  numberTyped,
  type PowerNeeds,
  powerSources,
  said,
  setTypePower,
  type TypePower,
  voltsRange,
} from '@yunta/core';
import { useShow } from '../../../api/rig.tsx';
import { Fold } from '../../../ui/Fold.tsx';
import { InlineField } from '../../../ui/InlineField.tsx';
import { voltsTyped } from './power-typed.ts';
import { SupplyFacts } from './SupplyFacts.tsx';
import './power-facts.css';

const sourceWords = { typical: 'typical', papers: 'its papers', measured: 'measured' } as const;
/** What one begins with, where something is ticked for the first time. */
const usualNeeds: PowerNeeds = { kind: 'dc', volts: [9, 9], ma: 20, centre: '-', plug: 'barrel 2.1 mm' };
const usualMains: MainsNeeds = { va: 50, volts: [220, 240], hertz: [50, 60], inlet: 'three-pin inlet', earthed: true };
const usualSupply: NonNullable<TypePower['supply']> = {
  outputs: [
    { id: 'dc-1', label: 'Out 1', choices: [{ volts: 9, ma: 100 }], kind: 'dc', centre: '-', plug: 'barrel 2.1 mm' },
  ],
};

/** What a piece takes and gives of power; a figure that is changed counts as looked up. */
export function PowerFacts({ device, isOpen = false }: { readonly device: Device; readonly isOpen?: boolean }) {
  const { show, attempt, run } = useShow();
  const power = device.type.power;
  const write = (change: Partial<TypePower>) => {
    const { from = 'papers', ...rest } = power ?? {};
    return setTypePower(show, device.id, said({ from: from === 'typical' ? 'papers' : from, ...rest, ...change }));
  };
  const toggle = <K extends keyof TypePower>(field: K, usual: TypePower[K]) =>
    run(write({ [field]: power?.[field] === undefined ? usual : undefined }));
  return (
    <Fold title="Power" open={isOpen}>
      <div className="powerfacts">
        {power && (
          <Select
            label="Where these are from"
            allowDeselect={false}
            value={power.from}
            data={powerSources.map((from) => ({ value: from, label: sourceWords[from] }))}
            onChange={(from) => from && run(write({ from: from as TypePower['from'] }))}
          />
        )}
        <Checkbox
          label="Takes power from a supply"
          checked={power?.needs !== undefined}
          onChange={() => toggle('needs', usualNeeds)}
        />
        {power?.needs && <Needs needs={power.needs} onWrite={(needs) => attempt(write({ needs }))} />}
        <Checkbox
          label="Has a mains lead"
          checked={power?.mains !== undefined}
          onChange={() => toggle('mains', usualMains)}
        />
        {power?.mains && <Mains mains={power.mains} onWrite={(mains) => attempt(write({ mains }))} />}
        {power?.mains && <Outlets power={power} onWrite={(outlets) => attempt(write({ outlets }))} />}
        <Checkbox
          label="Is a supply"
          checked={power?.supply !== undefined}
          onChange={() => toggle('supply', usualSupply)}
        />
        {power?.supply && <SupplyFacts supply={power.supply} onWrite={(supply) => attempt(write({ supply }))} />}
        {power?.lines && <Lines power={power} onWrite={(lines) => attempt(write({ lines }))} />}
      </div>
    </Fold>
  );
}

/** A figure in a range; what is out of it stays in its field, with the reason. */
const figure =
  (low: number, high: number, unit: string, take: (value: number) => string | null) =>
  (typed: string): string | null => {
    const value = numberTyped(typed);
    return value === undefined || value < low || value > high
      ? `“${typed}” will not do: write ${low} to ${high} ${unit}.`
      : take(value);
  };
const inRange =
  (unit: string, take: (range: readonly [number, number]) => string | null) =>
  (typed: string): string | null => {
    const range = voltsTyped(typed);
    return range ? take(range) : `“${typed}” is no range: write 9, or 9–18 ${unit}.`;
  };
const bare = (range: readonly number[]): string => voltsRange(range).replace(' V', '');

function Needs({
  needs,
  onWrite,
}: {
  readonly needs: PowerNeeds;
  readonly onWrite: (needs: PowerNeeds) => string | null;
}) {
  const change = (changed: Partial<PowerNeeds>): string | null => {
    const all = Object.entries({ ...needs, ...changed }).filter(([, value]) => value !== undefined && value !== false);
    return onWrite(Object.fromEntries(all) as unknown as PowerNeeds);
  };
  return (
    <div className="powerrows">
      <Row label="Voltage">
        <InlineField
          look="boxed"
          label="Voltage it runs on"
          value={bare(needs.volts)}
          unit="V"
          onCommit={inRange('V', (volts) => change({ volts: [...volts] }))}
        />
      </Row>
      <Row label="Current">
        <InlineField
          look="boxed"
          label="Current it draws"
          value={String(needs.ma)}
          unit="mA"
          onCommit={figure(0, 20_000, 'mA', (ma) => change({ ma }))}
        />
      </Row>
      <Row label="Plug">
        <InlineField
          look="boxed"
          label="Plug of its inlet"
          value={needs.plug}
          maxLength={30}
          suggestions={['barrel 2.1 mm', 'barrel 2.5 mm', 'mini-jack', 'battery clip']}
          onCommit={(plug) => (plug === '' ? 'It has some plug: write which.' : change({ plug }))}
        />
      </Row>
      <div className="pair">
        <Select
          label="Current is"
          allowDeselect={false}
          value={needs.kind}
          data={[
            { value: 'dc', label: 'direct' },
            { value: 'ac', label: 'alternating' },
          ]}
          onChange={(kind) => kind && void change({ kind: kind as PowerNeeds['kind'] })}
        />
        <Select
          label="Centre of its plug"
          allowDeselect={false}
          value={needs.centre}
          data={[
            { value: '-', label: 'minus' },
            { value: '+', label: 'plus' },
            { value: 'any', label: 'either' },
          ]}
          onChange={(centre) => centre && void change({ centre: centre as PowerNeeds['centre'] })}
        />
      </div>
      <Checkbox
        label="Digital: wants an output of its own"
        checked={needs.digital === true}
        onChange={(event) => void change({ digital: event.currentTarget.checked })}
      />
      <Checkbox
        label="Earth on plus"
        checked={needs.earth === '+'}
        onChange={(event) => void change({ earth: event.currentTarget.checked ? '+' : undefined })}
      />
      <Checkbox
        label="Can run on a battery"
        checked={needs.battery !== undefined}
        onChange={(event) => void change({ battery: event.currentTarget.checked ? { mah: 500 } : undefined })}
      />
      {needs.battery && (
        <Row label="Battery">
          <InlineField
            look="boxed"
            label="Capacity of its battery"
            value={String(needs.battery.mah)}
            unit="mAh"
            onCommit={figure(1, 1_000_000, 'mAh', (mah) => change({ battery: { mah } }))}
          />
        </Row>
      )}
    </div>
  );
}

function Mains({
  mains,
  onWrite,
}: {
  readonly mains: MainsNeeds;
  readonly onWrite: (mains: MainsNeeds) => string | null;
}) {
  const change = (changed: Partial<MainsNeeds>): string | null => onWrite({ ...mains, ...changed });
  return (
    <div className="powerrows">
      <Row label="Takes">
        <InlineField
          look="boxed"
          label="Rating at the mains"
          value={String(mains.va)}
          unit="VA"
          onCommit={figure(0, 20_000, 'VA', (va) => change({ va }))}
        />
      </Row>
      <Row label="Made for">
        <InlineField
          look="boxed"
          label="Mains voltage it is made for"
          value={bare(mains.volts)}
          unit="V"
          onCommit={inRange('V', (volts) => change({ volts: [...volts] }))}
        />
        <InlineField
          look="boxed"
          label="Mains frequency it is made for"
          value={bare(mains.hertz)}
          unit="Hz"
          onCommit={inRange('Hz', (hertz) => change({ hertz: [...hertz] }))}
        />
      </Row>
      <Row label="Inlet">
        <InlineField
          look="boxed"
          label="Mains inlet"
          value={mains.inlet}
          maxLength={30}
          onCommit={(inlet) => (inlet === '' ? 'It has some inlet: write which.' : change({ inlet }))}
        />
      </Row>
      <Checkbox
        label="Needs the protective earth (class I)"
        checked={mains.earthed === true}
        onChange={(event) => void change({ earthed: event.currentTarget.checked })}
      />
    </div>
  );
}

function Outlets({
  power: { outlets },
  onWrite,
}: {
  readonly power: TypePower;
  readonly onWrite: (outlets: TypePower['outlets']) => string | null;
}) {
  return (
    <div className="powerrows">
      <Row label="Outlets">
        <InlineField
          look="boxed"
          label="Mains outlets that it passes on"
          value={String(outlets?.count ?? 0)}
          onCommit={figure(0, 24, 'outlets', (count) =>
            Number.isInteger(count)
              ? onWrite(count === 0 ? undefined : { va: 500, ...outlets, count })
              : 'A number of outlets is whole.',
          )}
        />
        {outlets && (
          <InlineField
            look="boxed"
            label="What the outlets pass on"
            value={String(outlets.va)}
            unit="VA"
            onCommit={figure(0, 20_000, 'VA', (va) => onWrite({ ...outlets, va }))}
          />
        )}
      </Row>
      {outlets && (
        <Checkbox
          label="The outlets have no protective earth"
          checked={outlets.unearthed === true}
          onChange={(event) => void onWrite({ ...outlets, unearthed: event.currentTarget.checked })}
        />
      )}
    </div>
  );
}

function Lines({
  power: { lines = [] },
  onWrite,
}: {
  readonly power: TypePower;
  readonly onWrite: (lines: TypePower['lines']) => string | null;
}) {
  const change = (at: number, changed: Partial<(typeof lines)[number]>) =>
    onWrite(lines.map((line, i) => (i === at ? { ...line, ...changed } : line)));
  return (
    <div className="powerrows">
      {lines.map((line, i) => (
        <Row key={line.id} label={line.label}>
          <InlineField
            look="boxed"
            label={`Wire gauge of ${line.label}`}
            value={String(line.gauge)}
            unit="AWG"
            onCommit={figure(-3, 40, 'AWG', (gauge) =>
              Number.isInteger(gauge) ? change(i, { gauge }) : 'A gauge is a whole number.',
            )}
          />
          <InlineField
            look="boxed"
            label={`Length of ${line.label}`}
            value={String(line.metres)}
            unit="m"
            onCommit={figure(0, 200, 'm', (metres) => change(i, { metres }))}
          />
        </Row>
      ))}
    </div>
  );
}

export const Row = ({ label, children }: { readonly label: string; readonly children: React.ReactNode }) => (
  <div className="powerrow">
    <span className="soft">{label}</span>
    {children}
  </div>
);
