import { Button } from '@mantine/core';
import { type Conflict, placeWords, settleConflicts, variantNamed } from '@yunta/core';
import { useSaved, useShow } from '../../../api/rig.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';

/** Where the variant in use and the rig have parted since: what stands, and who is to have the last word. */
export function Conflicts() {
  const { store, wiring } = useShow();
  const { base, variant, conflicts } = useSaved();
  if (variant === null || conflicts.length === 0) return null;
  const settle = (which: readonly Conflict[], side: 'tonight' | 'base') =>
    store.runOnBase(settleConflicts(base, variant, which, side));
  return (
    <section aria-label="Differences with the rig" style={{ marginTop: 14 }}>
      <div style={{ display: 'flex', alignItems: 'baseline', gap: 12 }}>
        <h2>
          The rig has changed under {variantNamed(base, variant)!.name}{' '}
          <span className="soft num" style={{ fontWeight: 400, fontSize: 14 }}>
            {conflicts.length}
          </span>
        </h2>
        <Button variant="default" size="compact-xs" onClick={() => settle(conflicts, 'tonight')}>
          Keep all as in the variant
        </Button>
        <Button variant="default" size="compact-xs" onClick={() => settle(conflicts, 'base')}>
          Take all from the rig
        </Button>
      </div>
      <div className="sheet">
        <DataTable
          label="Differences with the rig"
          columns={[{ head: 'Where' }, { head: 'What happened' }, { head: '' }]}
        >
          {conflicts.map((conflict, i) => (
            <tr key={i}>
              <td>{placeWords(wiring, conflict.at)}</td>
              <td className="soft">{whatHappened(conflict)}</td>
              <td style={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
                {conflict.kind === 'changed' && (
                  <>
                    <LinkButton onClick={() => settle([conflict], 'tonight')}>Keep the variant’s</LinkButton>{' '}
                    <LinkButton onClick={() => settle([conflict], 'base')}>Take the rig’s</LinkButton>
                  </>
                )}
              </td>
            </tr>
          ))}
        </DataTable>
      </div>
    </section>
  );
}

function whatHappened(conflict: Conflict): string {
  switch (conflict.kind) {
    case 'changed':
      return `the rig has ${told(conflict.base)} now, the variant ${told(conflict.tonight)}; the variant’s stands`;
    case 'gone':
      return 'what the variant changes is not in the rig any more';
    case 'left-out':
      return 'it refers to what is not there any more, and is left out';
    case 'impossible':
      return 'it cannot be put over the rig as it is now; the rig itself is shown';
  }
}

/** A plain value as it is; of anything larger, that it is another one. */
const told = (value: unknown): string =>
  value === undefined || value === null ? 'nothing' : typeof value === 'object' ? 'another one' : `“${String(value)}”`;
