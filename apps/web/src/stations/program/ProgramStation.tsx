import { Button } from '@mantine/core';
import { commands, inOrder } from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { BesideSlots } from './BesideSlots.tsx';
import { Floor } from './Floor.tsx';
import { SelectedSlot } from './SelectedSlot.tsx';
import { Worksheet } from './Worksheet.tsx';

/** Where each sound lives under the foot, what its switch sends, and the sheet to key it all in from. */
export function ProgramStation() {
  const { show, run, wiring, sound, store } = useShow();
  const controllers = inOrder(show.rig.devices).filter((device) => wiring.device.get(device.id)!.anatomy.controller);
  const mine = Object.values(show.rig.slots).find((slot) => slot.sound === sound?.id) ?? null;
  const [chosen, setChosen] = useState<string | null>(null);
  const controller =
    controllers.find((device) => device.id === chosen) ??
    controllers.find((device) => device.id === mine?.controller) ??
    controllers[0];
  const layOut = () => {
    if (!controller)
      return store.refuse('There is no switcher or foot controller to lay the sounds on. Add one on Gear.');
    const command = commands.layOut(show, controller.id);
    if (!command)
      return store.refuse(
        `The sounds do not fit on ${controller.name}: it has too few banks for one switch a role. Take some sounds out of their roles, or raise its banks.`,
      );
    run(command);
  };
  return (
    <>
      <StationHead name="Program" question="Where does each sound live, and what is sent?">
        {controllers.length > 1 && (
          <select
            className="cellinput"
            style={{ width: 'auto' }}
            aria-label="Controller"
            value={controller?.id}
            onChange={(event) => setChosen(event.target.value)}
          >
            {controllers.map((device) => (
              <option key={device.id} value={device.id}>
                {device.name}
              </option>
            ))}
          </select>
        )}
        <Button variant="default" onClick={layOut}>
          Lay out by role
        </Button>
      </StationHead>
      {!controller && (
        <p className="sheet soft" style={{ padding: 14, margin: 0 }}>
          Nothing here can be stood on yet. Add a loop switcher or a foot controller on <b>Gear</b>; the sounds are then
          laid under its switches.
        </p>
      )}
      {controller && <Floor controller={controller} slot={mine} />}
      {mine ? (
        <SelectedSlot slot={mine} />
      ) : (
        sound && (
          <p className="soft" style={{ padding: '0 2px' }}>
            {sound.name} has no slot yet: lay the sounds out.
          </p>
        )
      )}
      {controller && <BesideSlots controller={controller} />}
      {wiring.devices.length > 0 && <Worksheet />}
    </>
  );
}
