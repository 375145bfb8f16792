import { Checkbox } from '@mantine/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { DeviceStrip } from './DeviceStrip.tsx';
import { PatchTable } from './PatchTable.tsx';
import styles from './routing.module.css';
import { SignalDiagram } from './SignalDiagram.tsx';
import './weave.css';

/** What happens to the signal in the selected sound; under it what is plugged into what. */
export function RoutingStation() {
  const { show } = useShow();
  const [pass, setPass] = useState(0);
  const [controls, setControls] = useState(false);
  const isEmpty = Object.keys(show.rig.devices).length === 0;
  return (
    <>
      <StationHead
        name="Routing"
        startAt={['[aria-label="Add a cable"]']}
        question="What happens to the signal in this sound?"
      >
        <Checkbox
          size="xs"
          label="MIDI and contacts"
          checked={controls}
          onChange={(event) => setControls(event.currentTarget.checked)}
        />
      </StationHead>
      <div className={styles.station}>
        <div>
          {isEmpty ? <Beginning /> : <SignalDiagram selected={pass} onSelect={setPass} controls={controls} />}
          <DeviceStrip />
        </div>
        <div className={styles.patch}>
          <PatchTable />
        </div>
      </div>
    </>
  );
}

function Beginning() {
  return (
    <div className="sheet" style={{ padding: '18px 16px' }}>
      <h2>An empty rig</h2>
      <p className="soft" style={{ margin: '6px 0 0', maxWidth: 560 }}>
        Type what you have on <b>Gear</b>: <i>guitar</i>, <i>switcher</i>, <i>drive</i>, <i>valve amp</i>,{' '}
        <i>cabinet</i>. Then say here what plugs into what, one cable a line:{' '}
        <span className="mono">guitar &gt; switcher</span>. The run draws itself.
      </p>
    </div>
  );
}
