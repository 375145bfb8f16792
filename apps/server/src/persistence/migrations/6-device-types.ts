import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Device types that people made, for every rig. */
export class DeviceTypes1764300000006 implements MigrationInterface {
  name = 'DeviceTypes1764300000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE IF NOT EXISTS device_types (
        workspace varchar(36) NOT NULL,
        id varchar(120) NOT NULL,
        actor varchar(64) NOT NULL,
        name varchar(200) NOT NULL,
        revision int NOT NULL,
        document longtext NOT NULL CHECK (json_valid(document)),
        changed_at datetime(6) NOT NULL,
        PRIMARY KEY (workspace, id)
      ) ENGINE=InnoDB`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS device_types');
  }
}
