import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { problem, storedShow } from '@yunta/core';
import type { NamedRevision, RevisionContent } from '@yunta/contract';
import { DataSource } from 'typeorm';
import { RevisionRow } from '../persistence/entities.ts';
import { ProblemException } from '../platform/problem.ts';
import { localTenant, ShowsService } from '../shows/shows.service.ts';
import { storableName } from '../shows/storable-name.ts';

/**
 * Revisions with a name, kept with their documents as they were. Restoring one is an edit like any other: the page
 * makes it.
 */
@Injectable()
export class RevisionsService {
  constructor(
    @InjectDataSource() @Inject(DataSource) private readonly database: DataSource,
    @Inject(ShowsService) private readonly shows: ShowsService,
  ) {}

  async list(show: string): Promise<NamedRevision[]> {
    await this.shows.mustBeThere(show);
    const rows = await this.database.getRepository(RevisionRow).find({
      where: { workspace: localTenant.workspace, show },
      order: { at: 'DESC' },
      select: { id: true, name: true, revision: true, at: true, actor: true },
    });
    return rows.map(summaryOf);
  }

  /** Keeps the show as it is now. */
  async keep(show: string, name: string): Promise<NamedRevision> {
    const wanted = storableName(name);
    const { revision, rig, songbook } = await this.shows.read(show);
    const row: RevisionRow = {
      ...localTenant,
      show,
      id: randomUUID(),
      name: wanted,
      revision,
      rig: JSON.stringify(rig),
      songbook: JSON.stringify(songbook),
      at: new Date(),
    };
    await this.database.getRepository(RevisionRow).insert(row);
    return summaryOf(row);
  }

  async read(show: string, id: string): Promise<RevisionContent> {
    const row = await this.database
      .getRepository(RevisionRow)
      .findOneBy({ workspace: localTenant.workspace, show, id });
    if (!row) throw new ProblemException([problem('', 'not-found', { what: 'revision', id: id.slice(0, 64) })]);
    return { ...summaryOf(row), ...storedShow(JSON.parse(row.rig), JSON.parse(row.songbook)) };
  }

  async remove(show: string, id: string): Promise<void> {
    const { affected } = await this.database
      .getRepository(RevisionRow)
      .delete({ workspace: localTenant.workspace, show, id });
    if (affected === 0)
      throw new ProblemException([problem('', 'not-found', { what: 'revision', id: id.slice(0, 64) })]);
  }
}

const summaryOf = ({ id, name, revision, at, actor }: RevisionRow): NamedRevision => ({
  id,
  name,
  revision,
  at: at.toISOString(),
  actor,
});
