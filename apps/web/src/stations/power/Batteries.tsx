import { batteryLives, hoursNeeded, numberTyped, type PowerInUse, setPowerSettings, tenths, why } from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { Why } from '../../ui/Why.tsx';

/** What runs on what it holds, for how long, and for how long it has to. */
export function Batteries({ power }: { readonly power: PowerInUse }) {
  const { show, attempt } = useShow();
  const lives = batteryLives(show.rig, power);
  if (lives.length === 0) return null;
  const needed = hoursNeeded(show.rig);
  const setHours = (typed: string) => {
    const hours = typed === '' ? undefined : numberTyped(typed);
    return hours !== undefined && !(hours >= 0.1 && hours <= 48)
      ? `“${typed}” is not a number of hours: write 0.1 to 48.`
      : attempt(setPowerSettings(show, { hours }));
  };
  return (
    <section aria-label="Batteries">
      <div className="sectionhead">
        <h2>Batteries</h2>
        <label className="powerhours">
          <span className="soft">have to last</span>{' '}
          <InlineField
            look="boxed"
            label="Hours that batteries have to last"
            value={String(needed)}
            unit="h"
            onCommit={setHours}
          />
        </label>
        <span className="soft">at a full charge; a battery that is cold or old gives less</span>
      </div>
      <div className="sheet scroll-x">
        <DataTable className="power">
          <thead>
            <tr>
              <th>Battery</th>
              <th>Drawn</th>
              <th>Lasts</th>
            </tr>
          </thead>
          <tbody>
            {lives.map((life) => (
              <tr key={life.device.id}>
                <td>{life.device.name}</td>
                <td className="num">
                  {tenths(life.drawn)} {life.unit}
                </td>
                <td>
                  {life.hours === null ? (
                    <span className="soft">nothing draws from it</span>
                  ) : (
                    <Why evidence={why.batteryLasts(life)} />
                  )}{' '}
                  {life.hours !== null && life.hours < needed && <b className="powerlow">too short</b>}
                </td>
              </tr>
            ))}
          </tbody>
        </DataTable>
      </div>
    </section>
  );
}
