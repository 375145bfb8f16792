import { Button } from '@mantine/core';
import { type Action, commands, listSlot, type Slot, slotPlace, why } from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../api/rig.tsx';
import { Why } from '../../ui/Why.tsx';
import { ActionForm } from './ActionForm.tsx';

/** What the selected slot does, line by line: bytes, words, and why each is there. */
export function SelectedSlot({ slot }: { readonly slot: Slot }) {
  const { show, wiring, run } = useShow();
  const listed = useMemo(() => listSlot(wiring, slot), [wiring, slot]);
  const byHand = slot.actions !== null;
  const set = (actions: readonly Action[] | null) => run(commands.setSlotActions(show, slot.id, actions));
  return (
    <div className="sheet" style={{ borderTop: 0 }}>
      <div className="sectionhead" style={{ margin: '0 12px 4px', paddingTop: 8 }}>
        <h3>
          {slot.sound ? show.rig.sounds[slot.sound].name : 'No sound'}, {slotPlace(slot)}
        </h3>
        <span className="soft">
          {byHand ? 'written by hand' : 'generated from the sound'} · <Why evidence={why.bytesSent(listed)} />,{' '}
          <Why evidence={why.wireTime(listed)} /> to send
        </span>
        <span className="tools">
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
        </span>
      </div>
      <table className="plain">
        <thead>
          <tr>
            <th style={{ width: 96 }}>Bytes</th>
            <th>Does</th>
            <th>Why</th>
            {byHand && <th style={{ width: 40 }} />}
          </tr>
        </thead>
        <tbody>
          {listed.actions.map((action, i) => (
            <tr key={i}>
              <td className="mono">{action.hex || <span className="soft">—</span>}</td>
              <td>{action.words}</td>
              <td className="soft">{action.why}</td>
              {byHand && (
                <td>
                  <button
                    className="linkish"
                    aria-label={`Remove: ${action.words}`}
                    onClick={() => set(slot.actions!.filter((_, n) => n !== i))}
                  >
                    ×
                  </button>
                </td>
              )}
            </tr>
          ))}
          {listed.actions.length === 0 && (
            <tr>
              <td colSpan={4} className="soft">
                Sends nothing.
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {byHand && (
        <ActionForm
          label="Add an action"
          controller={wiring.device.get(slot.controller)!}
          of="slot"
          onAdd={(action) => set([...slot.actions!, action])}
        />
      )}
    </div>
  );
}
