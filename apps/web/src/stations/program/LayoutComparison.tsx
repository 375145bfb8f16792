import { Button, Radio } from '@mantine/core';
import { commands, type Device, type SetCost, setCost } from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../api/rig.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { Fold } from '../../ui/Fold.tsx';
import type { LayoutKind, Proposal } from './layouts.ts';
import styles from './program.module.css';

interface LayoutComparisonProps {
  readonly controller: Device;
  readonly proposals: Readonly<Record<LayoutKind, Proposal>>;
  readonly chosen: LayoutKind;
  readonly onChoose: (kind: LayoutKind) => void;
  readonly onClose: () => void;
}

const kinds: readonly (readonly [LayoutKind, string])[] = [
  ['role', 'By role'],
  ['song', 'By song'],
];
const rows: readonly (readonly [string, (cost: SetCost) => number, string])[] = [
  ['Bank presses in mid-song', (cost) => cost.hurriedBankMoves, 'there is no time for them'],
  ['Bank presses between songs', (cost) => cost.otherBankMoves, ''],
  ['Foot travel in mid-song, mm', (cost) => cost.travelMm, 'from switch to switch'],
  ['Sounds off the switch of their role', (cost) => cost.mismatches, ''],
];

/** What the layouts cost in the set, side by side; the chosen one is shown in the plan before anything moves. */
export function LayoutComparison({ controller, proposals, chosen, onChoose, onClose }: LayoutComparisonProps) {
  const { show, run } = useShow();
  const now = useMemo(() => setCost(show, controller.id), [show, controller.id]);
  const proposal = proposals[chosen];
  const take = () => {
    if (run(commands.layOut(show, controller.id, chosen))) onClose();
  };
  return (
    <section className={`sheet ${styles.layouts}`} aria-label="Layouts">
      <DataTable
        label="What each layout costs in the set"
        className={styles.costs}
        columns={[
          { head: 'In the chosen set' },
          { head: 'As it is', width: 110 },
          ...kinds.map(([kind, name]) => ({
            head: (
              <Radio
                size="xs"
                name="layout"
                label={name}
                checked={chosen === kind}
                onChange={() => onChoose(kind)}
                autoFocus={kind === chosen}
              />
            ),
            width: 190,
          })),
        ]}
      >
        {rows.map(([name, of, note]) => (
          <tr key={name}>
            <td>
              {name} {note !== '' && <span className="soft">({note})</span>}
            </td>
            <td className="num">{of(now)}</td>
            {kinds.map(([kind]) => {
              const each = proposals[kind];
              return (
                <td key={kind} className="num" data-best={(each.fits && of(each.cost) < of(now)) || undefined}>
                  {each.fits ? of(each.cost) : '–'}
                </td>
              );
            })}
          </tr>
        ))}
        <tr>
          <td>Sounds that move</td>
          <td className="num">0</td>
          {kinds.map(([kind]) => {
            const each = proposals[kind];
            return (
              <td key={kind} className={each.fits ? 'num' : undefined}>
                {each.fits ? each.moved : each.reason}
              </td>
            );
          })}
        </tr>
      </DataTable>
      {proposal.fits && proposal.cost.inMidSong.length > 0 && (
        <Fold title={`${proposal.cost.inMidSong.length} bank changes in mid-song`}>
          <ul className="bare" style={{ padding: '0 10px 6px', fontSize: 13 }}>
            {proposal.cost.inMidSong.map((change, i) => (
              <li key={i}>
                {change.song}: {change.from} to {change.to}, {change.presses}{' '}
                {change.presses === 1 ? 'bank press' : 'bank presses'} before the slot’s own
              </li>
            ))}
          </ul>
        </Fold>
      )}
      <footer>
        {proposal.fits && (
          <span className="soft">
            The plan below shows it; what would move has an ochre edge. Nothing has moved yet.
          </span>
        )}
        <Button variant="default" onClick={onClose}>
          Leave as it is
        </Button>
        <Button disabled={!proposal.fits} onClick={take}>
          Lay out {chosen === 'role' ? 'by role' : 'by song'}
        </Button>
      </footer>
    </section>
  );
}
