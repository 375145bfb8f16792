import { Button, Checkbox, TextInput } from '@mantine/core';
import { combine, commands, inOrder, type Show, freshId } from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { onPasteLines } from '../../ui/pasted-lines.ts';
import { LineForm } from '../../ui/LineForm.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { BuiltOn } from './BuiltOn.tsx';
import { CellStory } from './CellStory.tsx';
import type { Cell } from './matrix-columns.ts';
import { Matrix } from './Matrix.tsx';
import './matrix.css';

/** What each sound asks for: pieces, presets, channels, and what the hands do. */
export function SoundsStation() {
  const { show, run, sound, selectSound } = useShow();
  const [cell, setCell] = useState<Cell>({ row: 0, column: 0 });
  const [name, setName] = useState('');
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [onlyDiffering, setOnlyDiffering] = useState(false);
  const here = new Set([...marked].filter((id) => Object.hasOwn(show.rig.sounds, id)));
  const add = () => {
    const wanted = name.trim();
    if (wanted === '') return;
    const id = freshId(wanted, show.rig.sounds, 'sound');
    if (!run(commands.addSound(show, id, wanted))) return;
    selectSound(id);
    setName('');
  };
  const addLines = (lines: readonly string[]) => {
    const makes = lines.map(
      (line) => (now: Show) => commands.addSound(now, freshId(line, now.rig.sounds, 'sound'), line.slice(0, 200)),
    );
    run(combine(show, { name: 'add-several', facts: { count: lines.length, what: 'sounds' } }, makes));
  };
  return (
    <>
      <StationHead
        name="Sounds"
        startAt={['[data-cell][tabindex="0"]', '[aria-label="Add a sound"]']}
        question="What is on, where is it set, and what do the hands do?"
      >
        <Checkbox
          size="xs"
          label="only columns that differ"
          checked={onlyDiffering}
          onChange={(event) => setOnlyDiffering(event.currentTarget.checked)}
        />
      </StationHead>
      <div className="sheet">
        <LineForm does="Add sound" onAdd={add}>
          <TextInput
            className="grow"
            aria-label="Add a sound"
            placeholder={sound ? 'Add a sound: Harbour Light, verse' : 'The first sound: Harbour Light, verse'}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
            onPaste={onPasteLines(addLines)}
            maxLength={200}
          />
        </LineForm>
        {here.size > 0 && (
          <div className="addline" role="status" style={{ alignItems: 'center' }}>
            <b>
              {here.size} {here.size === 1 ? 'sound' : 'sounds'} marked:
            </b>
            <span className="soft">an edit in one of them goes into all of them</span>
            <span style={{ flex: 1 }} />
            <Button
              variant="default"
              size="compact-xs"
              onClick={() => setMarked(new Set(inOrder(show.rig.sounds).map((each) => each.id)))}
            >
              Mark all
            </Button>
            <Button variant="default" size="compact-xs" onClick={() => setMarked(new Set())}>
              Clear marks
            </Button>
          </div>
        )}
        <Matrix cell={cell} onCommit={setCell} marked={here} onMark={setMarked} onlyDiffering={onlyDiffering} />
        {!sound && (
          <p className="soft" style={{ padding: '4px 12px' }}>
            No sounds yet. A sound says what is on, on which channel and on which preset; the programming is worked out
            from it.
          </p>
        )}
      </div>
      {sound && <CellStory cell={cell} onlyDiffering={onlyDiffering} />}
      <BuiltOn />
      {sound && (
        <p className="keys">
          <span>
            <kbd>←↑↓→</kbd> move
          </span>
          <span>
            <kbd>space</kbd> on, off, next
          </span>
          <span>
            <kbd>0–9</kbd> a number, as the panel shows it
          </span>
          <span>
            <kbd>Delete</kbd> don’t care
          </span>
          <span>
            <kbd>a–z</kbd> find a sound
          </span>
          <span>
            <kbd>Shift D</kbd> copy it
          </span>
          <span>
            <kbd>Shift B</kbd> build one on it
          </span>
          <span>
            <kbd>Shift X</kbd> mark it
          </span>
          <span>
            <kbd>Shift H</kbd> off, but may be heard
          </span>
          <span>
            <kbd>Alt ↑↓</kbd> move the sound
          </span>
          <span>
            <span
              style={{ display: 'inline-block', width: 14, borderTop: '2px solid var(--differs)', verticalAlign: 4 }}
            />{' '}
            differs from the row above
          </span>
          <span style={{ color: 'var(--hands)' }}>violet: hands</span>
        </p>
      )}
    </>
  );
}
