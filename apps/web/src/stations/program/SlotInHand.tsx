import { Button, TextInput } from '@mantine/core';
import { type Action, commands, listSlot, readActionLine, type Slot, why } from '@yunta/core';
import { useMemo, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { LineForm } from '../../ui/LineForm.tsx';
import { Why } from '../../ui/Why.tsx';

const reasons = {
  'not-understood': 'Write: pc 12 ch 3 · cc 102 127 ch 2 · loop 4 in · contact 1 open · wait 20 (numbers as sent).',
  'out-of-range': 'Channels are 1 to 16, programs and values 0 to 127, a wait 60,000 ms at most.',
  'no-loop': 'The switcher has no loop of this number.',
  'no-contact': 'The switcher has no contact of this number.',
} as const;

/** What the slot in hand does, line by line: bytes, words, and why each is there. */
export function SlotInHand({ slot }: { readonly slot: Slot }) {
  const { show, wiring, run } = useShow();
  const listed = useMemo(() => listSlot(wiring, slot), [wiring, slot]);
  const [line, setLine] = useState('');
  const [reason, setReason] = useState<string | null>(null);
  const byHand = slot.actions !== null;
  const set = (actions: readonly Action[] | null) => run(commands.setSlotActions(show, slot.id, actions));
  const add = () => {
    const read = readActionLine(wiring.device.get(slot.controller)!, line);
    if (!read.ok) return setReason(reasons[read.reason]);
    set([...(slot.actions ?? []), read.action]);
    setLine('');
    setReason(null);
  };
  return (
    <div className="sheet" style={{ borderTop: 0 }}>
      <div className="sectionhead" style={{ margin: '0 12px 4px', paddingTop: 8 }}>
        <h3>
          {slot.sound ? show.rig.sounds[slot.sound].name : 'No sound'}, bank {slot.bank + 1}, switch {slot.position + 1}
        </h3>
        <span className="soft">
          {byHand ? 'written by hand' : 'generated from the sound'} · <Why evidence={why.bytesSent(listed)} />, <Why evidence={why.wireTime(listed)} />{' '}
          on the wire
        </span>
        <span className="tools">
          {byHand ? (
            <Button variant="default" size="compact-xs" onClick={() => set(null)}>
              Generate from the sound
            </Button>
          ) : (
            <Button variant="default" size="compact-xs" onClick={() => set(listed.actions.map((one) => one.action))}>
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
          {listed.actions.map((one, i) => (
            <tr key={i}>
              <td className="mono">{one.hex || <span className="soft">—</span>}</td>
              <td>{one.words}</td>
              <td className="soft">{one.why}</td>
              {byHand && (
                <td>
                  <button className="linkish" aria-label={`Remove: ${one.words}`} onClick={() => set(slot.actions!.filter((_, n) => n !== i))}>
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
        <LineForm does="Add action" onAdd={add} last>
          <TextInput className="grow" aria-label="Add an action" placeholder="pc 12 ch 3 · cc 102 127 ch 2 · loop 4 in · contact 1 closed · wait 20" value={line} onChange={(event) => setLine(event.target.value)} error={reason ?? undefined} spellCheck={false} autoComplete="off" />
        </LineForm>
      )}
    </div>
  );
}
