import { Checkbox } from '@mantine/core';
import {
  arrangeProblemOf,
  type BoardOf,
  type BoardSpot,
  type Edge,
  edges,
  freeSpot,
  type PieceOn,
  setSpot,
  touchesOf,
} from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { wholeNumber } from '../../ui/numbers.ts';

const edgeWords = [
  { value: '', label: 'stands on it' },
  ...edges.map((edge) => ({ value: edge as string, label: `${edge} edge` })),
];
const turns = [0, 90, 180, 270].map((turn) => ({ value: String(turn), label: turn === 0 ? 'no' : `${turn}°` }));

/** The pieces of a board with their millimetres; what stands beside it is put on it here. */
export function PieceList({ board }: { readonly board: BoardOf }) {
  const { show } = useShow();
  const touches = useMemo(() => touchesOf(show), [show]);
  const unknown = Object.values(show.rig.devices).filter(
    ({ place, type }) => (place === board.place.id || board.board.also?.includes(place)) && !type.body,
  );
  return (
    <>
      <div className="sheet scroll-x">
        <DataTable className="build">
          <thead>
            <tr>
              <th>Piece</th>
              <th>Wide × deep × high</th>
              <th>From the left</th>
              <th>From the front</th>
              <th>Turned</th>
              <th>Let into</th>
              <th>Held</th>
              <th>Foot in the set</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {board.pieces.map((piece) => (
              <PieceRow key={piece.device.id} board={board} piece={piece} touches={touches.get(piece.device.id) ?? 0} />
            ))}
          </tbody>
        </DataTable>
      </div>
      {unknown.length > 0 && (
        <p className="soft" style={{ fontSize: 13 }}>
          Nobody has said how large {unknown.map(({ name }) => name).join(', ')} {unknown.length === 1 ? 'is' : 'are'}:
          say it in the inspector, under Outline.
        </p>
      )}
    </>
  );
}

function PieceRow({
  board,
  piece,
  touches,
}: {
  readonly board: BoardOf;
  readonly piece: PieceOn;
  readonly touches: number;
}) {
  const { show, run, attempt, device: selected, selectDevice } = useShow();
  const { device, body, spot, turn, edge, isHeld } = piece;
  const spotWith = (change: Partial<BoardSpot>): BoardSpot => ({ x: 0, y: 0, ...device.at, ...change });
  const setMillimetres = (field: 'x' | 'y') => (typed: string) => {
    if (typed === '') return attempt(setSpot(show, device.id, undefined));
    const mm = wholeNumber(typed, -5_000, 5_000);
    return mm === undefined
      ? `“${typed}” is no position: write millimetres, 0 to 5000.`
      : attempt(setSpot(show, device.id, spotWith({ [field]: mm })));
  };
  const put = () => {
    const at = board.pieces.indexOf(piece);
    const found = freeSpot(
      arrangeProblemOf(show, board),
      at,
      board.pieces.map((each) => each.spot),
    );
    run(setSpot(show, device.id, spotWith(found ?? { x: 0, y: board.board.depth })));
  };
  return (
    <tr aria-selected={device.id === selected}>
      <td>
        <LinkButton
          aria-label={`${device.id === selected ? 'Close' : 'Inspect'} ${device.name}`}
          onClick={() => selectDevice(device.id === selected ? null : device.id)}
        >
          {device.name}
        </LinkButton>
      </td>
      <td>
        <span className="num">
          {body.width} × {body.depth} × {body.height}
        </span>{' '}
        <span className="soft">mm</span> {body.from === 'typical' && <span className="typical">typical</span>}
      </td>
      {(['x', 'y'] as const).map((field) => (
        <td key={field}>
          <InlineField
            look="mono"
            label={`${device.name}, mm from the ${field === 'x' ? 'left' : 'front'}`}
            value={spot ? String(spot[field]) : ''}
            placeholder="—"
            onCommit={setMillimetres(field)}
          />
        </td>
      ))}
      <td>
        {spot && (
          <CellSelect
            label={`${device.name} turned`}
            value={String(turn)}
            choices={turns}
            onPick={(picked) => run(setSpot(show, device.id, spotWith({ turn: Number(picked) as 0 })))}
          />
        )}
      </td>
      <td>
        {spot && (
          <CellSelect
            label={`What ${device.name} is let into`}
            value={edge ?? ''}
            choices={edgeWords}
            onPick={(picked) =>
              run(setSpot(show, device.id, spotWith({ edge: picked === '' ? undefined : (picked as Edge) })))
            }
          />
        )}
      </td>
      <td>
        {spot && !edge && (
          <Checkbox
            aria-label={`${device.name} is held on the board`}
            checked={isHeld}
            onChange={(event) =>
              run(setSpot(show, device.id, spotWith({ held: event.currentTarget.checked || undefined })))
            }
          />
        )}
      </td>
      <td className="num">{touches > 0 ? touches : ''}</td>
      <td className="doings">
        {spot ? (
          <LinkButton aria-label={`Take off ${device.name}`} onClick={() => run(setSpot(show, device.id, undefined))}>
            Take off
          </LinkButton>
        ) : (
          <LinkButton aria-label={`Put on ${device.name}`} onClick={put}>
            Put on
          </LinkButton>
        )}
      </td>
    </tr>
  );
}
