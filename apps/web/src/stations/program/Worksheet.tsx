import { Button, Checkbox } from '@mantine/core';
import { saidBy, type SheetLine, sheetRows, worksheet, writeRows } from '@yunta/core';
import { useMemo, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { type Ticks, useTicks } from '../../api/ticks.ts';
import { download, fileName } from '../../ui/download.ts';
import { DataTable } from '../../ui/DataTable.tsx';
import { useOutletContext } from 'react-router';
import { Fold } from '../../ui/Fold.tsx';

/** What to key in by hand, line by line, ticked off as it is done; a line that an edit has changed opens again. */
export function Worksheet() {
  const { show, wiring, id } = useShow();
  const sheet = useMemo(() => worksheet(show, wiring), [show, wiring]);
  const ticks = useTicks(id);
  const { onPrint } = useOutletContext<{ readonly onPrint: () => void }>();
  const [openOnly, setOpenOnly] = useState(false);
  const lines = sheet.groups.flatMap((group) => group.lines);
  const done = lines.filter((line) => isDone(ticks, line)).length;
  const stale = lines.filter((line) => ticks.said.has(line.id) && !isDone(ticks, line)).length;
  return (
    <>
      <div className="sectionhead">
        <h2>Worksheet</h2>
        <span className="soft num" role="status">
          {done} of {lines.length} entered{stale > 0 ? `, ${stale} to do again` : ''}
        </span>
        <span className="tools" style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
          <Checkbox
            size="xs"
            label="only what is left"
            checked={openOnly}
            onChange={(event) => setOpenOnly(event.currentTarget.checked)}
          />
          <Button
            variant="default"
            size="compact-xs"
            onClick={() =>
              download(fileName(`${show.rig.name} worksheet`, 'csv'), writeRows(sheetRows(sheet)), 'text/csv')
            }
          >
            CSV
          </Button>
          <Button size="compact-xs" onClick={onPrint}>
            Print …
          </Button>
        </span>
      </div>
      {ticks.error && (
        <div className="refusal" role="alert">
          {ticks.error}
        </div>
      )}
      <div className="sheet worksheet">
        {sheet.groups.map((group) => {
          const shown = openOnly ? group.lines.filter((line) => !isDone(ticks, line)) : group.lines;
          if (shown.length === 0) return null;
          return (
            <Fold
              key={`${group.heading} ${openOnly}`}
              open={group.lines.length < 9 || openOnly}
              title={
                <>
                  {group.heading}{' '}
                  <span className="soft num">
                    {group.lines.filter((line) => isDone(ticks, line)).length} of {group.lines.length}
                  </span>
                </>
              }
            >
              <DataTable>
                <tbody>
                  {shown.map((line) => (
                    <WorksheetRow key={line.id} line={line} ticks={ticks} group={group.heading} />
                  ))}
                </tbody>
              </DataTable>
            </Fold>
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
        <Checkbox
          size="xs"
          aria-label={`${group}: ${what} ${to}`}
          checked={done}
          onChange={(event) => ticks.set(line.id, saidBy(line), event.currentTarget.checked)}
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
