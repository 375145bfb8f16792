import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Ticks1764050000002 implements MigrationInterface {
  name = 'Ticks1764050000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE IF NOT EXISTS ticks (
        workspace varchar(36) NOT NULL,
        show_id varchar(64) NOT NULL,
        line varchar(200) COLLATE utf8mb4_bin NOT NULL,
        actor varchar(64) NOT NULL,
        said varchar(1000) NOT NULL,
        at datetime(6) NOT NULL,
        PRIMARY KEY (workspace, show_id, line),
        CONSTRAINT ticks_of_show FOREIGN KEY (workspace, show_id) REFERENCES shows (workspace, id) ON DELETE CASCADE
      ) ENGINE=InnoDB`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS ticks');
  }
}
