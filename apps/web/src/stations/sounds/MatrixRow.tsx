import { Input } from '@mantine/core';
import { assertNever, type ControlValue, type Sound } from '@yunta/core';
import { memo } from 'react';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { type Cell as Place, type Column, isTolerated, shownValue, valueIn } from './matrix-columns.ts';
import { actionOfKey, type CellAction } from './matrix-keys.ts';

/**
 * A number on its way into a cell: by keys it is typed into the cell itself, by pointer into a field (a phone brings
 * its keyboard up for that).
 */
export interface Typing {
  readonly text: string;
  readonly by: 'keys' | 'pointer';
  /** The cell that it is for. */
  readonly at: Place;
  /** Why it was refused: it stays until it is mended or given up. */
  readonly reason?: string;
}

/** What a row can do; the same object as long as the columns are the same. */
export interface RowActions {
  readonly take: (row: number, column: number) => void;
  readonly change: (
    sound: Sound,
    column: Column,
    value: ControlValue | 'on' | 'off' | undefined,
    among: ReadonlySet<string>,
  ) => void;
  /** On, off, the next value; of a number, `by` says how it is then typed. */
  readonly turn: (sound: Sound, column: Column, among: ReadonlySet<string>, typing: Pick<Typing, 'by' | 'at'>) => void;
  /** False where it is refused: it stays in the cell then. */
  readonly takeTyped: (sound: Sound, column: Column, typed: string, among: ReadonlySet<string>) => boolean;
  readonly copy: (sound: Sound) => void;
  readonly build: (sound: Sound) => void;
  readonly find: (row: number, column: number, letter: string) => void;
  readonly mark: (sound: Sound) => void;
  readonly tolerate: (sound: Sound, column: Column) => void;
  readonly move: (row: number, column: number, step: -1 | 1) => void;
  readonly remove: (sound: Sound) => void;
  readonly rename: (sound: Sound, name: string) => string | null;
  /** To the switch that was typed; none: cleared. Says why where it cannot be. */
  readonly place: (sound: Sound, typed: string) => string | null;
  readonly setRole: (sound: Sound, role: string) => void;
  readonly setTyping: (typing: Typing | null) => void;
  readonly focusCell: (at: Place) => void;
}

interface RowProps {
  readonly sound: Sound;
  readonly above: Sound;
  readonly row: number;
  readonly columns: readonly Column[];
  /** Widths of all columns, as a grid template. */
  readonly template: string;
  readonly selected: boolean;
  /** All the marked sounds, where this one is among them. */
  readonly marked: ReadonlySet<string> | null;
  /** The selected column, -1 where another row is. */
  readonly at: number;
  readonly typing: Typing | null;
  readonly actions: RowActions;
}

const nobody: ReadonlySet<string> = new Set();
/** What one sound asks for. Drawn again only where something of this row has changed. */
export const MatrixRow = memo(function MatrixRow({
  sound,
  above,
  row,
  columns,
  template,
  selected,
  marked,
  at,
  typing,
  actions,
}: RowProps) {
  const among = marked ?? nobody;
  const onKeyDown = (event: React.KeyboardEvent) => {
    const c = columnOf(event);
    if (c < 0) return;
    const typed = typing?.by === 'keys' && typing.at.column === c ? typing.text : null;
    const action = actionOfKey(event, columns[c], typed);
    if (!action) return;
    if (action.kind !== 'take-typed' || !action.leaves) event.preventDefault();
    if (action.kind === 'give-up') event.stopPropagation();
    perform(action, c);
  };
  const perform = (action: CellAction, c: number) => {
    const column = columns[c];
    switch (action.kind) {
      case 'walk':
        return actions.take(row + action.rows, c + action.columns);
      case 'type':
        return actions.setTyping({ text: action.text, by: 'keys', at: { row, column: c } });
      case 'give-up':
        return actions.setTyping(null);
      case 'take-typed':
        if (!actions.takeTyped(sound, column, typing?.text ?? '', among)) return;
        if (action.rows !== 0 || action.columns !== 0) actions.take(row + action.rows, c + action.columns);
        return;
      case 'find':
        return actions.find(row, c, action.letter);
      case 'turn':
        return actions.turn(sound, column, among, { by: 'keys', at: { row, column: c } });
      case 'clear':
        return actions.change(sound, column, undefined, among);
      case 'copy':
        return actions.copy(sound);
      case 'build':
        return actions.build(sound);
      case 'tolerate':
        return actions.tolerate(sound, column);
      case 'mark':
        return actions.mark(sound);
      case 'move':
        return actions.move(row, c, action.by);
      default:
        return assertNever(action, 'action');
    }
  };
  const onClick = (event: React.MouseEvent) => {
    const c = columnOf(event);
    if (c < 0) return;
    actions.take(row, c);
    if (columns[c].kind === 'pedal') actions.turn(sound, columns[c], among, { by: 'pointer', at: { row, column: c } });
  };
  /** A pedal has turned with each of the two clicks already. */
  const onDoubleClick = (event: React.MouseEvent) => {
    const column = columns[columnOf(event)] as Column | undefined;
    if (column && column.kind !== 'pedal')
      actions.turn(sound, column, among, { by: 'pointer', at: { row, column: columnOf(event) } });
  };
  return (
    <div
      role="row"
      aria-label={sound.name}
      aria-selected={selected}
      style={{ gridTemplateColumns: template }}
      onKeyDown={onKeyDown}
      onClick={onClick}
      onDoubleClick={onDoubleClick}
      onBlur={() => typing?.by === 'keys' && actions.takeTyped(sound, columns[typing.at.column], typing.text, among)}
      onFocus={(event) => columnOf(event) >= 0 && columnOf(event) !== at && actions.take(row, columnOf(event))}
    >
      {columns.map((column, c) => {
        const value = valueIn(sound, column);
        return (
          <Cell
            key={column.key}
            column={column}
            place={`${row}.${c}`}
            name={sound.name}
            value={value}
            tolerated={isTolerated(sound, column)}
            differs={value !== valueIn(above, column)}
            inherited={sound.basedOn !== undefined && value !== undefined && value === valueIn(above, column)}
            isHere={at === c}
            typed={typing?.at.column === c ? typing : null}
            onTyped={actions.setTyping}
            onCommit={(typed) => actions.takeTyped(sound, column, typed, among)}
            onLeave={() => actions.focusCell({ row, column: c })}
          />
        );
      })}
      <div role="gridcell" className="plain">
        <LinkButton
          tabIndex={at >= 0 ? 0 : -1}
          aria-label={`Remove ${sound.name}`}
          title="Remove this sound"
          onClick={() => actions.remove(sound)}
        >
          ×
        </LinkButton>
      </div>
    </div>
  );
});

