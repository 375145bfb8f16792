import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Two batches whose ids differ only in capitals are two batches. */
export class BatchIds1764200000004 implements MigrationInterface {
  name = 'BatchIds1764200000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE batches MODIFY id varchar(64) COLLATE utf8mb4_bin NOT NULL');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE batches MODIFY id varchar(64) COLLATE utf8mb4_unicode_ci NOT NULL');
  }
}
