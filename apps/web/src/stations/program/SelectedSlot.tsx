import { Button } from '@mantine/core';
import {
  type Action,
  commands,
  displayName,
  type ListedAction,
  listSlot,
  type Slot,
  slotLabel,
  slotsOfController,
  why,
} from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { Fold } from '../../ui/Fold.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { Why } from '../../ui/Why.tsx';
import { ActionForm } from './ActionForm.tsx';
import styles from './program.module.css';

/** What the selected slot does, line by line: what is sent first, then loops; loops with nothing in them are folded. */
export function SelectedSlot({ slot }: { readonly slot: Slot }) {
  const { show, wiring, run } = useShow();
  const byHand = slot.actions !== null;
  const listed = useMemo(() => listSlot(wiring, slot, byHand), [wiring, slot, byHand]);
  const set = (actions: readonly Action[] | null) => run(commands.setSlotActions(show, slot.id, actions));
  const lines = listed.actions.map((action, index) => ({ action, index }));
  const unused = byHand ? [] : lines.filter(({ action }) => isUnused(action));
  const row = ({ action, index }: (typeof lines)[number]) => (
    <tr key={index}>
      <td>
        {action.words}
        {action.hex !== '' && <div className="mono soft">{action.hex}</div>}
      </td>
      <td className="soft">{action.why}</td>
      {byHand && (
        <td>
          <LinkButton
            aria-label={`Remove: ${action.words}`}
            onClick={() => set(slot.actions!.filter((_, n) => n !== index))}
          >
            ×
          </LinkButton>
        </td>
      )}
    </tr>
  );
  return (
    <section className={`sheet ${styles.slot}`} aria-label="Selected slot">
      <header className={styles.slothead}>
        <h2>
          <span className="num">{slotLabel(slot)}</span> {slot.sound ? show.rig.sounds[slot.sound].name : 'no sound'}
        </h2>
        <span className="soft" style={{ fontSize: 13 }}>
          {byHand ? 'written by hand' : 'generated from the sound'} · <Why evidence={why.bytesSent(listed)} />,{' '}
          <Why evidence={why.wireTime(listed)} /> to send
        </span>
        <DisplayName slot={slot} />
        {byHand && <CopyOf slot={slot} />}
        <div style={{ display: 'flex', gap: 10, marginTop: 6 }}>
          {byHand ? (
            <Button variant="default" size="compact-xs" onClick={() => set(null)}>
              Generate from the sound
            </Button>
          ) : (
            <Button
              variant="default"
              size="compact-xs"
              onClick={() => set(listSlot(wiring, slot, true).actions.map(({ action }) => action))}
            >
              Write by hand
            </Button>
          )}
          <LinkButton onClick={() => run(commands.removeSlot(show, slot.id))}>Clear this switch</LinkButton>
        </div>
      </header>
      <DataTable label={`What ${slotLabel(slot)} does`}>
        <tbody>
          {lines.filter((line) => !unused.includes(line)).map(row)}
          {listed.actions.length === 0 && (
            <tr>
              <td className="soft">Sends nothing.</td>
            </tr>
          )}
        </tbody>
      </DataTable>
      {unused.length > 0 && (
        <Fold title={`${unused.length} unused ${unused.length === 1 ? 'loop' : 'loops'} off`}>
          <DataTable label="Unused loops">
            <tbody>{unused.map(row)}</tbody>
          </DataTable>
        </Fold>
      )}
      {byHand && (
        <ActionForm
          label="Add an action"
          controller={wiring.device.get(slot.controller)!}
          of="slot"
          onAdd={(action) => set([...slot.actions!, action])}
        />
      )}
    </section>
  );
}

/** The slot that this one, written by hand, is to do the same as. */
function CopyOf({ slot }: { readonly slot: Slot }) {
  const { show, wiring, run } = useShow();
  const others = slotsOfController(show.rig, slot.controller).filter(({ id }) => id !== slot.id);
  const name = (other: Slot) =>
    `${slotLabel(other)} ${other.sound === null ? '' : (show.rig.sounds[other.sound]?.name ?? '')}`.trim();
  const pick = (id: string) => {
    const base = others.find((other) => other.id === id);
    const of = base && { slot: base.id, actions: listSlot(wiring, base, true).actions.map(({ action }) => action) };
    run(commands.copySlot(show, slot.id, of));
  };
  return (
    <div style={{ display: 'flex', gap: 6, alignItems: 'baseline', fontSize: 13 }}>
      <span className="soft">copy of</span>
      <CellSelect
        bordered
        label={`${slotLabel(slot)} is a copy of`}
        value={others.some(({ id }) => id === slot.copyOf) ? slot.copyOf! : ''}
        choices={[
          { value: '', label: 'none' },
          ...others.map((other) => ({ value: other.id as string, label: name(other) })),
        ]}
        onPick={pick}
      />
    </div>
  );
}

/** What the unit’s display is to show for it, where it has one: the sound’s name in short unless one says otherwise. */
function DisplayName({ slot }: { readonly slot: Slot }) {
  const { show, wiring, attempt } = useShow();
  const length = wiring.device.get(slot.controller)?.anatomy.controller?.nameLength;
  if (length === undefined) return null;
  const { name: _, ...unnamed } = slot;
  return (
    <div style={{ display: 'flex', gap: 6, alignItems: 'baseline', fontSize: 13 }}>
      <span className="soft">on its display</span>
      <InlineField
        look="mono"
        label={`Name of ${slotLabel(slot)} on the display`}
        value={slot.name ?? ''}
        placeholder={displayName(show.rig, unnamed, length) ?? 'nothing'}
        maxLength={40}
        onCommit={(text) =>
          text.length > length
            ? `The display shows ${length} characters; this is ${text.length}.`
            : attempt(commands.setSlotName(show, slot.id, text))
        }
      />
    </div>
  );
}

/** A loop with nothing in it, off: it is written so that nothing is left to chance, and nobody need read it. */
const isUnused = ({ action, about }: ListedAction): boolean =>
  action.kind === 'set' && action.value === 0 && about === null;
