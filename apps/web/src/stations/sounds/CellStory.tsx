import { Checkbox } from '@mantine/core';
import { inOrder, listSlot, tolerate, why } from '@yunta/core';
import { memo, useDeferredValue, useMemo } from 'react';
import type { OpenShow } from '../../api/open-rig.ts';
import { useShow } from '../../api/rig.tsx';
import { Why } from '../../ui/Why.tsx';
import type { Cell } from './matrix-columns.ts';
import { columnsOf, isTolerated, shownColumns, shownValue, valueIn } from './matrix-columns.ts';

interface CellStoryProps {
  readonly cell: Cell;
  readonly onlyDiffering: boolean;
}

/** The selected cell in words: wanted, sent, on its panel and on the wire. Told once the edit itself stands there. */
export function CellStory({ cell, onlyDiffering }: CellStoryProps) {
  const open = useDeferredValue(useShow());
  return <Story cell={useDeferredValue(cell)} onlyDiffering={onlyDiffering} open={open} />;
}

const Story = memo(function Story({
  cell,
  onlyDiffering,
  open: { show, wiring, run },
}: CellStoryProps & { readonly open: OpenShow }) {
  const columns = useMemo(
    () => shownColumns(columnsOf(wiring), inOrder(show.rig.sounds), onlyDiffering),
    [wiring, show.rig.sounds, onlyDiffering],
  );
  const sound = inOrder(show.rig.sounds)[cell.row];
  const column = columns[cell.column];
  if (!sound || !column) return null;
  const value = valueIn(sound, column);
  const slot = Object.values(show.rig.slots).find((slot) => slot.sound === sound.id);
  const isByFeet = Object.values(show.rig.casting).some((cast) => cast.sound === sound.id);
  const { device, anatomy } = wiring.device.get(column.device)!;
  const sent = slot ? listSlot(wiring, slot).actions.filter((line) => line.about === column.device) : [];
  return (
    <p className="keys" aria-live="polite">
      <b style={{ color: 'var(--ink)' }}>
        {column.name}, {column.note} in {sound.name}:
      </b>
      <span>
        wanted{' '}
        {column.kind === 'pedal'
          ? (value ?? '– (don’t care)')
          : value === undefined
            ? '– (don’t care)'
            : shownValue(column, value)}
      </span>
      {column.kind === 'pedal' && value === 'off' && (
        <Checkbox
          size="xs"
          label="may be heard all the same"
          checked={isTolerated(sound, column)}
          onChange={(event) => run(tolerate(show, sound.id, column.device, event.currentTarget.checked))}
        />
      )}
      {column.kind === 'preset' && value !== undefined && (
        <span>
          panel <Why evidence={why.presetOnPanel(device, Number(value))} /> (counts from {device.firstPresetNumber}),
          sent as <Why evidence={why.presetOnWire(device, anatomy.presets!, Number(value))} />
        </span>
      )}
      {column.kind === 'control' && column.byHand ? (
        <span>set by hand: on the cue sheet, never sent</span>
      ) : (
        <span>
          {slot
            ? sent.length > 0
              ? `its slot sends: ${sent.map((line) => line.hex || line.words.toLowerCase()).join(', ')}`
              : 'its slot sends nothing to it'
            : isByFeet
              ? 'no slot: feet and hands set it, as Set says'
              : 'it has no slot yet'}
        </span>
      )}
    </p>
  );
});
