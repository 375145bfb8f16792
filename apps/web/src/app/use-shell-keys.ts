import { useHotkeys } from '@mantine/hooks';
import { inOrder } from '@yunta/core';
import { useNavigate, useParams } from 'react-router';
import { useRig } from '../api/rig.tsx';
import { stations } from '../ui/stations.ts';
import type { Panel } from './panel.ts';

/** Undo and redo, the sound before and after, the stations by number, the panels. Read when pressed, not followed. */
export function useShellKeys({
  onPanel,
  onFindings,
}: {
  readonly onPanel: (panel: Panel) => void;
  readonly onFindings: () => void;
}): void {
  const { id = '' } = useParams();
  const go = useNavigate();
  const rig = useRig();
  const step = (by: 1 | -1) => {
    const { show, sound, selectSound } = rig.get();
    const sounds = inOrder(show.rig.sounds);
    const at = sounds.findIndex((each) => each.id === sound?.id);
    const next = sounds[(at + by + sounds.length) % sounds.length];
    if (next) selectSound(next.id);
  };
  const { store } = rig;
  // In a field the browser's own undo is meant.
  useHotkeys([
    ['mod+Z', () => store.undo()],
    ['mod+shift+Z', () => store.redo()],
    ['mod+Y', () => store.redo()],
    ['[', () => step(-1)],
    [']', () => step(1)],
    ['?', () => onPanel('keys')],
    ['shift+?', () => onPanel('keys')],
  ]);
  useHotkeys(
    [
      ['mod+K', () => onPanel('commands')],
      ['alt+0', onFindings],
      ...stations.map(({ to }, i): [string, () => void] => [`alt+${i + 1}`, () => void go(`/rig/${id}/${to}`)]),
    ],
    [],
  );
}
