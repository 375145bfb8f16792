import type { ReactNode, TableHTMLAttributes } from 'react';
import { Table } from '@mantine/core';

/** A column: its heading, and how wide it is where it must not follow what stands in it. */
export interface TableColumn {
  readonly head: ReactNode;
  readonly width?: number;
}

interface DataTableProps extends Omit<TableHTMLAttributes<HTMLTableElement>, 'children'> {
  readonly label?: string;
  /** Where they are given, the children are the rows alone. */
  readonly columns?: readonly TableColumn[];
  readonly children: ReactNode;
}

/** Rows of facts, dense. */
export function DataTable({ label, columns, children, className, ...props }: DataTableProps) {
  return (
    <Table unstyled className={`plain ${className ?? ''}`} aria-label={label} {...(props as Record<string, unknown>)}>
      {columns ? (
        <>
          <Table.Thead>
            <Table.Tr>
              {columns.map(({ head, width }, i) =>
                head === '' ? (
                  <Table.Td key={i} style={{ width }} />
                ) : (
                  <Table.Th key={i} scope="col" style={{ width }}>
                    {head}
                  </Table.Th>
                ),
              )}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>{children}</Table.Tbody>
        </>
      ) : (
        children
      )}
    </Table>
  );
}
