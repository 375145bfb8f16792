import { Modal } from '@mantine/core';

const keys: readonly (readonly [string, string])[] = [
  ['Ctrl K', 'commands: any station, sound, device or action by typing'],
  ['Alt 1 – 7', 'the stations, from Overview to Proof'],
  ['[ and ]', 'the sound before, the sound after'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['← →', 'walk the run (Routing), the cells (Sounds)'],
  ['↑ ↓', 'walk the pieces (Gear)'],
  ['↑ ↓', 'the sound above, the sound below (Sounds)'],
  ['Space', 'on, off; the next choice (Sounds)'],
  ['0 – 9', 'type a preset, as its panel shows it; Enter takes it (Sounds)'],
  ['Delete', 'don’t care (Sounds)'],
  ['D', 'copy the sound (Sounds)'],
  ['X', 'mark the sound: an edit goes into all that are marked (Sounds)'],
  ['Alt ↑ ↓', 'move the sound among the others (Sounds)'],
  ['?', 'this list'],
];

export function Shortcuts({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  return (
    <Modal opened={open} onClose={onClose} title="Shortcuts" shadow="none" closeButtonProps={{ 'aria-label': 'Close' }}>
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
