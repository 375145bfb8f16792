import { commands, type ControlValue, inOrder, slotLabel, type Sound } from '@yunta/core';
import { memo, useMemo, useRef, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { freshId, freshName } from '../../ui/ids.ts';
import { type Cell, type Column, columnsOf, shownColumns, valueIn, widthOf } from './matrix-columns.ts';
import { numberTyped, turned } from './matrix-keys.ts';
import { isHand, MatrixRow, type RowActions, type Typing } from './MatrixRow.tsx';
import { NameRow } from './NameRow.tsx';

interface MatrixProps {
  readonly cell: Cell;
  readonly onCommit: (cell: Cell) => void;
  /** Sounds that an edit in one of them goes into. */
  readonly marked: ReadonlySet<string>;
  readonly onMark: (change: (marked: ReadonlySet<string>) => ReadonlySet<string>) => void;
  readonly onlyDiffering: boolean;
}

/**
 * Sounds × what they ask for, the names beside what scrolls. By keyboard: arrows walk, space turns, digits type, delete
 * lets go, D copies, X marks.
 */
export function Matrix({ cell, onCommit, marked, onMark, onlyDiffering }: MatrixProps) {
  const { show, wiring, sound: selected, selectSound, store } = useShow();
  const { sounds: filed, slots, settings } = show.rig;
  const sounds = useMemo(() => inOrder(filed), [filed]);
  const all = columnsOf(wiring);
  const columns = useMemo(() => (onlyDiffering ? shownColumns(all, sounds, true) : all), [all, sounds, onlyDiffering]);
  const widths = useMemo(() => [...columns.map(widthOf), 54, 30], [columns]);
  const template = useMemo(() => widths.map((width) => `${width}px`).join(' '), [widths]);
  const [typing, showTyping] = useState<Typing | null>(null);
  /** The same at once: a number is taken only once, though leaving its cell takes it too. */
  const typingNow = useRef<Typing | null>(null);
  const grid = useRef<HTMLDivElement>(null);
  const slotTexts = useMemo(() => new Map(Object.values(slots).map((slot) => [slot.sound, slotLabel(slot)])), [slots]);

  /** Everything a row can ask for. Reads the show when it acts, so that rows need not be drawn again for it. */
  const actions = useMemo((): RowActions => {
    const now = () => store.get().show;
    const setTyping = (next: Typing | null) => {
      typingNow.current = next;
      showTyping(next);
    };
    const listed = () => inOrder(now().rig.sounds);
    const focusCell = (at: Cell) =>
      grid.current?.querySelector<HTMLElement>(`[data-cell="${at.row}.${at.column}"]`)?.focus();
    const take = (row: number, column: number) => {
      const list = listed();
      const next = { row: clamp(row, list.length), column: clamp(column, columns.length) };
      onCommit(next);
      if (list[next.row]) selectSound(list[next.row].id);
      focusCell(next);
    };
    const change = (
      sound: Sound,
      column: Column,
      value: ControlValue | 'on' | 'off' | undefined,
      among: ReadonlySet<string>,
    ) => {
      const whole = among.has(sound.id) && among.size > 1 ? [...among] : null;
      if (column.kind === 'pedal') {
        const state = value as 'on' | 'off' | undefined;
        store.run(
          whole
            ? commands.wantPedalInAll(now(), whole, column.device, state)
            : commands.wantPedal(now(), sound.id, column.device, state),
        );
      } else
        store.run(
          whole
            ? commands.wantInAll(now(), whole, column.ref, value)
            : commands.want(now(), sound.id, column.ref, value),
        );
    };
    const turn = (sound: Sound, column: Column, among: ReadonlySet<string>, by: Typing['by']) => {
      const next = turned(column, valueIn(sound, column));
      if (next === null) setTyping({ text: '', by });
      else change(sound, column, next, among);
    };
    const takeTyped = (sound: Sound, column: Column, typed: string, among: ReadonlySet<string>) => {
      if (!typingNow.current) return;
      setTyping(null);
      if (typed === '') return;
      const number = numberTyped(column, typed);
      if (number === null)
        return store.refuse(
          `“${typed}” is not a number of ${column.name}: its panel counts from ${column.kind === 'preset' ? column.firstPresetNumber : 0}.`,
        );
      change(sound, column, number, among);
    };
    const copy = (sound: Sound) => {
      const name = freshName(
        sound.name,
        listed().map((each) => each.name),
      );
      const id = freshId(name, now().rig.sounds, 'sound');
      if (store.run(commands.addSound(now(), id, name, sound))) selectSound(id);
    };
    const mark = (sound: Sound) =>
      onMark((before) => {
        const next = new Set(before);
        if (!next.delete(sound.id)) next.add(sound.id);
        return next;
      });
    /** Among its neighbours: the sound itself moves, the hand with it. */
    const move = (row: number, column: number, step: -1 | 1) => {
      const list = listed();
      if (!list[row + step]) return;
      const next = step === -1 ? list[row - 1].id : (list[row + 2]?.id ?? null);
      if (!store.run(commands.moveSound(now(), list[row].id, next))) return;
      const at = { row: row + step, column };
      onCommit(at);
      requestAnimationFrame(() => focusCell(at));
    };
    const remove = (sound: Sound) => store.run(commands.removeSound(now(), sound.id));
    const rename = (sound: Sound, name: string) =>
      name !== '' && store.run(commands.setSound(now(), sound.id, 'name', name));
    const setRole = (sound: Sound, role: string) => store.run(commands.setSound(now(), sound.id, 'role', role));
    return { take, change, turn, takeTyped, copy, mark, move, remove, rename, setRole, setTyping, focusCell };
  }, [store, selectSound, onCommit, onMark, columns]);

  if (sounds.length === 0) return null;
  return (
    <div className="matrix">
      <div className="names" role="grid" aria-label="Sounds">
        <div role="row" className="head">
          <div role="columnheader">
            <span className="visually-hidden">Marked</span>
          </div>
          <div role="columnheader">Sound</div>
          <div role="columnheader">Role</div>
        </div>
        {sounds.map((sound) => (
          <NameRow
            key={sound.id}
            sound={sound}
            roles={settings.roles}
            selected={sound.id === selected?.id}
            marked={marked.has(sound.id)}
            actions={actions}
          />
        ))}
      </div>
      <div className="asks">
        <span className="visually-hidden" role="status">
          {typing?.by === 'keys' ? `typed ${typing.text}` : ''}
        </span>
        <div
          role="grid"
          aria-label="What sounds ask for"
          ref={grid}
          style={{ width: widths.reduce((sum, width) => sum + width, 0) }}
        >
          <HeadRow columns={columns} template={template} />
          {sounds.map((sound, row) => (
            <MatrixRow
              key={sound.id}
              sound={sound}
              above={sounds[row - 1] ?? sound}
              row={row}
              columns={columns}
              template={template}
              slot={slotTexts.get(sound.id) ?? '—'}
              selected={sound.id === selected?.id}
              marked={marked.has(sound.id) ? marked : null}
              at={cell.row === row ? cell.column : -1}
              typing={cell.row === row ? typing : null}
              actions={actions}
            />
          ))}
        </div>
      </div>
    </div>
  );
}

const HeadRow = memo(function HeadRow({
  columns,
  template,
}: {
  readonly columns: readonly Column[];
  readonly template: string;
}) {
  return (
    <div role="row" className="head" style={{ gridTemplateColumns: template }}>
      {columns.map((column) => (
        <div
          key={column.key}
          role="columnheader"
          className={isHand(column) ? 'dev hands' : 'dev'}
          title={`${column.name} ${column.note}`}
        >
          {column.name}
          <small>{column.note}</small>
        </div>
      ))}
      <div role="columnheader">Slot</div>
      <div role="columnheader">
        <span className="visually-hidden">Remove</span>
      </div>
    </div>
  );
});

const clamp = (n: number, count: number): number => Math.min(count - 1, Math.max(0, n));
