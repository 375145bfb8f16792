import type { Literal, Sound } from '@yunta/core';
import { memo } from 'react';
import { EditableText } from '../../ui/EditableText.tsx';
import type { Cell } from './Matrix.tsx';
import { type Column, shownValue, valueIn } from './matrix-columns.ts';

/** What a row can do; the same object as long as the columns are the same. */
export interface RowActions {
  readonly take: (row: number, column: number) => void;
  readonly change: (sound: Sound, column: Column, value: Literal | 'on' | 'off' | undefined, among: ReadonlySet<string>) => void;
  readonly turn: (sound: Sound, column: Column, among: ReadonlySet<string>) => void;
  readonly takeTyped: (sound: Sound, column: Column, typed: string, among: ReadonlySet<string>) => void;
  readonly copy: (sound: Sound) => void;
  readonly mark: (sound: Sound) => void;
  readonly move: (row: number, column: number, step: -1 | 1) => void;
  readonly remove: (sound: Sound) => void;
  readonly rename: (sound: Sound, name: string) => void;
  readonly setRole: (sound: Sound, role: string) => void;
  readonly setTyping: (typed: string | null) => void;
  readonly focusCell: (at: Cell) => void;
}

interface RowProps {
  readonly sound: Sound;
  readonly above: Sound;
  readonly row: number;
  readonly columns: readonly Column[];
  /** Widths of all columns, as a grid template. */
  readonly template: string;
  readonly roles: readonly string[];
  readonly slot: string;
  readonly inHand: boolean;
  /** All the marked sounds, where this one is among them. */
  readonly marked: ReadonlySet<string> | null;
  /** The column in hand, -1 where another row is. */
  readonly at: number;
  readonly typing: string | null;
  readonly actions: RowActions;
}

const nobody: ReadonlySet<string> = new Set();
const moves: Readonly<Record<string, readonly [number, number]>> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };

/** One sound. Drawn again only where something of this row has changed. */
export const MatrixRow = memo(function MatrixRow({ sound, above, row, columns, template, roles, slot, inHand, marked, at, typing, actions }: RowProps) {
  const among = marked ?? nobody;
  const onKeyDown = (event: React.KeyboardEvent, c: number) => {
    const column = columns[c];
    if (event.ctrlKey || event.metaKey) return;
    if (typing !== null) {
      // The field is not there yet, and the next digit is: nothing typed is lost.
      if (/^\d$/.test(event.key)) actions.setTyping(typing + event.key);
      else if (event.key === 'Enter') actions.takeTyped(sound, column, typing, among);
      else return;
      return event.preventDefault();
    }
    if (event.altKey) {
      if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
      actions.move(row, c, event.key === 'ArrowUp' ? -1 : 1);
      return event.preventDefault();
    }
    const walk = moves[event.key];
    if (walk) actions.take(row + walk[0], c + walk[1]);
    else if (event.key === ' ' || event.key === 'Enter') actions.turn(sound, column, among);
    else if (event.key === 'Delete' || event.key === 'Backspace') actions.change(sound, column, undefined, among);
    else if (event.key.toLowerCase() === 'd') actions.copy(sound);
    else if (event.key.toLowerCase() === 'x') actions.mark(sound);
    else if (/^\d$/.test(event.key) && column.kind !== 'pedal' && (column.kind === 'preset' || column.control.domain.kind === 'range')) actions.setTyping(event.key);
    else return;
    event.preventDefault();
  };
  return (
    <div role="row" aria-selected={inHand} style={{ gridTemplateColumns: template }}>
      <div role="gridcell" className="plain">
        <input type="checkbox" aria-label={`Mark ${sound.name}`} checked={marked !== null} onChange={() => actions.mark(sound)} />
      </div>
      <div role="rowheader">
        <EditableText label={`Name of ${sound.name}`} value={sound.name} onTake={(name) => actions.rename(sound, name)} />
      </div>
      <div role="gridcell" className="plain left">
        <select className="cellinput" style={{ width: 66 }} aria-label={`Role of ${sound.name}`} value={sound.role} onChange={(event) => actions.setRole(sound, event.target.value)}>
          <option value="">no role</option>
          {[...new Set([...roles, ...(sound.role === '' ? [] : [sound.role])])].map((role) => (
            <option key={role} value={role}>
              {role}
            </option>
          ))}
        </select>
      </div>
      {columns.map((column, c) => {
        const value = valueIn(sound, column);
        const isHere = at === c;
        return (
          <div
            key={column.key}
            role="gridcell"
            className={`${value !== valueIn(above, column) ? 'differs' : ''}${isHand(column) ? ' hands' : ''}`}
            tabIndex={isHere ? 0 : -1}
            data-cell={`${row}.${c}`}
            aria-label={`${sound.name}, ${column.name} ${column.note}: ${column.kind === 'pedal' ? (value ?? 'does not care') : shownValue(column, value)}`}
            onFocus={() => at !== c && actions.take(row, c)}
            onKeyDown={(event) => onKeyDown(event, c)}
            onClick={() => {
              actions.take(row, c);
              if (column.kind === 'pedal') actions.turn(sound, column, among);
            }}
            onDoubleClick={() => actions.turn(sound, column, among)}
          >
            {isHere && typing !== null ? (
              <input
                className="cellinput mono"
                style={{ width: 48, textAlign: 'center' }}
                autoFocus
                aria-label={`${column.name} ${column.note}`}
                value={typing}
                onChange={(event) => actions.setTyping(event.target.value.trim())}
                onBlur={() => actions.takeTyped(sound, column, typing, among)}
                onKeyDown={(event) => {
                  if (event.key === 'Enter') actions.takeTyped(sound, column, typing, among);
                  if (event.key === 'Escape') actions.setTyping(null);
                  if (event.key === 'Enter' || event.key === 'Escape') actions.focusCell({ row, column: c });
                  event.stopPropagation();
                }}
              />
            ) : (
              <div className="cell">{column.kind === 'pedal' ? <PedalMark state={value as 'on' | 'off' | undefined} /> : <span className="mono">{shownValue(column, value)}</span>}</div>
            )}
          </div>
        );
      })}
      <div role="gridcell" className="plain mono">
        {slot}
      </div>
      <div role="gridcell" className="plain">
        <button className="linkish" aria-label={`Remove ${sound.name}`} title="Remove this sound" onClick={() => actions.remove(sound)}>
          ×
        </button>
      </div>
    </div>
  );
});

export const isHand = (column: Column): boolean => column.kind === 'control' && column.byHand;

function PedalMark({ state }: { readonly state: 'on' | 'off' | undefined }) {
  return state === undefined ? <span className="soft">–</span> : <span className={`mark ${state}`} />;
}
