import { Modal, TextInput } from '@mantine/core';
import { useEffect, useId, useMemo, useState } from 'react';
import { matching, type PaletteEntry } from './palette-entries.ts';
import type { Panel } from './panel.ts';
import { usePaletteEntries } from './use-palette-entries.ts';

interface PaletteProps {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly onPanel: (panel: Panel) => void;
  readonly onFindings: () => void;
  readonly toggleColorScheme: () => void;
}

/** Everything that can be done or gone to, found by typing any of its words. */
export function Palette(props: PaletteProps) {
  const { open, onClose } = props;
  return (
    <Modal
      opened={open}
      onClose={onClose}
      withCloseButton={false}
      padding={0}
      shadow="none"
      size={560}
      yOffset={80}
      title="Commands"
      classNames={{ header: 'visually-hidden' }}
    >
      {open && <Search {...props} />}
    </Modal>
  );
}

function Search({ onClose, ...panels }: PaletteProps) {
  const entries = usePaletteEntries(panels);
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const list = useId();
  const found = useMemo(() => matching(entries, typed).slice(0, 40), [entries, typed]);
  useEffect(() => {
    document.getElementById(`${list}-${at}`)?.scrollIntoView({ block: 'nearest' });
  }, [list, at]);
  const take = (entry: PaletteEntry | undefined) => {
    if (!entry) return;
    onClose();
    entry.act();
  };
  return (
    <div className="palette">
      <TextInput
        size="md"
        variant="unstyled"
        px={12}
        data-autofocus
        role="combobox"
        aria-expanded
        aria-controls={list}
        aria-activedescendant={found[at] ? `${list}-${at}` : undefined}
        aria-label="Command, station, sound, device or field"
        placeholder="Type a station, a sound, a device, a field, or what to do"
        value={typed}
        onChange={(event) => {
          setTyped(event.currentTarget.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setAt(Math.min(found.length - 1, at + 1));
          else if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1));
          else if (event.key === 'Enter') take(found[at]);
          else return;
          event.preventDefault();
        }}
      />
      <ul id={list} role="listbox" aria-label="What was found">
        {found.map((entry, i) => (
          <li
            key={`${entry.kind} ${entry.name}`}
            id={`${list}-${i}`}
            role="option"
            aria-selected={i === at}
            onMouseMove={() => setAt(i)}
            onClick={() => take(entry)}
          >
            <span>{entry.name}</span>
            <small>{entry.kind}</small>
          </li>
        ))}
      </ul>
      {found.length === 0 && (
        <p className="soft" style={{ padding: '0 12px 10px', margin: 0 }} role="status">
          Nothing is called that.
        </p>
      )}
    </div>
  );
}
