import { Button, Checkbox } from '@mantine/core';
import {
  arrangeProblemOf,
  type Board,
  boardFigures,
  type BoardOf,
  type CannotFit,
  costOfArrangement,
  inOrder,
  placePieces,
  setBoard,
  standing,
  why,
} from '@yunta/core';
import { useMemo, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { Fold } from '../../ui/Fold.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { wholeNumber } from '../../ui/numbers.ts';
import { Why } from '../../ui/Why.tsx';
import { BoardPicture } from './BoardPicture.tsx';
import { PieceList } from './PieceList.tsx';
import { tiersTyped, tiersWords } from './tiers-typed.ts';
import { type Arranging, useArranged } from './use-arranged.ts';

const times = [
  { value: '2000', label: 'for 2 s' },
  { value: '10000', label: 'for 10 s' },
  { value: '30000', label: 'for 30 s' },
];

/** One board: what stands on it, to scale, and what arranging it would bring. */
export function BoardSheet({ board }: { readonly board: BoardOf }) {
  const { show } = useShow();
  const problem = useMemo(() => arrangeProblemOf(show, board), [show, board]);
  const solver = useArranged(problem);
  const [seed, setSeed] = useState(1);
  const [time, setTime] = useState('2000');
  const { stand, wrong } = boardFigures(board);
  return (
    <section aria-label={board.place.name}>
      <div className="sectionhead">
        <h2>{board.place.name}</h2>
        <span className="soft">
          {stand} of {board.pieces.length} pieces stand on it
          {wrong > 0 ? `, ${wrong} not as they can` : ''}; <Why evidence={why.boardWeight(board)} />;{' '}
          <Why evidence={why.boardArea(board)} /> of its area
        </span>
        <span className="tools buildtools">
          <label className="buildseed">
            <span className="soft">seed</span>
            <InlineField
              look="boxed"
              label="Seed of the search"
              value={String(seed)}
              maxLength={6}
              onCommit={(typed) => {
                const next = wholeNumber(typed, 1, 999_999);
                if (next === undefined) return `“${typed}” is no seed: write 1 to 999999.`;
                setSeed(next);
                return null;
              }}
            />
          </label>
          <CellSelect bordered label="How long to look" value={time} choices={times} onPick={setTime} />
          <Button data-arrange disabled={board.pieces.length === 0} onClick={() => solver.begin(seed, Number(time))}>
            Arrange
          </Button>
        </span>
      </div>
      {solver.arranging && (
        <ArrangedSheet board={board} arranging={solver.arranging} onStop={solver.stop} onClose={solver.close} />
      )}
      <div className="sheet buildboard">
        <BoardPicture board={board} />
      </div>
      <p className="keys">
        <span>
          <kbd>← ↑ ↓ →</kbd> move the piece a millimetre, with <kbd>Shift</kbd> ten
        </span>
        <span>
          <kbd>R</kbd> turn it
        </span>
        <span>
          <kbd>H</kbd> hold it
        </span>
      </p>
      <BoardFacts board={board} />
      <PieceList board={board} />
    </section>
  );
}

function cannotWords(board: BoardOf, cannot: CannotFit): string {
  const name = (i: number): string => board.pieces[i].device.name;
  switch (cannot.by) {
    case 'width':
    case 'depth':
      return `${name(cannot.piece)} with its plugs is ${cannot.by === 'width' ? 'wider' : 'deeper'} than the board.`;
    case 'height':
      return `${name(cannot.piece)} is taller than what is free above the board.`;
    case 'area':
      return 'The pieces have more area than the board.';
    case 'rows':
      return `${cannot.pieces.map(name).join(', ')} are deeper than half the board, and wider than it side by side.`;
    case 'columns':
      return `${cannot.pieces.map(name).join(', ')} are wider than half the board, and deeper than it one behind the other.`;
  }
}

function ArrangedSheet({
  board,
  arranging,
  onStop,
  onClose,
}: {
  readonly board: BoardOf;
  readonly arranging: Arranging;
  readonly onStop: () => void;
  readonly onClose: () => void;
}) {
  const { show, run } = useShow();
  if (arranging.is === 'refused')
    return (
      <p className="sheet buildanswer" role="status">
        {arranging.why} <LinkButton onClick={onClose}>Close</LinkButton>
      </p>
    );
  if (arranging.is === 'working')
    return (
      <p className="sheet buildanswer" role="status">
        Looking where each piece stands best …{' '}
        <span className="soft">
          {arranging.progress?.cost ? costWords(arranging.progress.cost) : 'nothing stands yet'}
        </span>{' '}
        <LinkButton onClick={onStop}>Stop looking</LinkButton>
      </p>
    );
  const { answer } = arranging;
  if (!answer.best)
    return (
      <p className="sheet buildanswer" role="status">
        {answer.cannot ? (
          <>
            <b>It cannot fit.</b> {cannotWords(board, answer.cannot)}
          </>
        ) : answer.isProved ? (
          <b>It cannot fit: every position was looked into.</b>
        ) : (
          <>
            <b>Nothing was found in the time.</b> That it cannot fit is not proved: look longer, try another seed, or
            let something go that is held.
          </>
        )}{' '}
        <LinkButton onClick={onClose}>Close</LinkButton>
      </p>
    );
  const command = placePieces(board, answer.best);
  const problem = arrangeProblemOf(show, board);
  const today =
    standing(board).length === board.pieces.length
      ? costOfArrangement(
          problem,
          board.pieces.map(({ spot }) => spot!),
        )
      : null;
  return (
    <div className="sheet buildanswer">
      <p role="status">
        <b>Every piece finds its place:</b> <Why evidence={why.arrangedWalk(answer.cost!)} /> of foot in the set,{' '}
        <Why evidence={why.arrangedCable(answer.cost!)} /> of cable from jack to jack.
        {today ? <span className="soft"> Now: {costWords(today)}</span> : null}{' '}
        <span className="soft">
          {answer.isProved
            ? 'Nothing is better.'
            : `The best of ${answer.tries} tries; more time may find a better one.`}
        </span>
      </p>
      <p>
        {command ? (
          <Button size="compact-sm" onClick={() => run(command)}>
            Put it so
          </Button>
        ) : (
          <span className="soft">It stands so.</span>
        )}{' '}
        <LinkButton onClick={onClose}>Close</LinkButton>
      </p>
    </div>
  );
}

const costWords = ({ walk, cable }: { readonly walk: number; readonly cable: number }): string =>
  `${(walk / 1000).toFixed(1)} m of foot in the set, ${(cable / 1000).toFixed(2)} m of cable from jack to jack.`;

/** Size, surface, tiers, and what else stands on it. */
function BoardFacts({ board: { place, board, pieces } }: { readonly board: BoardOf }) {
  const { show, attempt, run } = useShow();
  const write = (change: Partial<Board>) => {
    const all = Object.entries({ ...board, ...change }).filter(
      ([, value]) => value !== undefined && !(Array.isArray(value) && value.length === 0),
    );
    return setBoard(show, place.id, Object.fromEntries(all) as unknown as Board);
  };
  const millimetres = (field: 'width' | 'depth') => (typed: string) => {
    const mm = wholeNumber(typed, 50, 5_000);
    return mm === undefined ? `“${typed}” is no size: write 50 to 5000 mm.` : attempt(write({ [field]: mm }));
  };
  const others = inOrder(show.rig.places).filter((other) => other.id !== place.id && !other.board);
  return (
    <Fold title={`The board: ${board.width} by ${board.depth} mm`} open={pieces.length === 0}>
      <div className="buildfacts">
        <label>
          <span className="soft">wide</span>
          <InlineField
            look="boxed"
            label="Width of the board"
            value={String(board.width)}
            unit="mm"
            onCommit={millimetres('width')}
          />
        </label>
        <label>
          <span className="soft">deep</span>
          <InlineField
            look="boxed"
            label="Depth of the board"
            value={String(board.depth)}
            unit="mm"
            onCommit={millimetres('depth')}
          />
        </label>
        <label>
          <span className="soft">weighs</span>
          <InlineField
            look="boxed"
            label="Weight of the board"
            value={board.grams === undefined ? '' : String(board.grams)}
            unit="g"
            placeholder="—"
            onCommit={(typed) => {
              if (typed === '') return attempt(write({ grams: undefined }));
              const grams = wholeNumber(typed, 0, 100_000);
              return grams === undefined ? `“${typed}” is no weight: write 0 to 100000 g.` : attempt(write({ grams }));
            }}
          />
        </label>
        <span>
          <span className="soft">surface</span>{' '}
          <CellSelect
            bordered
            label="Surface of the board"
            value={board.surface ?? 'flat'}
            choices={[
              { value: 'flat', label: 'flat' },
              { value: 'rails', label: 'rails' },
              { value: 'holes', label: 'a grid of holes' },
            ]}
            onPick={(surface) => run(write({ surface: surface as NonNullable<Board['surface']> }))}
          />
        </span>
        {board.surface === 'holes' && (
          <label>
            <span className="soft">from hole to hole</span>
            <InlineField
              look="boxed"
              label="Pitch of the holes"
              value={String(board.pitch ?? 25)}
              unit="mm"
              onCommit={(typed) => {
                const pitch = wholeNumber(typed, 1, 200);
                return pitch === undefined ? `“${typed}” is no pitch: write 1 to 200 mm.` : attempt(write({ pitch }));
              }}
            />
          </label>
        )}
        <label className="buildtiers">
          <span className="soft">what lies over it</span>
          <InlineField
            look="boxed"
            label="Tiers over the board"
            value={tiersWords(board.tiers ?? [])}
            placeholder="nothing; or 250–400: 60"
            onCommit={(typed) => {
              const tiers = tiersTyped(typed);
              return tiers
                ? attempt(write({ tiers }))
                : `“${typed}” is not understood: write from–to: free height, 250–400: 60, in mm from the front.`;
            }}
          />
        </label>
        {others.length > 0 && (
          <span role="group" aria-label="What else stands on it" className="buildalso">
            <span className="soft">also stands on it:</span>
            {others.map(({ id, name }) => (
              <Checkbox
                key={id}
                label={name}
                checked={board.also?.includes(id) ?? false}
                onChange={(event) =>
                  run(
                    write({
                      also: event.currentTarget.checked
                        ? [...(board.also ?? []), id]
                        : (board.also ?? []).filter((other) => other !== id),
                    }),
                  )
                }
              />
            ))}
          </span>
        )}
        <LinkButton onClick={() => run(setBoard(show, place.id, undefined))}>Remove the board</LinkButton>
      </div>
    </Fold>
  );
}
