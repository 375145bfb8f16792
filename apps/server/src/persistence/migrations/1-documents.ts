import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Documents1764000000001 implements MigrationInterface {
  name = 'Documents1764000000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE IF NOT EXISTS shows (
        workspace varchar(36) NOT NULL,
        id varchar(64) NOT NULL,
        actor varchar(64) NOT NULL,
        name varchar(200) NOT NULL,
        revision int NOT NULL,
        rig longtext NOT NULL CHECK (json_valid(rig)),
        songbook longtext NOT NULL CHECK (json_valid(songbook)),
        devices int NOT NULL,
        sounds int NOT NULL,
        changed_at datetime(6) NOT NULL,
        PRIMARY KEY (workspace, id)
      ) ENGINE=InnoDB`);
    await runner.query(`
      CREATE TABLE IF NOT EXISTS batches (
        workspace varchar(36) NOT NULL,
        show_id varchar(64) NOT NULL,
        id varchar(64) NOT NULL,
        actor varchar(64) NOT NULL,
        revision int NOT NULL,
        command longtext NOT NULL CHECK (json_valid(command)),
        steps longtext NOT NULL CHECK (json_valid(steps)),
        at datetime(6) NOT NULL,
        PRIMARY KEY (workspace, show_id, id),
        UNIQUE KEY batches_by_revision (workspace, show_id, revision),
        CONSTRAINT batches_of_show FOREIGN KEY (workspace, show_id) REFERENCES shows (workspace, id) ON DELETE CASCADE
      ) ENGINE=InnoDB`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS batches');
    await runner.query('DROP TABLE IF EXISTS shows');
  }
}
