import { Button } from '@mantine/core';
import { type Action, commands, type ListedAction, listSlot, type Slot, slotLabel, why } from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../api/rig.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { Fold } from '../../ui/Fold.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { Why } from '../../ui/Why.tsx';
import { ActionForm } from './ActionForm.tsx';
import styles from './program.module.css';

/** What the selected slot does, line by line: what is sent first, then loops; loops with nothing in them are folded. */
export function SelectedSlot({ slot }: { readonly slot: Slot }) {
  const { show, wiring, run } = useShow();
  const listed = useMemo(() => listSlot(wiring, slot), [wiring, slot]);
  const byHand = slot.actions !== null;
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
        <div style={{ display: 'flex', gap: 10, marginTop: 6 }}>
          {byHand ? (
            <Button variant="default" size="compact-xs" onClick={() => set(null)}>
              Generate from the sound
            </Button>
          ) : (
            <Button
              variant="default"
              size="compact-xs"
              onClick={() => set(listed.actions.map((action) => action.action))}
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

/** A loop with nothing in it, off: it is written so that nothing is left to chance, and nobody need read it. */
const isUnused = ({ action, about }: ListedAction): boolean =>
  action.kind === 'set' && action.value === 0 && about === null;
