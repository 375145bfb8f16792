import { Checkbox } from '@mantine/core';
import {
  type Line,
  type LinePiece,
  type PlannedLine,
  plannedPlaceWords,
  switchedByWords,
  switchingMeans,
  wantBefore,
  wantPlace,
  wantSwitchedBy,
  whyThere,
} from '@yunta/core';
import { useShow } from '../../../api/rig.tsx';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { Reorder, useReorderRow } from '../../../ui/Reorder.tsx';
import { placeChoices, placeTyped, placeValue, todayWords } from './place-choices.ts';

interface PieceTableProps {
  readonly line: Line;
  readonly planned: PlannedLine | null;
  readonly selected: string | null;
  readonly onSelect: (id: string | null) => void;
}

/** Each piece in its wanted order: what is wanted of it, and where the plan has it. */
export function PieceTable({ line, planned, selected, onSelect }: PieceTableProps) {
  const { show, run } = useShow();
  const ids = line.pieces.map(({ id }) => id as string);
  return (
    <>
      <div className="sectionhead">
        <h2>Pieces in their wanted order</h2>
        <span className="soft">
          <span className="typical">in italics</span> what was guessed from type and wiring: change what is not so
        </span>
      </div>
      <div className="sheet" style={{ overflowX: 'auto' }}>
        <Reorder ids={ids} onMove={(id, next) => run(wantBefore(show, ids, id, next))}>
          <DataTable
            label="Pieces in their wanted order"
            className="loops"
            columns={[
              { head: '', width: 26 },
              { head: 'Piece' },
              { head: 'Wanted' },
              { head: 'May be switched by' },
              { head: 'Today' },
              { head: 'In the plan' },
              { head: 'Why' },
              { head: '', width: 90 },
            ]}
          >
            {line.pieces.map((piece, i) => (
              <PieceRow
                key={piece.id}
                line={line}
                piece={piece}
                index={i}
                planned={planned}
                selected={selected === piece.id}
                onSelect={onSelect}
              />
            ))}
            {[...(line.wet?.pieces ?? []), ...line.kept].map((piece) => (
              <tr key={piece.id}>
                <td />
                <td>{piece.name}</td>
                <td>
                  <Wanted line={line} piece={piece} />
                </td>
                <td />
                <td className="soft" colSpan={4}>
                  {piece.place === 'wet' ? 'on the wet side, behind what feeds it' : 'stays as it is wired'}
                </td>
              </tr>
            ))}
          </DataTable>
        </Reorder>
      </div>
      <p className="keys">
        <span>
          <kbd>Alt ↑↓</kbd> earlier or later in the line
        </span>
        <span>
          <kbd>Enter</kbd> on a choice opens it
        </span>
      </p>
    </>
  );
}

function PieceRow({
  line,
  piece,
  index,
  planned,
  selected,
  onSelect,
}: Omit<PieceTableProps, 'selected'> & {
  readonly piece: LinePiece;
  readonly index: number;
  readonly selected: boolean;
}) {
  const row = useReorderRow(piece.id, piece.name);
  const where = planned ? plannedPlaceWords(planned, index) : '';
  const how = planned ? switchedByWords(planned, index) : '';
  return (
    <tr ref={row.ref} style={row.style} onKeyDown={row.onKeyDown} aria-selected={selected}>
      <td>{row.grip}</td>
      <td>{piece.name}</td>
      <td>
        <Wanted line={line} piece={piece} />
      </td>
      <td>
        {piece.ampReturn !== null ? (
          <span className="soft">there in every sound</span>
        ) : piece.place === 'kept' ? (
          <span className="soft">stays as it is wired</span>
        ) : (
          <Means piece={piece} />
        )}
      </td>
      <td className="soft nowrap">{todayWords(piece.now)}</td>
      <td className="nowrap">
        <b>{where}</b> <span className="soft">{how}</span>
      </td>
      <td className="soft loopswhy">{planned ? whyThere(planned, index) : ''}</td>
      <td style={{ textAlign: 'right' }}>
        <LinkButton
          aria-pressed={selected}
          aria-label={`${selected ? 'Close where else' : 'Where else for'} ${piece.name}`}
          onClick={() => onSelect(selected ? null : piece.id)}
        >
          {selected ? 'Close' : 'Where else?'}
        </LinkButton>
      </td>
    </tr>
  );
}

/** Where a piece is wanted; a guess says so. */
function Wanted({ line, piece }: { readonly line: Line; readonly piece: LinePiece }) {
  const { show, run } = useShow();
  return (
    <span data-wanted data-guessed={piece.guessed.place || undefined}>
      <CellSelect
        label={`Wanted place of ${piece.name}`}
        value={placeValue(piece)}
        choices={placeChoices(line, piece)}
        onPick={(picked) => run(wantPlace(show, piece.id, placeTyped(picked)))}
      />
    </span>
  );
}

const meansWords = { loop: 'loop', message: 'slot', foot: 'foot', always: 'left on' } as const;

/** What may switch a piece; none of them: it is never off. */
function Means({ piece }: { readonly piece: LinePiece }) {
  const { show, run } = useShow();
  const set = (means: (typeof switchingMeans)[number], on: boolean) =>
    run(
      wantSwitchedBy(
        show,
        piece.id,
        switchingMeans.filter((each) => (each === means ? on : piece.means.includes(each))),
      ),
    );
  return (
    <span className="loopsmeans" data-guessed={piece.guessed.means || undefined}>
      {switchingMeans.map((means) => (
        <Checkbox
          key={means}
          size="xs"
          label={meansWords[means]}
          aria-label={`${piece.name} may be switched by ${meansWords[means]}`}
          checked={piece.means.includes(means)}
          onChange={(event) => set(means, event.currentTarget.checked)}
        />
      ))}
    </span>
  );
}
