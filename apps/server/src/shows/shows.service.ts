import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { applySteps, demoShow, emptyShow, exportShow, flyShow, importShow, problem, readBatch, sameData, type Show, starterById } from '@yunta/core';
import type { AppliedBatch, HistoryEntry, ShowAtRevision, ShowSummary } from '@yunta/contract';
import { DataSource, type EntityManager } from 'typeorm';
import { BatchRow, ShowRow } from '../persistence/entities.ts';
import { Refused } from '../platform/problem.ts';
import type { NewShowDto, SentBatchDto } from './dto.ts';

/** The one local workspace and user of today. */
export const here = { workspace: 'local', actor: 'me' } as const;

@Injectable()
export class ShowsService {
  constructor(@InjectDataSource() @Inject(DataSource) private readonly database: DataSource) {}

  async list(): Promise<ShowSummary[]> {
    const rows = await this.database.getRepository(ShowRow).find({ where: { workspace: here.workspace }, order: { changedAt: 'DESC' }, select: { id: true, name: true, revision: true, changedAt: true, devices: true, sounds: true } });
    return rows.map(({ id, name, revision, changedAt, devices, sounds }) => ({ id, name, revision, changedAt: changedAt.toISOString(), devices, sounds }));
  }

  async isEmpty(): Promise<boolean> {
    return (await this.database.getRepository(ShowRow).count()) === 0;
  }

  async create(body: NewShowDto): Promise<ShowSummary> {
    const show = this.madeFrom(body);
    const row: ShowRow = { ...here, id: randomUUID(), revision: 0, ...projected(show), changedAt: new Date() };
    await this.database.getRepository(ShowRow).insert(row);
    return { id: row.id, name: row.name, revision: 0, changedAt: row.changedAt.toISOString(), devices: row.devices, sounds: row.sounds };
  }

  async read(id: string): Promise<ShowAtRevision> {
    const row = await this.row(this.database.manager, id, false);
    return { id, revision: row.revision, ...documentsOf(row) };
  }

  async export(id: string): Promise<string> {
    return exportShow(documentsOf(await this.row(this.database.manager, id, false)));
  }

  async remove(id: string): Promise<void> {
    await this.row(this.database.manager, id, false);
    await this.database.getRepository(ShowRow).delete({ workspace: here.workspace, id });
  }

  /** Applies a batch once: the same code as in the page, in a transaction, the show's row locked. */
  async apply(id: string, body: SentBatchDto): Promise<AppliedBatch> {
    const { base, ...sent } = body;
    const read = readBatch(sent);
    if (!read.ok) throw new Refused(read.problems);
    const batch = read.value;
    return this.database.transaction(async (manager) => {
      const row = await this.row(manager, id, true);
      const before = await manager.findOneBy(BatchRow, { workspace: here.workspace, show: id, id: batch.id });
      if (before) return this.repeated(before, batch.steps);
      if (base > row.revision) throw new Refused([problem('/base', 'out-of-domain', { value: base, expected: `at most ${row.revision}` })]);
      const result = applySteps(documentsOf(row), batch.steps);
      if (!result.ok) throw new Refused(result.problems);
      const revision = row.revision + 1;
      const at = new Date();
      await manager.update(ShowRow, { workspace: here.workspace, id }, { ...projected(result.value), actor: here.actor, revision, changedAt: at });
      await manager.insert(BatchRow, { ...here, show: id, id: batch.id, revision, command: JSON.stringify(batch.command), steps: JSON.stringify(batch.steps), at });
      return { revision, repeated: false };
    });
  }

  async history(id: string): Promise<HistoryEntry[]> {
    await this.row(this.database.manager, id, false);
    const rows = await this.database.getRepository(BatchRow).find({ where: { workspace: here.workspace, show: id }, order: { revision: 'DESC' }, take: 500 });
    return rows.map((row) => ({ revision: row.revision, at: row.at.toISOString(), actor: row.actor, command: JSON.parse(row.command) }));
  }

  /** A retry gets the first result; another batch under a used id is refused. */
  private repeated(before: BatchRow, steps: readonly unknown[]): AppliedBatch {
    if (!sameData(JSON.parse(before.steps), JSON.parse(JSON.stringify(steps)))) throw new Refused([problem('/id', 'already-there', { what: 'batch', id: before.id })]);
    return { revision: before.revision, repeated: true };
  }

  private async row(manager: EntityManager, id: string, lock: boolean): Promise<ShowRow> {
    const row = await manager.findOne(ShowRow, { where: { workspace: here.workspace, id }, ...(lock ? { lock: { mode: 'pessimistic_write' as const } } : {}) });
    if (!row) throw new Refused([problem('', 'not-found', { what: 'rig', id: id.slice(0, 64) })]);
    return row;
  }

  private madeFrom(body: NewShowDto): Show {
    if (body.kind === 'demo') return body.rig === 'fly' ? flyShow() : demoShow();
    if (body.kind === 'empty') return emptyShow('rig', (body.name ?? 'New rig').normalize('NFC'));
    if (body.kind === 'starter') {
      if (body.starter === undefined) throw new Refused([problem('/starter', 'missing-field', { field: 'starter' })]);
      const { make, name } = starterById(body.starter);
      return make('rig', (body.name ?? name).normalize('NFC'));
    }
    const read = importShow(body.text ?? '');
    if (!read.ok) throw new Refused(read.problems);
    return read.value;
  }
}

const documentsOf = (row: ShowRow): Show => ({ rig: JSON.parse(row.rig), songbook: JSON.parse(row.songbook) });

/** What is stored of a show, and what is queried across rigs. */
const projected = (show: Show) => ({
  name: show.rig.name,
  rig: JSON.stringify(show.rig),
  songbook: JSON.stringify(show.songbook),
  devices: Object.keys(show.rig.devices).length,
  sounds: Object.keys(show.rig.sounds).length,
});
