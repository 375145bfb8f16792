import { Inject, Injectable } from '@nestjs/common';
import { InjectDataSource } from '@nestjs/typeorm';
import { problem } from '@yunta/core';
import type { Tick } from '@yunta/contract';
import { DataSource } from 'typeorm';
import { ShowRow, TickRow } from '../persistence/entities.ts';
import { Refused } from '../platform/problem.ts';
import type { TickDto } from '../shows/dto.ts';
import { here } from '../shows/shows.service.ts';

/** What of the worksheet has been keyed in. */
@Injectable()
export class TicksService {
  constructor(@InjectDataSource() @Inject(DataSource) private readonly database: DataSource) {}

  async list(show: string): Promise<Tick[]> {
    await this.mustBeThere(show);
    const rows = await this.database.getRepository(TickRow).find({ where: { workspace: here.workspace, show }, order: { line: 'ASC' } });
    return rows.map(({ line, said, at, actor }) => ({ line, said, at: at.toISOString(), actor }));
  }

  async set(show: string, { line, said, done }: TickDto): Promise<void> {
    await this.mustBeThere(show);
    const rows = this.database.getRepository(TickRow);
    if (done) await rows.upsert({ ...here, show, line, said, at: new Date() }, ['workspace', 'show', 'line']);
    else await rows.delete({ workspace: here.workspace, show, line });
  }

  private async mustBeThere(id: string): Promise<void> {
    if (!(await this.database.getRepository(ShowRow).existsBy({ workspace: here.workspace, id }))) throw new Refused([problem('', 'not-found', { what: 'rig', id: id.slice(0, 64) })]);
  }
}
