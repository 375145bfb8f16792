import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When a rig was deleted: for a time it can be brought back. */
export class DeletedShows1764300000007 implements MigrationInterface {
  name = 'DeletedShows1764300000007';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shows ADD COLUMN IF NOT EXISTS deleted_at datetime(6) NULL');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shows DROP COLUMN IF EXISTS deleted_at');
  }
}
