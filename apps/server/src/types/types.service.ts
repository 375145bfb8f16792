import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import {
  type Arrival,
  arrivalOf,
  catalogue,
  checkType,
  type DeviceType,
  normalised,
  problem,
  type Problem,
  readTypes,
  typesLimit,
} from '@yunta/core';
import type { ArrivedTypes, KeptType } from '@yunta/contract';
import { DataSource, type EntityManager } from 'typeorm';
import { DeviceTypeRow } from '../persistence/entities.ts';
import { withRetries } from '../persistence/retry.ts';
import { ProblemException } from '../platform/problem.ts';
import { localTenant } from '../shows/shows.service.ts';

/** Device types that people made. A rig holds a copy of each that it uses: what happens here changes no rig. */
@Injectable()
export class TypesService {
  constructor(@InjectDataSource() @Inject(DataSource) private readonly database: DataSource) {}

  async list(): Promise<KeptType[]> {
    const rows = await this.database
      .getRepository(DeviceTypeRow)
      .find({ where: { workspace: localTenant.workspace }, order: { name: 'ASC', id: 'ASC' } });
    return rows.map((row) => ({ type: typeOf(row), at: row.changedAt.toISOString(), actor: row.actor }));
  }

  /**
   * Keeps a type that is not there, at the revision that it has, or the revision after `base`, which it was made from.
   */
  async keep(id: string, base: number | null, sent: Record<string, unknown>): Promise<DeviceType> {
    const given = normalised(sent) as DeviceType;
    const type = { ...given, id, ...(base === null ? {} : { revision: base + 1 }) };
    const problems: Problem[] = [...checkType(type, '/type')];
    if (isGeneric(id)) problems.push(problem('/type/id', 'already-there', { what: 'Type', id }));
    if (problems.length > 0) throw new ProblemException(problems);
    await this.writing(async (manager, rows) => {
      const there = rows.find((row) => row.id === id);
      if (!there && base !== null)
        throw new ProblemException([problem('', 'not-found', { what: 'type', id: id.slice(0, 120) })]);
      if (there && base !== there.revision)
        throw new ProblemException([problem('/base', 'old-value-differs', { now: `revision ${there.revision}` })]);
      if (!there) mustHold(rows.length + 1);
      await this.store(manager, type);
    });
    return type;
  }

  /** Takes in a file of types, all of it or nothing. */
  async bring(text: string): Promise<ArrivedTypes> {
    const read = readTypes(text);
    if (!read.ok) throw new ProblemException(read.problems);
    const counts: Record<Arrival, number> = { added: 0, newer: 0, same: 0, another: 0 };
    await this.writing(async (manager, rows) => {
      Object.assign(counts, { added: 0, newer: 0, same: 0, another: 0 });
      for (const type of read.value) {
        const row = rows.find(({ id }) => id === type.id);
        const there = row ? typeOf(row) : catalogue.find((entry) => entry.type.id === type.id)?.type;
        const arrival = there && !row && arrivalOf(type, there) === 'newer' ? 'another' : arrivalOf(type, there);
        counts[arrival] += 1;
        if (arrival === 'added' || arrival === 'newer') await this.store(manager, type);
        if (arrival === 'another') await this.store(manager, { ...type, id: `own-${randomUUID()}` });
      }
      mustHold(rows.length + counts.added + counts.another);
    });
    return counts;
  }

  async remove(id: string): Promise<void> {
    const { affected } = await this.database
      .getRepository(DeviceTypeRow)
      .delete({ workspace: localTenant.workspace, id });
    if (affected === 0) throw new ProblemException([problem('', 'not-found', { what: 'type', id: id.slice(0, 120) })]);
  }

  private writing(work: (manager: EntityManager, rows: readonly DeviceTypeRow[]) => Promise<void>): Promise<void> {
    return withRetries(() =>
      this.database.transaction(async (manager) => {
        const rows = await manager.find(DeviceTypeRow, {
          where: { workspace: localTenant.workspace },
          lock: { mode: 'pessimistic_write' },
        });
        await work(manager, rows);
      }),
    );
  }

  private async store(manager: EntityManager, type: DeviceType): Promise<void> {
    const row: DeviceTypeRow = {
      ...localTenant,
      id: type.id,
      name: type.name,
      revision: type.revision,
      document: JSON.stringify(type),
      changedAt: new Date(),
    };
    await manager.upsert(DeviceTypeRow, row as never, ['workspace', 'id']);
  }
}

const typeOf = (row: DeviceTypeRow): DeviceType => JSON.parse(row.document) as DeviceType;
const isGeneric = (id: string): boolean => catalogue.some((entry) => entry.type.id === id);

function mustHold(count: number): void {
  if (count > typesLimit) throw new ProblemException([problem('', 'too-large', { count, limit: typesLimit })]);
}