interface CellProps {
  readonly column: Column;
  /** Row and column, as `row.column`. */
  readonly place: string;
  readonly name: string;
  readonly value: ControlValue | undefined;
  /** Wanted off, and it may be heard. */
  readonly tolerated: boolean;
  readonly differs: boolean;
  /** Held as the sound that it builds on has it. */
  readonly inherited: boolean;
  readonly isHere: boolean;
  readonly typed: Typing | null;
  readonly onTyped: (typed: Typing | null) => void;
  readonly onCommit: (typed: string) => boolean;
  /** Back from the field to the cell. */
  readonly onLeave: () => void;
}

/**
 * One cell; what is pressed in it is heard by its row. Drawn again only where it shows something else: its handlers
 * change nothing that is seen while nothing is typed.
 */
const Cell = memo(
  function Cell({
    column,
    place,
    name,
    value,
    tolerated,
    differs,
    inherited,
    isHere,
    typed,
    onTyped,
    onCommit,
    onLeave,
  }: CellProps) {
    return (
      <div
        role="gridcell"
        className={`${differs ? 'differs' : ''}${inherited ? ' inherited' : ''}${isHand(column) ? ' hands' : ''}`}
        tabIndex={isHere ? 0 : -1}
        data-cell={place}
        aria-label={`${name}, ${column.name} ${column.note}: ${column.kind === 'pedal' ? `${value ?? 'don’t care'}${tolerated ? ', may be heard' : ''}` : shownValue(column, value)}`}
      >
        {typed?.by === 'keys' ? (
          <span className={`mono typed${typed.reason === undefined ? '' : ' refused'}`}>
            {typed.text}
            {typed.reason !== undefined && <Reason>{typed.reason}</Reason>}
          </span>
        ) : typed ? (
          <Input
            unstyled
            classNames={{ input: 'cellinput mono' }}
            wrapperProps={{ style: { width: column.kind === 'order' ? 150 : 48 } }}
            error={typed.reason !== undefined}
            autoFocus
            aria-label={`${column.name} ${column.note}`}
            inputMode={column.kind === 'order' ? 'text' : 'numeric'}
            value={typed.text}
            onChange={(event) =>
              onTyped({
                ...typed,
                text: column.kind === 'order' ? event.currentTarget.value : event.currentTarget.value.trim(),
              })
            }
            onBlur={() => onCommit(typed.text)}
            onClick={(event) => event.stopPropagation()}
            onKeyDown={(event) => {
              if (event.key === 'Escape') onTyped(null);
              if (event.key === 'Escape' || (event.key === 'Enter' && onCommit(typed.text))) onLeave();
              event.stopPropagation();
            }}
          />
        ) : column.kind === 'pedal' ? (
          <PedalMark state={value as 'on' | 'off' | undefined} tolerated={tolerated} />
        ) : (
          <span className="mono">{shownValue(column, value)}</span>
        )}
      </div>
    );
  },
  (a, b) =>
    a.typed === null &&
    b.typed === null &&
    a.column === b.column &&
    a.place === b.place &&
    a.name === b.name &&
    a.value === b.value &&
    a.tolerated === b.tolerated &&
    a.differs === b.differs &&
    a.inherited === b.inherited &&
    a.isHere === b.isHere,
);

/** The column of the cell that an event is in; −1 beside the cells. */
function columnOf(event: React.SyntheticEvent): number {
  const cell = (event.target as Element).closest<HTMLElement>('[data-cell]');
  return cell ? Number(cell.dataset.cell!.split('.')[1]) : -1;
}

/** Why a number was refused, under its cell. */
const Reason = ({ children }: { readonly children: string }) => (
  <span className="cellreason" role="alert">
    {children}
  </span>
);

export const isHand = (column: Column): boolean => column.kind === 'control' && column.byHand;

function PedalMark({ state, tolerated }: { readonly state: 'on' | 'off' | undefined; readonly tolerated: boolean }) {
  return state === undefined ? (
    <span className="soft">–</span>
  ) : (
    <span className={`mark ${state}${tolerated ? ' may' : ''}`} />
  );
}
