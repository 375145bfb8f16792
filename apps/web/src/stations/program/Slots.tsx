import { Button, TextInput } from '@mantine/core';
import { type Action, commands, inOrder, listSlot, readActionLine, type Slot } from '@yunta/core';
import { useEffect, useMemo, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { LineForm } from '../../ui/LineForm.tsx';

/** The switches of the bank in hand as they lie under the foot; the slot in hand with what it sends. */
export function Slots() {
  const { show, wiring, sound, takeSound } = useShow();
  const slots = Object.values(show.rig.slots);
  const mine = slots.find((slot) => slot.sound === sound?.id);
  const controllers = inOrder(show.rig.devices).filter((device) => wiring.device.get(device.id)!.anatomy.controller);
  const controller = controllers.find((device) => device.id === mine?.controller) ?? controllers[0];
  const [bank, setBank] = useState(mine?.bank ?? 0);
  useEffect(() => {
    if (mine) setBank(mine.bank);
  }, [mine?.id, mine?.bank, mine]);
  if (!controller) return null;
  const facts = wiring.device.get(controller.id)!.anatomy.controller!;
  const banks = Math.max(bank, 0, ...slots.map((slot) => slot.bank)) + 1;
  return (
    <>
      <div className="sectionhead">
        <h2>
          Bank {bank + 1} of {controller.name}, under the foot
        </h2>
        <span className="tools" style={{ display: 'flex', gap: 8 }}>
          <button className="linkish" disabled={bank === 0} onClick={() => setBank(Math.max(0, bank - 1))}>
            Bank down
          </button>
          <button className="linkish" onClick={() => setBank(Math.min(facts.banks - 1, Math.min(bank + 1, banks)))}>
            Bank up
          </button>
        </span>
      </div>
      <div className="sheet">
        <div className="floor">
          {Array.from({ length: facts.positions }, (_, position) => {
            const slot = slots.find((one) => one.controller === controller.id && one.bank === bank && one.position === position);
            const name = slot?.sound ? show.rig.sounds[slot.sound]?.name : undefined;
            return (
              <button key={position} className={`switch${name ? '' : ' empty'}`} aria-pressed={slot !== undefined && slot === mine} title={name} onClick={() => slot?.sound && takeSound(slot.sound)}>
                <span className="visually-hidden">Switch </span>
                <span className="knob">{position + 1}</span>
                <span className="visually-hidden">: </span>
                <span className="tape">{name ?? 'empty'}</span>
              </button>
            );
          })}
        </div>
        {mine ? <SlotInHand slot={mine} /> : sound && <p className="soft" style={{ padding: '0 14px' }}>{sound.name} has no slot yet: lay the sounds out.</p>}
      </div>
    </>
  );
}

const reasons = {
  'not-understood': 'Write: pc 12 ch 3 · cc 102 127 ch 2 · loop 4 in · contact 1 open · wait 20 (numbers as sent).',
  'out-of-range': 'Channels are 1 to 16, programs and values 0 to 127, a wait 60,000 ms at most.',
  'no-loop': 'The switcher has no loop of this number.',
  'no-contact': 'The switcher has no contact of this number.',
} as const;

function SlotInHand({ slot }: { readonly slot: Slot }) {
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
    <div style={{ borderTop: '1px solid var(--line)' }}>
      <div className="sectionhead" style={{ margin: '8px 12px 4px' }}>
        <h3>
          {slot.sound ? show.rig.sounds[slot.sound].name : 'No sound'}, bank {slot.bank + 1}, switch {slot.position + 1}
        </h3>
        <span className="soft">
          {byHand ? 'written by hand' : 'generated from the sound'} · {listed.bytes} bytes, {(listed.microseconds / 1000).toFixed(2)} ms on the wire
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
