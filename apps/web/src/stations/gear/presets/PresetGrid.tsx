import { commands, type Device, type PresetColumn, presetText } from '@yunta/core';
import { memo, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { useShow } from '../../../api/rig.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { Notice } from '../../../ui/Notice.tsx';
import {
  type At,
  copiedText,
  type Edit,
  filledDown,
  isInside,
  pastedCells,
  type PresetRow,
  type Rectangle,
  rectangleOf,
  type Selection,
  turnedAt,
  typedInto,
} from './preset-cells.ts';
import styles from './presets.module.css';

interface GridProps {
  readonly device: Device;
  readonly rows: readonly PresetRow[];
  readonly columns: readonly PresetColumn[];
}

const rowHeight = 27;
/** Rows drawn above and below those that are seen. */
const spare = 8;

/**
 * Presets × what they store. By keyboard: arrows walk, Shift with them selects, space turns, typing types, Delete makes
 * unknown, Control C and V copy and paste, Control D fills down. Only rows that are seen are drawn.
 */
export function PresetGrid({ device, rows, columns }: GridProps) {
  const { show, attempt, run } = useShow();
  const [selection, setSelection] = useState<Selection>({ from: start, to: start });
  const [typing, setTyping] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [seen, setSeen] = useState({ top: 0, height: 600 });
  const pane = useRef<HTMLDivElement>(null);
  const last = { row: rows.length - 1, column: columns.length - 1 };
  const at = within(selection.to, last);
  const selected = rectangleOf({ from: within(selection.from, last), to: at });
  const widths = columns.map((column) => widthOf(column, rows));
  const template = `64px ${widths.map((width) => `${width}px`).join(' ')} 30px`;

  useEffect(() => {
    const { current } = pane;
    if (!current) return;
    const measure = () => setSeen({ top: current.scrollTop, height: current.clientHeight });
    measure();
    const watched = new ResizeObserver(measure);
    watched.observe(current);
    return () => watched.disconnect();
  }, []);

  // The focus comes along with what was drawn, before the next key.
  const comes = useRef(false);
  useLayoutEffect(() => {
    if (!comes.current) return;
    comes.current = false;
    const cell = pane.current?.querySelector<HTMLElement>(`[data-at="${at.row}.${at.column}"]`);
    cell?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    cell?.focus({ preventScroll: true });
  });

  const make = (edit: Edit | null): boolean => {
    const reason =
      edit === null
        ? null
        : typeof edit === 'string'
          ? edit
          : attempt(commands.setPresets(show, device.id, changed(edit, device)));
    setRefused(reason);
    return reason === null;
  };
  const go = (to: At, extend: boolean) => {
    const next = within(to, last);
    setSelection((before) => ({ from: extend ? before.from : next, to: next }));
    setRefused(null);
    comes.current = true;
  };
  const commit = (to?: At): boolean => {
    if (typing === null) return true;
    if (!make(typedInto(rows, columns, selected, typing))) return false;
    setTyping(null);
    if (to) go(to, false);
    else comes.current = true;
    return true;
  };
  const turn = () => {
    const next = turnedAt(rows, columns, at, selected);
    if (next === null) setTyping(presetText(columns[at.column], rows[at.row].preset));
    else make(next);
  };

  /** Rows that are not drawn again reach what is done now through it. */
  const hands = useRef<Hands>(null!);
  hands.current = {
    go,
    turn,
    commit,
    arrive: (to) => (to.row !== at.row || to.column !== at.column) && setSelection({ from: to, to }),
    type: setTyping,
    forget: (number) => run(commands.setPresets(show, device.id, [[number, null]])),
  };

  const onKeyDown = (event: React.KeyboardEvent) => {
    if (typing !== null || !(event.target as HTMLElement).matches('[data-at]')) return;
    const step = walks[event.key];
    const isCommand = event.ctrlKey || event.metaKey;
    if (isCommand && event.key.toLowerCase() === 'd') make(filledDown(rows, columns, selected));
    else if (isCommand || event.altKey) return;
    else if (step) go({ row: at.row + step[0], column: at.column + step[1] }, event.shiftKey);
    else if (event.key === ' ') turn();
    else if (event.key === 'Enter' || event.key === 'F2')
      setTyping(presetText(columns[at.column], rows[at.row].preset));
    else if (event.key === 'Delete' || event.key === 'Backspace') make(typedInto(rows, columns, selected, ''));
    else if (event.key.length === 1) setTyping(event.key);
    else return;
    event.preventDefault();
  };
  const onCopy = (event: React.ClipboardEvent) => {
    if (typing !== null) return;
    event.clipboardData.setData('text/plain', copiedText(rows, columns, selected));
    event.preventDefault();
  };
  const onPaste = (event: React.ClipboardEvent) => {
    if (typing !== null) return;
    event.preventDefault();
    make(pastedCells(rows, columns, selected, event.clipboardData.getData('text/plain')));
  };
  const first = Math.max(0, Math.floor(seen.top / rowHeight) - spare);
  const end = Math.min(rows.length, Math.ceil((seen.top + seen.height) / rowHeight) + spare);
  // The row that has the focus stays, wherever one scrolls to.
  const drawn = Array.from({ length: end - first }, (_, i) => first + i);
  if (at.row < first) drawn.unshift(at.row);
  if (at.row >= end) drawn.push(at.row);

  return (
    <>
      <div
        ref={pane}
        className={styles.pane}
        onScroll={(event) => {
          const { scrollTop, clientHeight } = event.currentTarget;
          setSeen({ top: scrollTop, height: clientHeight });
        }}
      >
        <div
          role="grid"
          aria-label={`Presets of ${device.name}`}
          aria-rowcount={rows.length + 1}
          aria-colcount={columns.length + 1}
          aria-multiselectable
          className={styles.grid}
          onKeyDown={onKeyDown}
          onCopy={onCopy}
          onPaste={onPaste}
        >
          <div role="row" className={styles.head} style={{ gridTemplateColumns: template }}>
            <div role="columnheader" className={styles.number}>
              Panel
            </div>
            {columns.map((column) => (
              <div key={column.id} role="columnheader" title={column.label}>
                {column.label}
              </div>
            ))}
            <div role="columnheader">
              <span className="visually-hidden">Forget</span>
            </div>
          </div>
          <div role="rowgroup" style={{ height: rows.length * rowHeight, position: 'relative' }}>
            {drawn.map((row) => (
              <Row
                key={rows[row].number}
                row={row}
                panel={rows[row].number + device.firstPresetNumber}
                preset={rows[row]}
                above={rows[row - 1] ?? rows[row]}
                columns={columns}
                template={template}
                at={at.row === row ? at.column : -1}
                selected={row >= selected.top && row <= selected.bottom ? selected : null}
                typing={at.row === row ? typing : null}
                hands={hands}
              />
            ))}
          </div>
        </div>
      </div>
      {refused !== null && (
        <Notice tone="refusal" onDismiss={() => setRefused(null)}>
          {refused}
        </Notice>
      )}
      <Keys />
    </>
  );
}

const start: At = { row: 0, column: 0 };
const walks: Readonly<Record<string, readonly [rows: number, columns: number] | undefined>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-20, 0],
  PageDown: [20, 0],
  Home: [0, -1000],
  End: [0, 1000],
};

