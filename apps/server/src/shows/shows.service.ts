import { randomUUID } from 'node:crypto';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import {
  applySteps,
  type Batch,
  checkShow,
  demoShow,
  describeProblem,
  emptyShow,
  exportShow,
  flyShow,
  importShow,
  invertSteps,
  problem,
  readBatch,
  repairShow,
  type Rig,
  type Step,
  stepOfToday,
  storedShow,
  sameData,
  sharingProblems,
  type Show,
  starterById,
  stepsBetween,
  withSongbook,
} from '@yunta/core';
import type { AppliedBatch, DeletedShow, HistoryEntry, PastShow, ShowAtRevision, ShowSummary } from '@yunta/contract';
import { DataSource, type EntityManager, IsNull, LessThan, MoreThan, Not } from 'typeorm';
import { BatchRow, ShowRow, SongbookRow } from '../persistence/entities.ts';
import { withRetries } from '../persistence/retry.ts';
import { ProblemException } from '../platform/problem.ts';
import type { NewShowDto, SentBatchDto } from './dto.ts';
import { storableName } from './storable-name.ts';

/** The one local workspace and user of today. */
export const localTenant = { workspace: 'local', actor: 'me' } as const;

@Injectable()
export class ShowsService {
  private readonly logger = new Logger('shows');

  constructor(@InjectDataSource() @Inject(DataSource) private readonly database: DataSource) {}

  async list(): Promise<ShowSummary[]> {
    const rows = await this.database.getRepository(ShowRow).find({
      where: { workspace: localTenant.workspace },
      order: { changedAt: 'DESC' },
      select: { id: true, name: true, revision: true, changedAt: true, devices: true, sounds: true, songbook: true },
    });
    return rows.map(summaryOf);
  }

  async isEmpty(): Promise<boolean> {
    return (await this.database.getRepository(ShowRow).count()) === 0;
  }

  /** Both rigs of the demo over its one songbook. */
  async createDemo(): Promise<void> {
    const { id } = await this.create({ kind: 'demo', rig: 'combo' });
    await this.create({ kind: 'demo', rig: 'fly', songbookOf: id });
    await this.database
      .getRepository(ShowRow)
      .update({ workspace: localTenant.workspace, id }, { changedAt: new Date() });
  }

  async create(body: NewShowDto): Promise<ShowSummary> {
    const show = body.kind === 'copy' ? await this.copyOf(body) : this.buildShow(body);
    if (body.songbookOf !== undefined && body.kind === 'file')
      throw new ProblemException([problem('/songbookOf', 'unknown-field', { field: 'songbookOf' })]);
    const made = async (manager: EntityManager, shared: SongbookRow | null): Promise<ShowSummary> => {
      const id = randomUUID();
      const at = new Date();
      const book = shared ?? {
        ...localTenant,
        id,
        revision: 0,
        document: JSON.stringify(show.songbook),
        changedAt: at,
      };
      if (!shared) await manager.insert(SongbookRow, book);
      const { rig, songbook } = shared ? withSongbook(show.rig, documentsOf({ rig: 'null' }, shared).songbook) : show;
      const checked = checkShow({ rig, songbook });
      if (!checked.ok) throw new ProblemException(checked.problems);
      const row: ShowRow = { ...localTenant, id, revision: 0, songbook: book.id, ...projectedRig(rig), changedAt: at };
      await manager.insert(ShowRow, row);
      return summaryOf(row);
    };
    if (body.songbookOf === undefined)
      return withRetries(() => this.database.transaction((manager) => made(manager, null)));
    return this.holding(body.songbookOf, 'to read', (manager, { book }) => made(manager, book));
  }

  /** The rig as it is; one that was stored before today's checks and does not pass them is repaired first. */
  async read(id: string): Promise<ShowAtRevision> {
    const at = await this.asStored(id);
    if (checkShow({ rig: at.rig, songbook: at.songbook }).ok) return at;
    await this.repair(id);
    return this.asStored(id);
  }

  async mustBeThere(id: string): Promise<void> {
    await this.rowOf(this.database.manager, id);
  }

  private asStored(id: string): Promise<ShowAtRevision> {
    return this.database.transaction('REPEATABLE READ', async (manager) =>
      this.toDto(manager, await this.rows(manager, id)),
    );
  }

