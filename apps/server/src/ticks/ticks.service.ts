import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import type { Tick } from '@yunta/contract';
import { DataSource } from 'typeorm';
import { TickRow } from '../persistence/entities.ts';
import type { TickDto } from '../shows/dto.ts';
import { localTenant, ShowsService } from '../shows/shows.service.ts';

/** What of the worksheet has been entered. */
@Injectable()
export class TicksService {
  constructor(
    @InjectDataSource() @Inject(DataSource) private readonly database: DataSource,
    @Inject(ShowsService) private readonly shows: ShowsService,
  ) {}

  async list(show: string): Promise<Tick[]> {
    await this.shows.mustBeThere(show);
    const rows = await this.database
      .getRepository(TickRow)
      .find({ where: { workspace: localTenant.workspace, show }, order: { line: 'ASC' } });
    return rows.map(({ line, said, at, actor }) => ({ line, said, at: at.toISOString(), actor }));
  }

  async set(show: string, { line, said, done }: TickDto): Promise<void> {
    await this.shows.mustBeThere(show);
    const rows = this.database.getRepository(TickRow);
    if (done) await rows.upsert({ ...localTenant, show, line, said, at: new Date() }, ['workspace', 'show', 'line']);
    else await rows.delete({ workspace: localTenant.workspace, show, line });
  }
}
