import type { QueryRunner } from 'typeorm';

/** Whether a table of the schema in use has a column. */
export const hasColumn = async (runner: QueryRunner, table: string, column: string): Promise<boolean> =>
  (
    await runner.query(
      'SELECT 1 FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? AND column_name = ?',
      [table, column],
    )
  ).length > 0;

export const hasTable = async (runner: QueryRunner, table: string): Promise<boolean> =>
  (
    await runner.query('SELECT 1 FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = ?', [
      table,
    ])
  ).length > 0;

/** Whether a foreign key of this name is there. */
export const hasConstraint = async (runner: QueryRunner, table: string, name: string): Promise<boolean> =>
  (
    await runner.query(
      'SELECT 1 FROM information_schema.table_constraints WHERE constraint_schema = DATABASE() AND table_name = ? AND constraint_name = ?',
      [table, name],
    )
  ).length > 0;