const within = ({ row, column }: At, last: At): At => ({
  row: Math.max(0, Math.min(row, last.row)),
  column: Math.max(0, Math.min(column, last.column)),
});

/** Only what an edit really changes. */
const changed = (edit: Exclude<Edit, string>, device: Device): Exclude<Edit, string> =>
  edit.filter(([number, preset]) => device.presets[String(number)] !== preset);

/** Pixels that a column needs: its longest word or value. */
function widthOf(column: PresetColumn, rows: readonly PresetRow[]): number {
  const words = column.label.split(/\s+/).map((word) => word.length * 6.3 + 12);
  const sample = rows.slice(0, 60).map(({ preset }) => presetText(column, preset).length * 6.6 + 12);
  const least = column.kind === 'name' ? 130 : column.kind === 'order' ? 160 : column.kind === 'sync' ? 90 : 44;
  return Math.round(Math.min(column.kind === 'order' ? 420 : 180, Math.max(least, ...words, ...sample)));
}

interface RowProps {
  readonly row: number;
  readonly panel: number;
  readonly preset: PresetRow;
  readonly above: PresetRow;
  readonly columns: readonly PresetColumn[];
  readonly template: string;
  readonly at: number;
  readonly selected: Rectangle | null;
  readonly typing: string | null;
  readonly hands: React.RefObject<Hands>;
}

/** What can be done in a row. */
interface Hands {
  readonly go: (to: At, extend: boolean) => void;
  /** The focus came to a cell by itself. */
  readonly arrive: (to: At) => void;
  readonly turn: () => void;
  readonly type: (typed: string | null) => void;
  readonly commit: (to?: At) => boolean;
  readonly forget: (number: number) => void;
}