  /**
   * Repairs a stored rig and its songbook as an edit that the history tells; leaves what cannot be repaired as it is.
   */
  private async repair(id: string): Promise<void> {
    await this.holding(id, 'to write', async (manager, { row, book }) => {
      const was = documentsOf(row, book);
      const repaired = repairShow(was);
      if (!repaired) {
        const checked = checkShow(was);
        return this.logger.warn(
          `rig ${id} cannot be repaired: ${
            checked.ok
              ? ''
              : checked.problems
                  .slice(0, 5)
                  .map((problem) => `${problem.pointer} ${describeProblem(problem)}`)
                  .join(' ')
          }`,
        );
      }
      const steps = stepsBetween(was, repaired.show);
      if (steps.length === 0) return;
      this.logger.warn(`repaired rig ${id} at ${repaired.places.slice(0, 20).join(' ')}`);
      await this.store(manager, { row, book }, repaired.show, {
        id: `repair-${randomUUID()}`,
        command: { name: 'repair', facts: { count: repaired.places.length } },
        steps,
      });
    });
  }

  async export(id: string): Promise<string> {
    const { rig, songbook } = await this.read(id);
    return exportShow({ rig, songbook });
  }

  /** The songbook goes with the last rig that plays from it. */
  /** The rig is found by nobody any more; what was deleted long ago goes for good. */
  async remove(id: string): Promise<void> {
    await this.holding(id, 'to write', (manager) =>
      manager.softDelete(ShowRow, { workspace: localTenant.workspace, id }),
    );
    await this.forgetLongDeleted(new Date(Date.now() - keptFor));
  }

  /** Rigs that can be brought back, the last deleted first. */
  async deleted(): Promise<DeletedShow[]> {
    const rows = await this.database.getRepository(ShowRow).find({
      where: { workspace: localTenant.workspace, deletedAt: Not(IsNull()) },
      withDeleted: true,
      order: { deletedAt: 'DESC' },
      select: { id: true, name: true, deletedAt: true },
    });
    return rows.map((row) => ({ id: row.id, name: row.name, deletedAt: row.deletedAt!.toISOString() }));
  }

  /** Brings a deleted rig back as it was; what songs that it shares have lost meanwhile is repaired when it is read. */
  async restore(id: string): Promise<ShowSummary> {
    const where = { workspace: localTenant.workspace, id };
    const restored = await this.database
      .getRepository(ShowRow)
      .update({ ...where, deletedAt: Not(IsNull()) }, { deletedAt: null });
    if (restored.affected !== 1) throw notThere(id);
    return summaryOf(await this.rowOf(this.database.manager, id));
  }

  /** Deletes for good, with the songbooks that nothing plays from then. */
  private async forgetLongDeleted(before: Date): Promise<void> {
    await withRetries(() =>
      this.database.transaction(async (manager) => {
        const old = await manager.find(ShowRow, {
          where: { workspace: localTenant.workspace, deletedAt: LessThan(before) },
          withDeleted: true,
          select: { id: true, songbook: true },
        });
        for (const { id, songbook } of old) {
          await manager.delete(ShowRow, { workspace: localTenant.workspace, id });
          const left = await manager.count(ShowRow, {
            where: { workspace: localTenant.workspace, songbook },
            withDeleted: true,
          });
          if (left === 0) await manager.delete(SongbookRow, { workspace: localTenant.workspace, id: songbook });
        }
      }),
    );
  }

  /** Takes a rig out of a shared songbook: it goes on with a copy. */
  async ownSongbook(id: string): Promise<ShowAtRevision> {
    return this.holding(id, 'to write', async (manager, { row, book }) => {
      if ((await this.sharing(manager, row)).length === 0) return this.toDto(manager, { row, book });
      const own: SongbookRow = {
        ...book,
        ...localTenant,
        id: randomUUID(),
        revision: book.revision + 1,
        changedAt: new Date(),
      };
      await manager.insert(SongbookRow, own);
      await manager.update(ShowRow, { workspace: localTenant.workspace, id }, { songbook: own.id });
      return this.toDto(manager, { row: { ...row, songbook: own.id }, book: own });
    });
  }

  /**
   * Applies a batch once: the same code as in the page, in a transaction, the rig's row and its songbook locked. What
   * it does to a shared songbook must leave the other rigs able to play.
   */
  async apply(id: string, body: SentBatchDto): Promise<AppliedBatch> {
    const { base, ...sent } = body;
    const read = readBatch(sent);
    if (!read.ok) throw new ProblemException(read.problems);
    const batch = read.value;
    const writes = writesSongbook(batch);
    return this.holding(id, writes ? 'to write' : 'to read', async (manager, { row, book }) => {
      const before = await manager.findOneBy(BatchRow, { workspace: localTenant.workspace, show: id, id: batch.id });
      if (before) return { ...this.repeated(before, batch.steps), songbookRevision: book.revision };
      if (base > row.revision)
        throw new ProblemException([
          problem('/base', 'out-of-domain', { value: base, expected: `at most ${row.revision}` }),
        ]);
      const was = documentsOf(row, book);
      const result = applySteps(was, batch.steps);
      if (!result.ok) throw new ProblemException(result.problems);
      if (result.value === was) throw new ProblemException([problem('', 'nothing-changes')]);
      if (writes) {
        const problems = sharingProblems(
          was.songbook,
          result.value.songbook,
          (await this.sharing(manager, row)).map((other) => documentsOf(other, book).rig),
        );
        if (problems.length > 0) throw new ProblemException(problems);
      }
      return { ...(await this.store(manager, { row, book }, result.value, batch)), repeated: false };
    });
  }

