import {
  addBuiltOn,
  baseOf,
  commands,
  type ControlValue,
  inOrder,
  orderTyped,
  slotLabel,
  slotPlaceTyped,
  type Sound,
  freshId,
  freshName,
  tolerate,
} from '@yunta/core';
import { memo, useCallback, useMemo, useRef, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { type Move, Reorder } from '../../ui/Reorder.tsx';
import {
  type Cell,
  type Column,
  columnsOf,
  isTolerated,
  listedWords,
  shownColumns,
  valueIn,
  widthOf,
} from './matrix-columns.ts';
import { nextNamed, numberTyped, outOfRange, turned } from './matrix-keys.ts';
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
  const widths = useMemo(() => [...columns.map(widthOf), 30], [columns]);
  const template = useMemo(() => widths.map((width) => `${width}px`).join(' '), [widths]);
  const [typing, showTyping] = useState<Typing | null>(null);
  /** The same at once: a number is taken only once, though leaving its cell takes it too. */
  const typingNow = useRef<Typing | null>(null);
  const foundNow = useRef({ text: '', at: 0 });
  const controllers = useMemo(() => wiring.devices.filter(({ anatomy }) => anatomy.controller), [wiring]);
  const controllersNow = useRef(controllers);
  controllersNow.current = controllers;
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
      if (column.kind === 'order') {
        const values = value === undefined ? undefined : orderTyped(column.order, String(value));
        if (typeof values === 'string') return;
        store.run(commands.wantOrder(now(), whole ?? [sound.id], column.device, column.order, values));
        return;
      }
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
    const tolerateOne = (sound: Sound, column: Column) => {
      if (sound.pedals[column.device] === 'off')
        store.run(tolerate(now(), sound.id, column.device, !isTolerated(sound, column)));
    };
    const turn = (sound: Sound, column: Column, among: ReadonlySet<string>, typing: Pick<Typing, 'by' | 'at'>) => {
      const next = turned(column, valueIn(sound, column));
      if (next === null) setTyping({ text: column.kind === 'order' ? orderNow(sound, column) : '', ...typing });
      else change(sound, column, next, among);
    };
    const takeTyped = (sound: Sound, column: Column, typed: string, among: ReadonlySet<string>): boolean => {
      const typing = typingNow.current;
      if (!typing) return true;
      if (column.kind === 'order') {
        const read = typed.trim() === '' ? null : orderTyped(column.order, typed);
        const refused = typeof read === 'string' ? read : null;
        setTyping(refused === null ? null : { ...typing, text: typed, reason: refused });
        if (refused === null && read !== null) change(sound, column, typed, among);
        return refused === null;
      }
      const number = typed === '' ? null : numberTyped(column, typed);
      const reason =
        typed === ''
          ? null
          : number === null
            ? `“${typed}” is not a number of ${column.name}: its panel counts from ${column.kind === 'preset' ? column.firstPresetNumber : 0}.`
            : outOfRange(column, number);
      setTyping(reason === null ? null : { ...typing, text: typed, reason });
      if (reason === null && number !== null) change(sound, column, number, among);
      return reason === null;
    };
    const place = (sound: Sound, typed: string): string | null => {
      const { rig } = now();
      const own = Object.values(rig.slots).filter((slot) => slot.sound === sound.id);
      if (typed === '') return own[0] ? store.attempt(commands.removeSlot(now(), own[0].id)) : null;
      const at = slotPlaceTyped(typed);
      if (!at) return 'Write it as bank and switch: 2·3, or 2.3.';
      const wired =
        controllersNow.current.find(({ device }) => device.id === own[0]?.controller) ?? controllersNow.current[0];
      if (!wired) return 'There is no switcher or foot controller. Add one on Gear.';
      const { banks, positions } = wired.anatomy.controller!;
      if (at.bank >= banks || at.position >= positions)
        return `${wired.device.name} has ${banks} banks of ${positions} switches.`;
      const to = { controller: wired.device.id, ...at };
      const command = commands.placeSound(now(), sound.id, to);
      const isThere = own.some(
        (slot) => slot.controller === to.controller && slot.bank === at.bank && slot.position === at.position,
      );
      if (!command && !isThere) return `Every switch of ${wired.device.name} is taken.`;
      return store.attempt(command);
    };
    const find = (row: number, column: number, letter: string) => {
      const at = Date.now();
      const text = at - foundNow.current.at < 900 ? foundNow.current.text + letter : letter;
      foundNow.current = { text, at };
      const next = nextNamed(
        listed().map((each) => each.name),
        row,
        text,
      );
      if (next !== null) take(next, column);
    };
    const copy = (sound: Sound) => {
      const name = freshName(
        sound.name,
        listed().map((each) => each.name),
      );
      const id = freshId(name, now().rig.sounds, 'sound');
      if (store.run(commands.addSound(now(), id, name, sound))) selectSound(id);
    };
    const build = (sound: Sound) => {
      const name = freshName(
        sound.name,
        listed().map((each) => each.name),
      );
      const id = freshId(name, now().rig.sounds, 'sound');
      if (store.run(addBuiltOn(now(), id, name, sound))) selectSound(id);
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
      name === '' ? 'A sound needs a name.' : store.attempt(commands.setSound(now(), sound.id, 'name', name));
    const setRole = (sound: Sound, role: string) => store.run(commands.setSound(now(), sound.id, 'role', role));
    return {
      take,
      change,
      turn,
      takeTyped,
      copy,
      build,
      find,
      mark,
      tolerate: tolerateOne,
      move,
      remove,
      rename,
      place,
      setRole,
      setTyping,
      focusCell,
    };
  }, [store, selectSound, onCommit, onMark, columns]);

  const ids = useMemo(() => sounds.map((sound) => sound.id as string), [sounds]);
  const moveTo = useCallback<Move>(
    (id, next) => void store.run(commands.moveSound(store.get().show, id, next)),
    [store],
  );
  /** Up and down among the names, in the same column. */
  const onNamesKey = (event: React.KeyboardEvent<HTMLDivElement>) => {
    const by = { ArrowUp: -1, ArrowDown: 1, PageUp: -10, PageDown: 10 }[event.key];
    const here = event.target instanceof HTMLElement ? event.target.dataset.place : undefined;
    if (by === undefined || here === undefined || event.altKey) return;
    event.preventDefault();
    const [row, part] = here.split('.');
    const next = clamp(Number(row) + by, sounds.length);
    onCommit({ row: next, column: cell.column });
    selectSound(sounds[next].id);
    event.currentTarget.querySelector<HTMLElement>(`[data-place="${next}.${part}"]`)?.focus();
  };

  if (sounds.length === 0) return null;
  return (
    <div className="matrix">
      <Reorder ids={ids} onMove={moveTo}>
        <div className="names" role="grid" aria-label="Sounds" onKeyDown={onNamesKey}>
          <div role="row" className="head">
            <div role="columnheader">
              <span className="visually-hidden">Move</span>
            </div>
            <div role="columnheader">
              <span className="visually-hidden">Marked</span>
            </div>
            <div role="columnheader">Sound</div>
            <div role="columnheader">Role</div>
            <div role="columnheader">Slot</div>
          </div>

          {sounds.map((sound, row) => (
            <NameRow
              key={sound.id}
              sound={sound}
              row={row}
              isHere={cell.row === row || (row === 0 && cell.row >= sounds.length)}
              slot={slotTexts.get(sound.id) ?? ''}
              roles={settings.roles}
              selected={sound.id === selected?.id}
              marked={marked.has(sound.id)}
              actions={actions}
            />
          ))}
        </div>
      </Reorder>
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
              above={baseOf(show.rig, sound) ?? sounds[row - 1] ?? sound}
              row={row}
              columns={columns}
              template={template}
              selected={sound.id === selected?.id}
              marked={marked.has(sound.id) ? marked : null}
              at={cell.row === row ? cell.column : -1}
              typing={typing?.at.row === row ? typing : null}
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
      <div role="columnheader">
        <span className="visually-hidden">Remove</span>
      </div>
    </div>
  );
});

/** What a cell of an order holds when one begins to edit it. */
const orderNow = (sound: Sound, column: Extract<Column, { kind: 'order' }>): string =>
  String(valueIn(sound, column) ?? listedWords(column.order));

const clamp = (n: number, count: number): number => Math.min(count - 1, Math.max(0, n));
