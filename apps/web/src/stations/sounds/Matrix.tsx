import { commands, domainValues, inOrder, type Literal, type Sound } from '@yunta/core';
import { useMemo, useRef, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { EditableText } from '../../ui/EditableText.tsx';
import { freshId, freshName } from '../../ui/ids.ts';
import { type Column, columnsOf, shownColumns, shownValue, valueIn } from './matrix-columns.ts';

export interface Cell {
  readonly row: number;
  readonly column: number;
}

interface MatrixProps {
  readonly cell: Cell;
  readonly onTake: (cell: Cell) => void;
  /** Sounds that an edit in one of them goes into. */
  readonly marked: ReadonlySet<string>;
  readonly onMark: (marked: ReadonlySet<string>) => void;
  readonly onlyDiffering: boolean;
}

/** Sounds × what they ask for, by keyboard: arrows walk, space turns, digits type, delete lets go, D copies, X marks. */
export function Matrix({ cell, onTake, marked, onMark, onlyDiffering }: MatrixProps) {
  const { show, run, wiring, sound: inHand, takeSound, store } = useShow();
  const sounds = inOrder(show.rig.sounds);
  const columns = useMemo(() => shownColumns(columnsOf(wiring), inOrder(show.rig.sounds), onlyDiffering), [wiring, show.rig.sounds, onlyDiffering]);
  const [typing, setTyping] = useState<string | null>(null);
  const grid = useRef<HTMLTableElement>(null);

  const focusCell = (at: Cell) => grid.current?.querySelector<HTMLElement>(`[data-cell="${at.row}.${at.column}"]`)?.focus();
  const take = (row: number, column: number) => {
    const next = { row: clamp(row, sounds.length), column: clamp(column, columns.length) };
    onTake(next);
    const sound = sounds[next.row];
    if (sound) takeSound(sound.id);
    focusCell(next);
  };
  const change = (sound: Sound, column: Column, value: Literal | 'on' | 'off' | undefined) => {
    const all = marked.has(sound.id) && marked.size > 1 ? [...marked] : null;
    if (column.kind === 'pedal') run(all ? commands.wantPedalInAll(show, all, column.device, value as 'on' | 'off' | undefined) : commands.wantPedal(show, sound.id, column.device, value as 'on' | 'off' | undefined));
    else run(all ? commands.wantInAll(show, all, column.ref, value) : commands.want(show, sound.id, column.ref, value));
  };
  const mark = (sound: Sound) => {
    const next = new Set(marked);
    if (!next.delete(sound.id)) next.add(sound.id);
    onMark(next);
  };
  /** Among its neighbours: the sound itself moves, the hand with it. */
  const move = (row: number, step: -1 | 1) => {
    if (!sounds[row + step]) return;
    const next = step === -1 ? sounds[row - 1].id : (sounds[row + 2]?.id ?? null);
    if (!run(commands.moveSound(show, sounds[row].id, next))) return;
    const at = { row: row + step, column: cell.column };
    onTake(at);
    requestAnimationFrame(() => focusCell(at));
  };
  const turn = (sound: Sound, column: Column) => {
    const now = valueIn(sound, column);
    if (column.kind === 'pedal') change(sound, column, now === 'on' ? 'off' : 'on');
    else if (column.kind === 'preset') setTyping('');
    else if (column.control.domain.kind === 'range') setTyping('');
    else {
      const values = domainValues(column.control.domain);
      change(sound, column, values[(values.indexOf(now as Literal) + 1) % values.length]);
    }
  };
  const takeTyped = (sound: Sound, column: Column, typed: string) => {
    setTyping(null);
    if (typed === '') return;
    const number = Number(typed) - (column.kind === 'preset' ? column.countsFrom : 0);
    if (!Number.isInteger(number) || number < 0) return store.refuse(`“${typed}” is not a preset of ${column.name}: its panel counts from ${column.kind === 'preset' ? column.countsFrom : 0}.`);
    change(sound, column, number);
  };
  const copy = (sound: Sound) => {
    const name = freshName(sound.name, sounds.map((one) => one.name));
    const id = freshId(name, show.rig.sounds, 'sound');
    if (run(commands.addSound(show, id, name, sound))) takeSound(id);
  };
  const onKeyDown = (event: React.KeyboardEvent, row: number, column: number) => {
    const sound = sounds[row];
    const at = columns[column];
    if (typing !== null || event.ctrlKey || event.metaKey) return;
    if (event.altKey) {
      if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
      move(row, event.key === 'ArrowUp' ? -1 : 1);
      return event.preventDefault();
    }
    const moves: Readonly<Record<string, readonly [number, number]>> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };
    const walk = moves[event.key];
    if (walk) take(row + walk[0], column + walk[1]);
    else if (event.key === ' ' || event.key === 'Enter') turn(sound, at);
    else if (event.key === 'Delete' || event.key === 'Backspace') change(sound, at, undefined);
    else if (event.key.toLowerCase() === 'd') copy(sound);
    else if (event.key.toLowerCase() === 'x') mark(sound);
    else if (/^\d$/.test(event.key) && at.kind !== 'pedal' && (at.kind === 'preset' || at.control.domain.kind === 'range')) setTyping(event.key);
    else return;
    event.preventDefault();
  };
  if (sounds.length === 0) return null;
  return (
    <div style={{ overflowX: 'auto' }}>
      <table className="matrix" role="grid" aria-label="Sounds and what they ask for" ref={grid}>
        <thead>
          <tr>
            <th>
              <span className="visually-hidden">Marked</span>
            </th>
            <th className="name" style={{ textAlign: 'left', paddingLeft: 8 }}>
              Sound
            </th>
            <th style={{ textAlign: 'left' }}>Role</th>
            {columns.map((column) => (
              <th key={column.key} className={isHand(column) ? 'dev hands' : 'dev'} scope="col">
                {column.name}
                <small>{column.note}</small>
              </th>
            ))}
            <th>Slot</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {sounds.map((sound, row) => (
            <tr key={sound.id} aria-selected={sound.id === inHand?.id}>
              <td style={{ minWidth: 24 }}>
                <input type="checkbox" aria-label={`Mark ${sound.name}`} checked={marked.has(sound.id)} onChange={() => mark(sound)} />
              </td>
              <th scope="row">
                <EditableText label={`Name of ${sound.name}`} value={sound.name} onTake={(name) => name !== '' && run(commands.setSound(show, sound.id, 'name', name))} />
              </th>
              <td>
                <RoleSelect sound={sound} />
              </td>
              {columns.map((column, c) => {
                const value = valueIn(sound, column);
                const above = row > 0 ? valueIn(sounds[row - 1], column) : value;
                const isHere = cell.row === row && cell.column === c;
                return (
                  <td
                    key={column.key}
                    role="gridcell"
                    className={`${value !== above ? 'differs' : ''}${isHand(column) ? ' hands' : ''}`}
                    tabIndex={isHere ? 0 : -1}
                    data-cell={`${row}.${c}`}
                    aria-label={`${sound.name}, ${column.name} ${column.note}: ${column.kind === 'pedal' ? (value ?? 'does not care') : shownValue(column, value)}`}
                    onKeyDown={(event) => onKeyDown(event, row, c)}
                    onClick={() => {
                      take(row, c);
                      if (column.kind === 'pedal') turn(sound, column);
                    }}
                    onDoubleClick={() => turn(sound, column)}
                  >
                    {isHere && typing !== null ? (
                      <input
                        className="cellinput mono"
                        style={{ width: 48, textAlign: 'center' }}
                        autoFocus
                        aria-label={`${column.name} ${column.note}`}
                        value={typing}
                        onChange={(event) => setTyping(event.target.value.trim())}
                        onBlur={() => takeTyped(sound, column, typing)}
                        onKeyDown={(event) => {
                          if (event.key === 'Enter') takeTyped(sound, column, typing);
                          if (event.key === 'Escape') setTyping(null);
                          if (event.key === 'Enter' || event.key === 'Escape') focusCell({ row, column: c });
                          event.stopPropagation();
                        }}
                      />
                    ) : (
                      <div className="cell">{column.kind === 'pedal' ? <PedalMark state={value as 'on' | 'off' | undefined} /> : <span className="mono">{shownValue(column, value)}</span>}</div>
                    )}
                  </td>
                );
              })}
              <td className="mono">{slotOf(show.rig.slots, sound.id)}</td>
              <td>
                <button className="linkish" aria-label={`Remove ${sound.name}`} title="Remove this sound" onClick={() => run(commands.removeSound(show, sound.id))}>
                  ×
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const isHand = (column: Column): boolean => column.kind === 'control' && column.byHand;

const clamp = (n: number, count: number): number => Math.min(count - 1, Math.max(0, n));

function slotOf(slots: Readonly<Record<string, { readonly sound: string | null; readonly bank: number; readonly position: number }>>, sound: string): string {
  const slot = Object.values(slots).find((one) => one.sound === sound);
  return slot ? `${slot.bank + 1} · ${slot.position + 1}` : '—';
}

function PedalMark({ state }: { readonly state: 'on' | 'off' | undefined }) {
  return state === undefined ? <span className="soft">–</span> : <span className={`mark ${state}`} />;
}

function RoleSelect({ sound }: { readonly sound: Sound }) {
  const { show, run } = useShow();
  return (
    <select className="cellinput" style={{ width: 66 }} aria-label={`Role of ${sound.name}`} value={sound.role} onChange={(event) => run(commands.setSound(show, sound.id, 'role', event.target.value))}>
      <option value="">no role</option>
      {[...new Set([...show.rig.settings.roles, ...(sound.role === '' ? [] : [sound.role])])].map((role) => (
        <option key={role} value={role}>
          {role}
        </option>
      ))}
    </select>
  );
}
