import { Button, TextInput } from '@mantine/core';
import { commands, type Device, presetColumns } from '@yunta/core';
import { useMemo, useState } from 'react';
import { useShow } from '../../../api/rig.tsx';
import { LineForm } from '../../../ui/LineForm.tsx';
import { StationHead } from '../../../ui/StationHead.tsx';
import { numbersTyped, type PresetRow } from './preset-cells.ts';
import { PresetGrid } from './PresetGrid.tsx';

/** What one device stores, preset by preset: entered once, so that the line and the proof know it. */
export function PresetsPage({ device, onClose }: { readonly device: Device; readonly onClose: () => void }) {
  const { show, attempt, wiring } = useShow();
  const { anatomy } = wiring.device.get(device.id)!;
  const columns = useMemo(() => presetColumns(anatomy), [anatomy]);
  const rows = useMemo(
    () =>
      Object.entries(device.presets)
        .map(([number, preset]): PresetRow => ({ number: Number(number), preset }))
        .sort((a, b) => a.number - b.number),
    [device.presets],
  );
  const wanted = Object.values(show.rig.sounds).flatMap((sound) => {
    const number = sound.wants[`${device.id}/preset`];
    return typeof number === 'number' && !(String(number) in device.presets) ? [number] : [];
  });
  const missing = [...new Set(wanted)].sort((a, b) => a - b);
  const [typed, setTyped] = useState('');
  const [reason, setReason] = useState<string | null>(null);
  const addNumbers = (numbers: readonly number[]) =>
    attempt(
      commands.setPresets(
        show,
        device.id,
        numbers
          .filter((number) => !(String(number) in device.presets))
          .map((number) => [number, { values: {} }] as const),
      ),
    );
  const add = () => {
    const numbers = numbersTyped(typed, device.firstPresetNumber);
    const refused = typeof numbers === 'string' ? numbers : addNumbers(numbers);
    setReason(refused);
    if (refused === null) setTyped('');
  };
  return (
    <>
      <StationHead
        name={`Presets of ${device.name}`}
        startAt={['[data-at][tabindex="0"]', '[aria-label="Add presets"]']}
        question="What does each of them hold, as far as anybody knows?"
      >
        <span className="soft num">{rows.length} entered</span>
        <Button variant="default" onClick={onClose}>
          Back to the gear
        </Button>
      </StationHead>
      <div className="sheet">
        <LineForm does="Add presets" onAdd={add}>
          <TextInput
            className="grow"
            aria-label="Add presets"
            placeholder={`Preset numbers as the panel shows them: ${device.firstPresetNumber + 11}, or ${device.firstPresetNumber}–${device.firstPresetNumber + 19}`}
            error={reason}
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
          />
        </LineForm>
        {missing.length > 0 && (
          <p className="addline" style={{ margin: 0, alignItems: 'baseline' }}>
            <span>
              Sounds want {missing.length === 1 ? 'a preset that is' : `${missing.length} presets that are`} not
              entered: <b className="num">{missing.map((number) => number + device.firstPresetNumber).join(', ')}</b>
            </span>
            <Button variant="default" size="compact-xs" onClick={() => setReason(addNumbers(missing))}>
              Enter {missing.length === 1 ? 'it' : 'them'}
            </Button>
          </p>
        )}
        {rows.length > 0 && <PresetGrid device={device} rows={rows} columns={columns} />}
      </div>
    </>
  );
}
