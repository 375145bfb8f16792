import { UnstyledButton } from '@mantine/core';
import { strayEffects, type StrayReport } from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { costWords, untilWords } from './accidental-words.ts';

/** An accidental press told by its switch, the gravest first: what is lost beyond the piece itself, and until when. */
export function StrayTable({ presses }: { readonly presses: readonly StrayReport[] | null }) {
  const { show, wiring, selectDevice } = useShow();
  if (!presses) return <p className="soft">Trying each switch …</p>;
  const rows = strayEffects.flatMap((effect) =>
    effect === 'unheard' ? [] : presses.filter((report) => report.effect === effect),
  );
  if (rows.length === 0) return null;
  return (
    <>
      <div className="sectionhead">
        <h2>By switch</h2>
        <span className="soft">switches that no foot is planned for</span>
      </div>
      <DataTable className="sheet">
        <thead>
          <tr>
            <th>Switch</th>
            <th>Pressed by accident</th>
            <th>Until</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((report) => (
            <tr key={`${report.device} ${report.switch}`}>
              <td>
                <UnstyledButton onClick={() => selectDevice(report.device)}>
                  <b>{show.rig.devices[report.device]?.name}</b>,{' '}
                  {wiring.device
                    .get(report.device)
                    ?.anatomy.switches.find((footSwitch) => footSwitch.id === report.switch)
                    ?.label.toLowerCase()}
                </UnstyledButton>
              </td>
              <td className={report.effect === 'changes-itself' ? 'soft' : undefined}>{costWords(show, report)}</td>
              <td className="soft">{untilWords(report)}</td>
            </tr>
          ))}
        </tbody>
      </DataTable>
    </>
  );
}
