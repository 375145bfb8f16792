import { Modal } from '@mantine/core';

const keys: readonly (readonly [string, string])[] = [
  ['[ and ]', 'the sound before, the sound after'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['← →', 'walk the run (Routing), the cells (Sounds)'],
  ['↑ ↓', 'the sound above, the sound below (Sounds)'],
  ['Space', 'on, off; the next choice (Sounds)'],
  ['0 – 9', 'type a preset, as its panel shows it; Enter takes it (Sounds)'],
  ['Delete', 'the sound no longer cares (Sounds)'],
  ['D', 'copy the sound (Sounds)'],
  ['?', 'this list'],
];

export function Shortcuts({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  return (
    <Modal opened={open} onClose={onClose} title="Keys" shadow="none" closeButtonProps={{ 'aria-label': 'Close' }}>
      <table className="plain">
        <tbody>
          {keys.map(([key, does]) => (
            <tr key={key}>
              <td className="mono">{key}</td>
              <td>{does}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Modal>
  );
}
