import { Modal } from '@mantine/core';
import { DataTable } from '../ui/DataTable.tsx';
import { stations } from '../ui/stations.ts';
import { everywhere, onStation, type Shortcut } from './shortcuts.ts';

/** What can be done by keys here, and everywhere. */
export function Shortcuts({
  open,
  station,
  onClose,
}: {
  readonly open: boolean;
  readonly station: string;
  readonly onClose: () => void;
}) {
  const here = onStation[station] ?? [];
  const name = stations.find(({ to }) => to === station)?.name;
  return (
    <Modal opened={open} onClose={onClose} title="Shortcuts" shadow="none" closeButtonProps={{ 'aria-label': 'Close' }}>
      {here.length > 0 && (
        <>
          <h3>On {name}</h3>
          <Keys keys={here} />
          <h3 style={{ marginTop: 14 }}>Everywhere</h3>
        </>
      )}
      <Keys keys={everywhere} />
    </Modal>
  );
}

const Keys = ({ keys }: { readonly keys: readonly Shortcut[] }) => (
  <DataTable>
    <tbody>
      {keys.map(([key, does]) => (
        <tr key={key}>
          <td className="mono" style={{ width: 150 }}>
            {key}
          </td>
          <td>{does}</td>
        </tr>
      ))}
    </tbody>
  </DataTable>
);