  /** Writes what a batch made of a rig and, where it has a step there, of its songbook. Both rows are locked. */
  private async store(
    manager: EntityManager,
    { row, book }: Rows,
    { rig, songbook }: Show,
    batch: Batch,
  ): Promise<Omit<AppliedBatch, 'repeated'>> {
    const at = new Date();
    const revision = row.revision + 1;
    const writes = writesSongbook(batch);
    if (writes)
      await manager.update(
        SongbookRow,
        { workspace: localTenant.workspace, id: book.id },
        { document: JSON.stringify(songbook), actor: localTenant.actor, revision: book.revision + 1, changedAt: at },
      );
    await manager.update(
      ShowRow,
      { workspace: localTenant.workspace, id: row.id },
      { ...projectedRig(rig), actor: localTenant.actor, revision, changedAt: at },
    );
    await manager.insert(BatchRow, {
      ...localTenant,
      show: row.id,
      id: batch.id,
      revision,
      command: JSON.stringify(batch.command),
      steps: JSON.stringify(batch.steps),
      at,
    });
    return { revision, songbookRevision: book.revision + (writes ? 1 : 0) };
  }

  async history(id: string): Promise<HistoryEntry[]> {
    await this.rows(this.database.manager, id);
    const rows = await this.database
      .getRepository(BatchRow)
      .find({ where: { workspace: localTenant.workspace, show: id }, order: { revision: 'DESC' }, take: 500 });
    return rows.map((row) => ({
      revision: row.revision,
      at: row.at.toISOString(),
      actor: row.actor,
      command: JSON.parse(row.command),
    }));
  }

  /**
   * The rig as it was after an earlier edit: what came after it is taken back from what is there now, the last first.
   * Where another rig has changed the shared songs since, the songs are those of today.
   */
  async past(id: string, revision: string): Promise<PastShow> {
    return this.database.transaction('REPEATABLE READ', async (manager) => {
      const { row, book } = await this.rows(manager, id);
      const wanted = /^\d{1,9}$/.test(revision) ? Number(revision) : Infinity;
      const unknown = () =>
        new ProblemException([problem('', 'not-found', { what: 'revision', id: revision.slice(0, 64) })]);
      if (wanted > row.revision) throw unknown();
      const later = await manager.find(BatchRow, {
        where: { workspace: localTenant.workspace, show: id, revision: MoreThan(wanted) },
        order: { revision: 'DESC' },
      });
      if (later.length !== row.revision - wanted) throw unknown();
      const back = later.flatMap(({ steps }) => invertSteps((JSON.parse(steps) as readonly Step[]).map(stepOfToday)));
      const now = documentsOf(row, book);
      const whole = applySteps(now, back);
      const then = whole.ok
        ? whole
        : applySteps(
            now,
            back.filter((step) => step.doc === 'rig'),
          );
      if (!then.ok) throw unknown();
      return { revision: wanted, ...then.value, songsOfToday: !whole.ok };
    });
  }

  /** A retry gets the first result; another batch under a used id is refused. */
  private repeated(before: BatchRow, steps: readonly unknown[]): Omit<AppliedBatch, 'songbookRevision'> {
    const done = (JSON.parse(before.steps) as readonly Step[]).map(stepOfToday);
    if (!sameData(done, JSON.parse(JSON.stringify(steps))))
      throw new ProblemException([problem('/id', 'already-there', { what: 'batch', id: before.id })]);
    return { revision: before.revision, repeated: true };
  }