const Row = memo(
  function Row({ row, panel, preset, above, columns, template, at, selected, typing, hands }: RowProps) {
    return (
      <div
        role="row"
        aria-rowindex={row + 2}
        aria-label={`Preset ${panel}`}
        className={styles.row}
        style={{ gridTemplateColumns: template, top: row * rowHeight }}
      >
        <div role="rowheader" className={`${styles.number} num`} title={`sent as ${preset.number}`}>
          {panel}
        </div>
        {columns.map((column, c) => {
          const text = presetText(column, preset.preset);
          const isHere = at === c;
          const isSelected = selected !== null && isInside(selected, row, c);
          const differs = text !== presetText(column, above.preset);
          return (
            <div
              key={column.id}
              role="gridcell"
              data-at={`${row}.${c}`}
              tabIndex={isHere ? 0 : -1}
              aria-selected={isSelected}
              aria-label={`${column.label} of preset ${panel}: ${text === '' ? 'unknown' : text === '=' ? 'left as it was' : text}`}
              className={[
                styles.cell,
                isSelected ? styles.selected : '',
                differs ? styles.differs : '',
                column.kind === 'name' || column.kind === 'order' ? styles.left : '',
              ].join(' ')}
              onMouseDown={(event) => {
                if (event.target instanceof HTMLInputElement) return;
                event.preventDefault();
                if (hands.current.commit()) hands.current.go({ row, column: c }, event.shiftKey);
              }}
              onFocus={() => hands.current.arrive({ row, column: c })}
              onDoubleClick={() => hands.current.turn()}
            >
              {isHere && typing !== null ? (
                <input
                  className={styles.input}
                  autoFocus
                  aria-label={`${column.label} of preset ${panel}`}
                  value={typing}
                  onChange={(event) => hands.current.type(event.currentTarget.value)}
                  onBlur={() => hands.current.commit()}
                  onKeyDown={(event) => {
                    event.stopPropagation();
                    if (event.key === 'Escape') {
                      hands.current.type(null);
                      hands.current.go({ row, column: c }, false);
                    } else if (event.key === 'Enter' || event.key === 'Tab') {
                      event.preventDefault();
                      hands.current.commit(
                        event.key === 'Enter'
                          ? { row: row + 1, column: c }
                          : { row, column: c + (event.shiftKey ? -1 : 1) },
                      );
                    }
                  }}
                />
              ) : (
                <Value column={column} text={text} />
              )}
            </div>
          );
        })}
        <div role="gridcell">
          <LinkButton
            tabIndex={at >= 0 ? 0 : -1}
            aria-label={`Forget preset ${panel}`}
            onClick={() => hands.current.forget(preset.number)}
          >
            ×
          </LinkButton>
        </div>
      </div>
    );
  },
  (a, b) =>
    a.preset.preset === b.preset.preset &&
    a.above.preset === b.above.preset &&
    a.row === b.row &&
    a.panel === b.panel &&
    a.columns === b.columns &&
    a.template === b.template &&
    a.at === b.at &&
    a.typing === b.typing &&
    a.typing === null &&
    a.at < 0 &&
    sameRectangle(a.selected, b.selected),
);

const sameRectangle = (a: Rectangle | null, b: Rectangle | null): boolean =>
  a === b || (a !== null && b !== null && a.left === b.left && a.right === b.right);

/** On and off as marks; what nobody knows as a question. */
function Value({ column, text }: { readonly column: PresetColumn; readonly text: string }) {
  if (column.kind === 'control' && column.control.domain.kind === 'switch' && (text === 'on' || text === 'off'))
    return <span className={`mark ${text}`} />;
  if (text === '')
    return (
      <span className="soft">
        {column.kind === 'name' || column.kind === 'sync' || column.kind === 'latency' ? '' : '?'}
      </span>
    );
  return (
    <span className={column.kind === 'name' ? '' : 'mono'} title={column.kind === 'order' ? text : undefined}>
      {text}
    </span>
  );
}

const Keys = () => (
  <p className="keys" style={{ padding: '0 12px 8px' }}>
    <span>
      <kbd>←↑↓→</kbd> move, with <kbd>Shift</kbd> select
    </span>
    <span>
      <kbd>space</kbd> on, off, unknown
    </span>
    <span>
      <kbd>Enter</kbd> or type to edit
    </span>
    <span>
      <kbd>=</kbd> left as it was
    </span>
    <span>
      <kbd>Delete</kbd> unknown
    </span>
    <span>
      <kbd>Ctrl C</kbd> <kbd>Ctrl V</kbd> copy, paste
    </span>
    <span>
      <kbd>Ctrl D</kbd> fill down
    </span>
  </p>
);
