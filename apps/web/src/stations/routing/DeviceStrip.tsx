import { UnstyledButton } from '@mantine/core';
import { inOrder } from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../api/rig.tsx';

/** Every device by name; those that the run does not pass in this sound are said to be off it. */
export function DeviceStrip() {
  const { show, tracer, sound, device, selectDevice } = useShow();
  const trace = useMemo(() => tracer.trace(sound), [tracer, sound]);
  const onRun = new Set([
    ...trace.passes.map((pass) => pass.device),
    ...trace.jumpers.flatMap((jumper) => jumper.holds),
  ]);
  const devices = inOrder(show.rig.devices);
  if (devices.length === 0) return null;
  return (
    <div className="sheet" style={{ display: 'flex', flexWrap: 'wrap', gap: '4px 6px', padding: 8, borderTop: 0 }}>
      {devices.map((shown) => (
        <UnstyledButton
          key={shown.id}
          className={onRun.has(shown.id) ? 'tag' : 'tag off'}
          aria-pressed={device === shown.id}
          title={onRun.has(shown.id) ? shown.type.name : `${shown.type.name}: not on the run in this sound`}
          onClick={() => selectDevice(device === shown.id ? null : shown.id)}
        >
          {shown.name}
        </UnstyledButton>
      ))}
    </div>
  );
}
