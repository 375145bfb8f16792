import { Button } from '@mantine/core';
import { cueSheet, patchList, saidBy, type SheetLine, sheetRows, worksheet, writeRows } from '@yunta/core';
import { useMemo, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { useServices } from '../../api/services.tsx';
import { type Ticks, useTicks } from '../../api/ticks.ts';
import { download, fileName } from '../../ui/download.ts';

/** What to key in by hand, line by line, ticked off as it is done; a line that an edit has changed opens again. */
export function Worksheet() {
  const { show, wiring, id, store } = useShow();
  const sheet = useMemo(() => worksheet(show, wiring), [show, wiring]);
  const ticks = useTicks(id);
  const { pdf: pdfs } = useServices();
  const [openOnly, setOpenOnly] = useState(false);
  const [printing, setPrinting] = useState(false);
  const lines = sheet.groups.flatMap((group) => group.lines);
  const done = lines.filter((line) => isDone(ticks, line)).length;
  const stale = lines.filter((line) => ticks.said.has(line.id) && !isDone(ticks, line)).length;
  const print = async () => {
    setPrinting(true);
    try {
      const paper = /US|CA|MX/.test(navigator.language) ? 'LETTER' : 'A4';
      const pdf = await pdfs().print([patchList(show, wiring), sheet, cueSheet(show, wiring)], paper);
      download(fileName(show.rig.name, 'pdf'), pdf as BlobPart, 'application/pdf');
    } catch (reason) {
      store.refuse(`The PDF could not be made: ${reason instanceof Error ? reason.message : String(reason)}`);
    } finally {
      setPrinting(false);
    }
  };
  return (
    <>
      <div className="sectionhead">
        <h2>Worksheet</h2>
        <span className="soft num" role="status">
          {done} of {lines.length} entered{stale > 0 ? `, ${stale} to do again` : ''}
        </span>
        <span className="tools" style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
          <label style={{ fontSize: 12 }}>
            <input type="checkbox" checked={openOnly} onChange={(event) => setOpenOnly(event.target.checked)} /> only
            what is left
          </label>
          <Button
            variant="default"
            size="compact-xs"
            onClick={() =>
              download(fileName(`${show.rig.name} worksheet`, 'csv'), writeRows(sheetRows(sheet)), 'text/csv')
            }
          >
            CSV
          </Button>
          <Button variant="default" size="compact-xs" loading={printing} onClick={() => void print()}>
            PDF: patch, worksheet, cues
          </Button>
        </span>
      </div>
      {ticks.error && (
        <div className="refusal" role="alert">
          {ticks.error}
        </div>
      )}
      <div className="sheet">
        {sheet.groups.map((group) => {
          const shown = openOnly ? group.lines.filter((line) => !isDone(ticks, line)) : group.lines;
          if (shown.length === 0) return null;
          return (
            <details key={group.heading} className="worksheet" open={group.lines.length < 9 || openOnly}>
              <summary>
                {group.heading}{' '}
                <span className="soft num">
                  {group.lines.filter((line) => isDone(ticks, line)).length} of {group.lines.length}
                </span>
              </summary>
              <table className="plain">
                <tbody>
                  {shown.map((line) => (
                    <WorksheetRow key={line.id} line={line} ticks={ticks} group={group.heading} />
                  ))}
                </tbody>
              </table>
            </details>
          );
        })}
        {sheet.notes.map((note) => (
          <p key={note} className="soft" style={{ margin: '6px 10px', fontSize: 12 }}>
            {note}
          </p>
        ))}
      </div>
    </>
  );
}

const isDone = (ticks: Ticks, line: SheetLine): boolean => ticks.said.get(line.id)?.said === saidBy(line);

function WorksheetRow({
  line,
  ticks,
  group,
}: {
  readonly line: SheetLine;
  readonly ticks: Ticks;
  readonly group: string;
}) {
  const tick = ticks.said.get(line.id);
  const done = isDone(ticks, line);
  const [what, to, bytes, why] = line.cells;
  return (
    <tr className={done ? 'done' : undefined}>
      <td style={{ width: 30 }}>
        <input
          type="checkbox"
          aria-label={`${group}: ${what} ${to}`}
          checked={done}
          onChange={(event) => ticks.set(line.id, saidBy(line), event.target.checked)}
        />
      </td>
      <td style={{ width: 210 }}>{what}</td>
      <td>
        {to}
        {tick && !done && (
          <span className="again"> changed since it was entered ({tick.said.split(' | ').slice(0, 2).join(' ')})</span>
        )}
      </td>
      <td className="mono" style={{ width: 110 }}>
        {bytes}
      </td>
      <td className="soft">{why}</td>
    </tr>
  );
}