  /**
   * Works on a rig and its songbook, both locked: the songbook first, whoever comes, so that nobody waits for another
   * in a circle; the rig always to be written. A rig that went over to another songbook meanwhile is taken up again.
   */
  private async holding<T>(
    id: string,
    book: 'to read' | 'to write',
    work: (manager: EntityManager, rows: Rows) => Promise<T>,
  ): Promise<T> {
    const mode = book === 'to write' ? ('pessimistic_write' as const) : ('pessimistic_read' as const);
    for (;;) {
      const { songbook } = await this.rowOf(this.database.manager, id);
      const attempt = () =>
        this.database.transaction(async (manager) => {
          const held = await manager.findOne(SongbookRow, {
            where: { workspace: localTenant.workspace, id: songbook },
            lock: { mode },
          });
          const row = await manager.findOne(ShowRow, {
            where: { workspace: localTenant.workspace, id },
            lock: { mode: 'pessimistic_write' },
          });
          if (!row) throw notThere(id);
          return held && row.songbook === held.id ? { result: await work(manager, { row, book: held }) } : null;
        });
      const done = await withRetries(attempt);
      if (done) return done.result;
    }
  }

  private async rows(manager: EntityManager, id: string): Promise<Rows> {
    const row = await this.rowOf(manager, id);
    return {
      row,
      book: await manager.findOneByOrFail(SongbookRow, { workspace: localTenant.workspace, id: row.songbook }),
    };
  }

  private async rowOf(manager: EntityManager, id: string): Promise<ShowRow> {
    const row = await manager.findOneBy(ShowRow, { workspace: localTenant.workspace, id });
    // The database takes ids for the same that differ in capitals.
    if (row?.id !== id) throw notThere(id);
    return row;
  }

  /**
   * The other rigs over the same songbook. Whoever asks holds the songbook to write, so nobody writes to any of them:
   * no lock is taken, and none waited for.
   */
  private sharing(manager: EntityManager, { id, songbook }: ShowRow): Promise<ShowRow[]> {
    return manager.find(ShowRow, {
      where: { workspace: localTenant.workspace, songbook, id: Not(id) },
      order: { name: 'ASC' },
    });
  }

  private async toDto(manager: EntityManager, rows: Rows): Promise<ShowAtRevision> {
    const { row, book } = rows;
    const others = await manager.find(ShowRow, {
      where: { workspace: localTenant.workspace, songbook: book.id, id: Not(row.id) },
      order: { name: 'ASC' },
      select: { name: true },
    });
    return {
      id: row.id,
      revision: row.revision,
      songbookRevision: book.revision,
      sharedWith: others.map((other) => other.name),
      ...documentsOf(row, book),
    };
  }

  /** The rig as it is now, under another name; what it shares and what it has been through stay where they are. */
  private async copyOf({ of, name }: NewShowDto): Promise<Show> {
    if (of === undefined) throw new ProblemException([problem('/of', 'missing-field', { field: 'of' })]);
    const { rig, songbook } = await this.read(of);
    return { rig: { ...rig, name: storableName(name ?? `${rig.name}, copy`) }, songbook };
  }

  private buildShow(body: NewShowDto): Show {
    if (body.kind === 'demo') return body.rig === 'fly' ? flyShow() : demoShow();
    if (body.kind === 'empty') return emptyShow('rig', storableName(body.name ?? 'New rig'));
    if (body.kind === 'starter') {
      if (body.starter === undefined)
        throw new ProblemException([problem('/starter', 'missing-field', { field: 'starter' })]);
      const { make, name } = starterById(body.starter);
      return make('rig', storableName(body.name ?? name));
    }
    const read = importShow(body.text ?? '');
    if (!read.ok) throw new ProblemException(read.problems);
    return read.value;
  }
}

/** A deleted rig can be brought back for so long, ms: thirty days. */
const keptFor = 30 * 24 * 60 * 60 * 1000;

const writesSongbook = ({ steps }: Batch): boolean => steps.some((step) => step.doc === 'songbook');

interface Rows {
  readonly row: ShowRow;
  readonly book: SongbookRow;
}

const notThere = (id: string): ProblemException =>
  new ProblemException([problem('', 'not-found', { what: 'rig', id: id.slice(0, 64) })]);

/** As they are called today, whatever version they were stored in. */
const documentsOf = (row: Pick<ShowRow, 'rig'>, book: Pick<SongbookRow, 'document'>): Show =>
  storedShow(JSON.parse(row.rig), JSON.parse(book.document));

const summaryOf = ({ id, name, revision, changedAt, devices, sounds, songbook }: ShowRow): ShowSummary => ({
  id,
  name,
  revision,
  changedAt: changedAt.toISOString(),
  devices,
  sounds,
  songbook,
});

/** What is stored of a rig, and what is queried across rigs. */
const projectedRig = (rig: Rig) => ({
  name: rig.name,
  rig: JSON.stringify(rig),
  devices: Object.keys(rig.devices).length,
  sounds: Object.keys(rig.sounds).length,
});
