import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Revisions that somebody gave a name to, with the documents as they were. */
export class Revisions1764200000005 implements MigrationInterface {
  name = 'Revisions1764200000005';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE IF NOT EXISTS revisions (
        workspace varchar(36) NOT NULL,
        show_id varchar(64) NOT NULL,
        id varchar(64) NOT NULL,
        actor varchar(64) NOT NULL,
        name varchar(200) NOT NULL,
        revision int NOT NULL,
        rig longtext NOT NULL CHECK (json_valid(rig)),
        songbook longtext NOT NULL CHECK (json_valid(songbook)),
        at datetime(6) NOT NULL,
        PRIMARY KEY (workspace, show_id, id),
        CONSTRAINT revisions_of_show FOREIGN KEY (workspace, show_id) REFERENCES shows (workspace, id) ON DELETE CASCADE
      ) ENGINE=InnoDB`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS revisions');
  }
}
