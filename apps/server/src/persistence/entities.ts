import { Column, DeleteDateColumn, Entity, Index, PrimaryColumn } from 'typeorm';

/** Every table carries workspace and actor; today there is one of each. */
@Entity('shows')
export class ShowRow {
  @PrimaryColumn('varchar', { length: 36 }) workspace: string;
  @PrimaryColumn('varchar', { length: 64 }) id: string;
  @Column('varchar', { length: 64 }) actor: string;
  @Column('varchar', { length: 200 }) name: string;
  @Column('int') revision: number;
  @Column('longtext') rig: string;
  @Column('varchar', { name: 'songbook_id', length: 64 }) songbook: string;
  @Column('int') devices: number;
  @Column('int') sounds: number;
  @Column('datetime', { name: 'changed_at', precision: 6 }) changedAt: Date;
  /** A rig that was deleted is found by nobody, and can be brought back for a time. */
  @DeleteDateColumn({ name: 'deleted_at', type: 'datetime', precision: 6, nullable: true }) deletedAt?: Date | null;
}

/** Songs, parts and set lists; one or several rigs play from it. */
@Entity('songbooks')
export class SongbookRow {
  @PrimaryColumn('varchar', { length: 36 }) workspace: string;
  @PrimaryColumn('varchar', { length: 64 }) id: string;
  @Column('varchar', { length: 64 }) actor: string;
  /** Counts the batches that changed it, whichever rig they came through. */
  @Column('int') revision: number;
  @Column('longtext') document: string;
  @Column('datetime', { name: 'changed_at', precision: 6 }) changedAt: Date;
}

@Entity('batches')
@Index('batches_by_revision', ['workspace', 'show', 'revision'], { unique: true })
export class BatchRow {
  @PrimaryColumn('varchar', { length: 36 }) workspace: string;
  @PrimaryColumn('varchar', { name: 'show_id', length: 64 }) show: string;
  @PrimaryColumn('varchar', { length: 64 }) id: string;
  @Column('varchar', { length: 64 }) actor: string;
  @Column('int') revision: number;
  @Column('longtext') command: string;
  @Column('longtext') steps: string;
  @Column('datetime', { precision: 6 }) at: Date;
}

/** Ticks on the worksheet: never input to a judgement, so a plain table. */
@Entity('ticks')
export class TickRow {
  @PrimaryColumn('varchar', { length: 36 }) workspace: string;
  @PrimaryColumn('varchar', { name: 'show_id', length: 64 }) show: string;
  @PrimaryColumn('varchar', { length: 200 }) line: string;
  @Column('varchar', { length: 64 }) actor: string;
  @Column('varchar', { length: 1000 }) said: string;
  @Column('datetime', { precision: 6 }) at: Date;
}

/** A revision that somebody gave a name to, with the documents as they were. */
@Entity('revisions')
export class RevisionRow {
  @PrimaryColumn('varchar', { length: 36 }) workspace: string;
  @PrimaryColumn('varchar', { name: 'show_id', length: 64 }) show: string;
  @PrimaryColumn('varchar', { length: 64 }) id: string;
  @Column('varchar', { length: 64 }) actor: string;
  @Column('varchar', { length: 200 }) name: string;
  @Column('int') revision: number;
  @Column('longtext') rig: string;
  @Column('longtext') songbook: string;
  @Column('datetime', { precision: 6 }) at: Date;
}

/** A device type that somebody made, for every rig. */
@Entity('device_types')
export class DeviceTypeRow {
  @PrimaryColumn('varchar', { length: 36 }) workspace: string;
  @PrimaryColumn('varchar', { length: 120 }) id: string;
  @Column('varchar', { length: 64 }) actor: string;
  @Column('varchar', { length: 200 }) name: string;
  @Column('int') revision: number;
  @Column('longtext') document: string;
  @Column('datetime', { name: 'changed_at', precision: 6 }) changedAt: Date;
}
