import { createReadStream } from 'node:fs';
import { Controller, Get, HttpCode, Inject, Param, Post, Res, StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { BackupFile, RestoredBackup } from '@yunta/contract';
import type { Response } from 'express';
import { BackupsService } from './backups.service.ts';

@ApiTags('backups')
@Controller('api')
export class BackupsController {
  constructor(@Inject(BackupsService) private readonly backups: BackupsService) {}

  /** All data as they are now, streamed; whoever reads must look at the last line, which a failure leaves out. */
  @Get('backup')
  async now(@Res() response: Response): Promise<void> {
    response
      .status(200)
      .type('application/gzip')
      .setHeader('Content-Disposition', 'attachment; filename="all-rigs.yunta-backup"');
    try {
      await this.backups.write(response);
    } catch (reason) {
      response.destroy();
      throw reason;
    }
  }

  @Get('backups')
  list(): readonly BackupFile[] {
    return this.backups.list();
  }

  @Post('backups')
  make(): Promise<BackupFile> {
    return this.backups.make('manual');
  }

  @Get('backups/:name')
  file(@Param('name') name: string): StreamableFile {
    return new StreamableFile(createReadStream(this.backups.pathOf(name)), {
      type: 'application/gzip',
      disposition: `attachment; filename="${name}"`,
    });
  }

  @Post('backups/:name/restore')
  @HttpCode(200)
  restore(@Param('name') name: string): Promise<RestoredBackup> {
    return this.backups.restore(name);
  }
}
