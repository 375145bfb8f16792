import { UnstyledButton } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useFindings, useShow } from '../../api/rig.tsx';
import { useServices } from '../../api/services.tsx';
import type { Proved } from '../../workers/judge-types.ts';
import { DataTable } from '../../ui/DataTable.tsx';

/** A stray foot told switch by switch: what it breaks at once, and what the next presses still bring up wrong. */
export function StrayTable({ proved }: { readonly proved: Proved }) {
  const { id, show, wiring, selectDevice } = useShow();
  const { judge } = useServices();
  const { judged } = useFindings();
  const reports = useQuery({
    queryKey: ['strays', id, judged?.serial, proved.milliseconds],
    queryFn: () => judge().strays(id),
    gcTime: 0,
    staleTime: Infinity,
  });
  const rows = reports.data?.filter((report) => report.atOnce.length + report.after.length > 0) ?? [];
  if (!reports.data) return <p className="soft">Trying each switch …</p>;
  if (rows.length === 0) return null;
  const names = (sounds: readonly string[]) =>
    sounds.length === 0
      ? '—'
      : sounds.length === Object.keys(show.rig.sounds).length
        ? `all ${sounds.length} sounds`
        : sounds.length > 4
          ? `${sounds.length} sounds`
          : sounds.map((id) => show.rig.sounds[id]?.name).join('; ');
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
            <th>Breaks at once</th>
            <th>Still wrong after the next press</th>
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
              <td>{names(report.atOnce)}</td>
              <td className={report.after.length > 0 ? 'stop' : 'soft'}>{names(report.after)}</td>
            </tr>
          ))}
        </tbody>
      </DataTable>
    </>
  );
}
