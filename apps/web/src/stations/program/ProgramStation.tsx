import { Button, Tabs } from '@mantine/core';
import { type Device, inOrder, type Show } from '@yunta/core';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { BesideSlots } from './BesideSlots.tsx';
import { LayoutComparison } from './LayoutComparison.tsx';
import { type LayoutKind, propose } from './layouts.ts';
import styles from './program.module.css';
import { SelectedSlot } from './SelectedSlot.tsx';
import { SlotPlan } from './SlotPlan.tsx';
import { TwinBank } from './TwinBank.tsx';
import { Worksheet } from './Worksheet.tsx';
import './worksheet.css';

/** The layout that is shown first: the one that would change something. */
const firstThatMoves = (show: Show, controller: Device): LayoutKind => {
  const role = propose(show, controller, 'role');
  return role.fits && role.moved > 0 ? 'role' : 'song';
};

/** Where each sound lives under the foot, what its switch sends, and the sheet to enter it all from. */
export function ProgramStation() {
  const { show, wiring, sound } = useShow();
  const [params, setParams] = useSearchParams();
  const controllers = inOrder(show.rig.devices).filter((device) => wiring.device.get(device.id)!.anatomy.controller);
  const mine = Object.values(show.rig.slots).find((slot) => slot.sound === sound?.id) ?? null;
  const [chosen, setChosen] = useState<string | null>(null);
  const [layout, setLayout] = useState<LayoutKind | null>(null);
  const controller =
    controllers.find((device) => device.id === chosen) ??
    controllers.find((device) => device.id === mine?.controller) ??
    controllers[0];
  const proposals = useMemo(
    () =>
      controller && layout !== null
        ? { role: propose(show, controller, 'role'), song: propose(show, controller, 'song') }
        : null,
    [show, controller, layout],
  );
  const proposal = proposals && layout !== null ? proposals[layout] : null;
  return (
    <>
      <StationHead
        name="Program"
        startAt={['[role="gridcell"][tabindex="0"]']}
        question="Where does each sound live, and what is sent?"
      >
        {controllers.length > 1 && (
          <CellSelect
            bordered
            label="Controller"
            value={controller?.id ?? ''}
            choices={controllers.map((device) => ({ value: device.id, label: device.name }))}
            onPick={setChosen}
          />
        )}
        {controller && (
          <Button
            variant={layout === null ? 'filled' : 'default'}
            aria-expanded={layout !== null}
            onClick={() => setLayout(layout === null ? firstThatMoves(show, controller) : null)}
          >
            Layouts
          </Button>
        )}
      </StationHead>
      <Tabs
        value={params.get('view') ?? 'plan'}
        onChange={(view) => setParams(view === 'plan' || view === null ? {} : { view }, { replace: true })}
        keepMounted={false}
      >
        <Tabs.List mb="sm">
          <Tabs.Tab value="plan">Under the foot</Tabs.Tab>
          {controller && <Tabs.Tab value="other">Power-up, momentary switches, calls</Tabs.Tab>}
          {wiring.devices.length > 0 && <Tabs.Tab value="worksheet">Worksheet</Tabs.Tab>}
        </Tabs.List>
        <Tabs.Panel value="plan">
          {!controller && (
            <p className="sheet soft" style={{ padding: 14, margin: 0 }}>
              No switcher and no foot controller here: feet and hands bring the sounds up. Say on <b>Set</b> which sound
              plays which part, and what they do is worked out. Add a loop switcher or a foot controller on <b>Gear</b>,
              and the sounds are laid under its switches.
            </p>
          )}
          {controller && proposals && layout !== null && (
            <LayoutComparison
              controller={controller}
              proposals={proposals}
              chosen={layout}
              onChoose={setLayout}
              onClose={() => setLayout(null)}
            />
          )}
          {controller && (
            <div className={styles.columns}>
              <SlotPlan key={controller.id} controller={controller} preview={proposal?.fits ? proposal.show : null} />
              {mine ? (
                <SelectedSlot slot={mine} />
              ) : (
                <p className="sheet soft" style={{ padding: 12, margin: 0 }}>
                  {sound
                    ? `${sound.name} has no switch yet: drag it to one, or lay the sounds out.`
                    : 'No sounds yet: say on Sounds what the rig should make.'}
                </p>
              )}
            </div>
          )}
          {controller && layout === null && <TwinBank key={controller.id} controller={controller} />}
        </Tabs.Panel>
        {controller && (
          <Tabs.Panel value="other">
            <BesideSlots controller={controller} />
          </Tabs.Panel>
        )}
        <Tabs.Panel value="worksheet">
          <Worksheet />
        </Tabs.Panel>
      </Tabs>
    </>
  );
}
