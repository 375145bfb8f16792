import { Button, SegmentedControl } from '@mantine/core';
import { boardsOf, inOrder, setBoard } from '@yunta/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { TakeTypical } from '../entry/TakeTypical.tsx';
import { AtHomePage } from './AtHomePage.tsx';
import { BoardSheet } from './BoardSheet.tsx';
import { BuyPage } from './BuyPage.tsx';
import { CableSheet } from './CableSheet.tsx';
import { PackPage } from './PackPage.tsx';
import './build.css';

const views = [
  { value: 'board', label: 'Board and cables' },
  { value: 'buy', label: 'Buy' },
  { value: 'pack', label: 'Pack' },
  { value: 'home', label: 'At home' },
] as const;

/** The board to scale and the cables that run on it; what is bought, packed, and what can stay at home. */
export function BuildStation() {
  const [params, setParams] = useSearchParams();
  const view = views.find(({ value }) => value === params.get('view'))?.value ?? 'board';
  const { show, run } = useShow();
  const boards = boardsOf(show.rig);
  const [chosen, choose] = useState<string | null>(null);
  const board = boards.find(({ place }) => place.id === chosen) ?? boards.at(0);
  const without = inOrder(show.rig.places).filter((place) => !place.board);
  return (
    <>
      <StationHead
        name="Build"
        startAt={['[data-arrange]', '[data-first-board]']}
        question="What stands where, and what do I cut?"
      >
        <SegmentedControl
          aria-label="What of the build"
          size="xs"
          value={view}
          data={views.map(({ value, label }) => ({ value, label }))}
          onChange={(next) => setParams(next === 'board' ? {} : { view: next })}
        />
        <TakeTypical />
        {view === 'board' && boards.length > 1 && (
          <CellSelect
            bordered
            label="Board shown"
            value={board!.place.id}
            choices={boards.map(({ place }) => ({ value: place.id, label: place.name }))}
            onPick={choose}
          />
        )}
        {view === 'board' && without.length > 0 && (
          <CellSelect
            bordered
            label="Give a place a board"
            value=""
            placeholder="A board for …"
            choices={without.map(({ id, name }) => ({ value: id, label: name }))}
            onPick={(id) => {
              if (run(setBoard(show, id, { width: 800, depth: 400 }))) choose(id);
            }}
          />
        )}
      </StationHead>
      {view === 'buy' && <BuyPage />}
      {view === 'pack' && <PackPage />}
      {view === 'home' && <AtHomePage />}
      {view !== 'board' ? null : board ? (
        <BoardSheet key={board.place.id} board={board} />
      ) : (
        <div className="sheet" style={{ padding: '12px 14px' }}>
          <p style={{ margin: '0 0 8px' }}>
            No place has a board yet. Give the place that the pedals stand at one, with its size; pieces have typical
            outlines until you measure them.
          </p>
          {without.slice(0, 1).map(({ id, name }) => (
            <Button key={id} data-first-board onClick={() => run(setBoard(show, id, { width: 800, depth: 400 }))}>
              A board for {name}, 800 by 400 mm
            </Button>
          ))}
        </div>
      )}
      {view === 'board' && <CableSheet />}
    </>
  );
}
