import { type Figures, figureRows, type Show } from '@yunta/core';
import { DataTable } from '../../ui/DataTable.tsx';
import { useFigures } from './use-figures.ts';

/** The figures of two shows; where they differ the row says so. */
export function FigureTable({
  shows,
  names,
}: {
  readonly shows: readonly [Show, Show];
  readonly names: readonly [string, string];
}) {
  const [a, b] = [useFigures(shows[0]), useFigures(shows[1])];
  return (
    <div className="sheet" style={{ marginTop: 6 }}>
      <DataTable
        label={`${names[0]} and ${names[1]}, side by side`}
        columns={[{ head: '', width: 260 }, { head: names[0] }, { head: names[1] }]}
      >
        {figureRows.map(({ label, of }) => (
          <tr key={label}>
            <th scope="row" style={{ fontWeight: 400, borderBottom: '1px solid var(--line)', padding: '3px 8px' }}>
              {label}
            </th>
            <FigureCell figures={a} of={of} />
            <FigureCell figures={b} of={of} differs={a !== null && b !== null && of(a) !== of(b)} />
          </tr>
        ))}
      </DataTable>
    </div>
  );
}

const FigureCell = ({
  figures,
  of,
  differs = false,
}: {
  readonly figures: Figures | null;
  readonly of: (figures: Figures) => string;
  readonly differs?: boolean;
}) => <td className="num">{figures && (differs ? <b>{of(figures)}</b> : of(figures))}</td>;
