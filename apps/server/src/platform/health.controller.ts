import { setTimeout as pause } from 'node:timers/promises';
import { Controller, Get, Inject, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { InjectDataSource } from '@nestjs/typeorm';
import type { Health } from '@yunta/contract';
import type { Response } from 'express';
import { DataSource } from 'typeorm';

/** The database has so long to answer, ms. */
const patience = 2000;

/** Tells server and database apart: that this answers at all says that the server is there. */
@ApiTags('platform')
@Controller('health')
export class HealthController {
  constructor(@InjectDataSource() @Inject(DataSource) private readonly database: DataSource) {}

  @Get()
  async health(@Res({ passthrough: true }) response: Response): Promise<Health> {
    const isThere = await Promise.race([
      this.database.query('SELECT 1').then(
        () => true,
        () => false,
      ),
      pause(patience, false),
    ]);
    if (!isThere) response.status(503);
    return { server: 'ok', database: isThere ? 'ok' : 'away' };
  }
}
