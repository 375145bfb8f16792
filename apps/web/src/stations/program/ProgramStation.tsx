import { Button, TextInput } from '@mantine/core';
import { commands, inOrder } from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { LineForm } from '../../ui/LineForm.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { freshId } from '../../ui/ids.ts';
import { CellStory } from './CellStory.tsx';
import { type Cell, Matrix } from './Matrix.tsx';
import { Slots } from './Slots.tsx';
import { SongsTable } from './SongsTable.tsx';

/** What each sound asks for, where it lives under the foot, and what its switch sends. */
export function ProgramStation() {
  const { show, run, sound, takeSound, store } = useShow();
  const [cell, setCell] = useState<Cell>({ row: 0, column: 0 });
  const [name, setName] = useState('');
  const controllers = inOrder(show.rig.devices).filter((device) => ['loop-switcher', 'midi-controller', 'declared'].includes(device.type.archetype));
  const add = () => {
    const wanted = name.trim();
    if (wanted === '') return;
    const id = freshId(wanted, show.rig.sounds, 'sound');
    if (!run(commands.addSound(show, id, wanted))) return;
    takeSound(id);
    setName('');
  };
  const layOut = () => {
    const [controller] = controllers;
    if (!controller) return store.refuse('There is no switcher or foot controller to lay the sounds on. Add one on Routing.');
    const command = commands.layOut(show, controller.id);
    if (!command) return store.refuse(`The sounds do not fit on ${controller.name}: it has too few banks for one switch a role. Take some sounds out of their roles, or raise its banks.`);
    run(command);
  };
  return (
    <>
      <StationHead name="Sounds + Program" question="What should be on, where does it live, what is sent?">
        <Button variant="default" onClick={layOut}>
          Lay out by role
        </Button>
      </StationHead>
      <div className="sheet">
        <LineForm does="Add sound" onAdd={add}>
          <TextInput className="grow" aria-label="Add a sound" placeholder={sound ? 'Add a sound: Harbour Light, verse' : 'The first sound: Harbour Light, verse'} value={name} onChange={(event) => setName(event.target.value)} maxLength={200} />
        </LineForm>
        <Matrix cell={cell} onTake={setCell} />
        {!sound && (
          <p className="soft" style={{ padding: '4px 12px' }}>
            No sounds yet. A sound says what is on, on which channel and on which preset; the programming is worked out from it.
          </p>
        )}
      </div>
      {sound && (
        <p className="keys">
          <span>
            <kbd>←↑↓→</kbd> move
          </span>
          <span>
            <kbd>space</kbd> on, off, next
          </span>
          <span>
            <kbd>0–9</kbd> a preset as the panel shows it
          </span>
          <span>
            <kbd>Delete</kbd> does not care
          </span>
          <span>
            <kbd>D</kbd> copy the sound
          </span>
          <span>
            <span style={{ display: 'inline-block', width: 14, borderTop: '2px solid var(--differs)', verticalAlign: 4 }} /> differs from the row above
          </span>
        </p>
      )}
      {sound && <CellStory cell={cell} />}
      <Slots />
      <SongsTable />
    </>
  );
}
