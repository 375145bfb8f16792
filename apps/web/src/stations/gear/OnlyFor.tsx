import { MultiSelect } from '@mantine/core';
import { commands, type Device, type WiredDevice } from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { Fold } from '../../ui/Fold.tsx';

/** For whom alone a piece, or one of its controls, is meant: a room for the ears, a level of one's own. */
export function OnlyFor({ wired: { device, anatomy } }: { readonly wired: WiredDevice }) {
  const { show, run, wiring } = useShow();
  const ends = wiring.devices.filter((other) => other.anatomy.destination !== undefined);
  if (ends.length < 2 || anatomy.source !== undefined || anatomy.destination !== undefined) return null;
  const promises = device.onlyFor ?? [];
  const set = (control: string | undefined, to: readonly string[]) => {
    const others = promises.filter((promise) => promise.control !== control);
    const next: NonNullable<Device['onlyFor']> =
      to.length === 0 ? others : [...others, { to: to as never, ...(control === undefined ? {} : { control }) }];
    run(commands.setDevice(show, device.id, 'onlyFor', next.length === 0 ? undefined : next));
  };
  const rows = [
    { control: undefined, label: 'All that it does' },
    ...anatomy.controls.map(({ id, label }) => ({ control: id, label })),
  ];
  return (
    <Fold title="Meant for one end alone" open={promises.length > 0}>
      <div style={{ display: 'grid', gap: 6, marginTop: 6 }}>
        {rows.map(({ control, label }) => (
          <MultiSelect
            key={control ?? ''}
            size="xs"
            label={label}
            placeholder="heard at every end"
            data={ends.map((end) => ({ value: end.device.id, label: end.device.name }))}
            value={[...(promises.find((promise) => promise.control === control)?.to ?? [])]}
            onChange={(to) => set(control, to)}
          />
        ))}
      </div>
    </Fold>
  );
}
