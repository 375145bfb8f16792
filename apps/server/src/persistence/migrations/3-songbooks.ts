import type { MigrationInterface, QueryRunner } from 'typeorm';
import { hasColumn, hasConstraint } from '../schema.ts';

/** The songbook becomes a document of its own, so that several rigs can share one. Each rig keeps the one it had. */
export class Songbooks1764100000003 implements MigrationInterface {
  name = 'Songbooks1764100000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE IF NOT EXISTS songbooks (
        workspace varchar(36) NOT NULL,
        id varchar(64) NOT NULL,
        actor varchar(64) NOT NULL,
        revision int NOT NULL,
        document longtext NOT NULL CHECK (json_valid(document)),
        changed_at datetime(6) NOT NULL,
        PRIMARY KEY (workspace, id)
      ) ENGINE=InnoDB`);
    if (await hasColumn(runner, 'shows', 'songbook')) {
      await runner.query(`INSERT IGNORE INTO songbooks (workspace, id, actor, revision, document, changed_at)
        SELECT workspace, id, actor, 0, songbook, changed_at FROM shows`);
    }
    await runner.query('ALTER TABLE shows ADD COLUMN IF NOT EXISTS songbook_id varchar(64) NULL');
    await runner.query('UPDATE shows SET songbook_id = id WHERE songbook_id IS NULL');
    const refers = (await hasConstraint(runner, 'shows', 'songbook_of_show'))
      ? ''
      : ', ADD CONSTRAINT songbook_of_show FOREIGN KEY (workspace, songbook_id) REFERENCES songbooks (workspace, id)';
    await runner.query(
      `ALTER TABLE shows MODIFY songbook_id varchar(64) NOT NULL, DROP COLUMN IF EXISTS songbook${refers}`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE shows DROP FOREIGN KEY songbook_of_show, ADD COLUMN songbook longtext NOT NULL DEFAULT '{}' CHECK (json_valid(songbook))",
    );
    await runner.query(
      'UPDATE shows JOIN songbooks ON songbooks.workspace = shows.workspace AND songbooks.id = shows.songbook_id SET shows.songbook = songbooks.document',
    );
    await runner.query('ALTER TABLE shows ALTER COLUMN songbook DROP DEFAULT, DROP COLUMN songbook_id');
    await runner.query('DROP TABLE songbooks');
  }
}
