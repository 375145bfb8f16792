import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { AddDevice } from '../gear/AddDevice.tsx';
import { DeviceStrip } from './DeviceStrip.tsx';
import { PatchTable } from './PatchTable.tsx';
import { SignalDiagram } from './SignalDiagram.tsx';

/** What happens to the signal in the selected sound; under it what is plugged into what. */
export function RoutingStation() {
  const { show } = useShow();
  const [pass, setPass] = useState(0);
  const [controls, setControls] = useState(false);
  const isEmpty = Object.keys(show.rig.devices).length === 0;
  return (
    <>
      <StationHead name="Routing" question="What happens to the signal in this sound?">
        <label style={{ fontSize: 12 }}>
          <input type="checkbox" checked={controls} onChange={(event) => setControls(event.target.checked)} /> MIDI and
          contacts
        </label>
      </StationHead>
      {isEmpty ? <Beginning /> : <SignalDiagram selected={pass} onSelect={setPass} controls={controls} />}
      <div className="sectionhead">
        <h2>Devices</h2>
        <span className="soft">{Object.keys(show.rig.devices).length}</span>
      </div>
      <AddDevice />
      <DeviceStrip />
      <PatchTable />
    </>
  );
}

function Beginning() {
  return (
    <div className="sheet" style={{ padding: '18px 16px' }}>
      <h2>An empty rig</h2>
      <p className="soft" style={{ margin: '6px 0 0', maxWidth: 560 }}>
        Type what you have in the line below: <i>guitar</i>, <i>switcher</i>, <i>drive</i>, <i>valve amp</i>,{' '}
        <i>cabinet</i>. Then say what plugs into what, one cable a line:{' '}
        <span className="mono">guitar &gt; switcher</span>. The run draws itself.
      </p>
    </div>
  );
}
