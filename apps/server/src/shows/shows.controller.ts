import { Body, Controller, Delete, Get, Header, HttpCode, Inject, Param, Post, StreamableFile } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { showSchema } from '@yunta/core';
import type { AppliedBatch, DeletedShow, HistoryEntry, PastShow, ShowAtRevision, ShowSummary } from '@yunta/contract';
import { NewShowDto, SentBatchDto } from './dto.ts';
import { ShowsService } from './shows.service.ts';

@ApiTags('shows')
@Controller('api')
export class ShowsController {
  constructor(@Inject(ShowsService) private readonly shows: ShowsService) {}

  @Get('shows')
  list(): Promise<ShowSummary[]> {
    return this.shows.list();
  }

  @Post('shows')
  create(@Body() body: NewShowDto): Promise<ShowSummary> {
    return this.shows.create(body);
  }

  @Get('deleted-shows')
  deleted(): Promise<DeletedShow[]> {
    return this.shows.deleted();
  }

  @Post('deleted-shows/:id/restore')
  @HttpCode(200)
  restore(@Param('id') id: string): Promise<ShowSummary> {
    return this.shows.restore(id);
  }

  @Get('shows/:id')
  read(@Param('id') id: string): Promise<ShowAtRevision> {
    return this.shows.read(id);
  }

  @Delete('shows/:id')
  @HttpCode(204)
  remove(@Param('id') id: string): Promise<void> {
    return this.shows.remove(id);
  }

  @Post('shows/:id/batches')
  @HttpCode(200)
  apply(@Param('id') id: string, @Body() body: SentBatchDto): Promise<AppliedBatch> {
    return this.shows.apply(id, body);
  }

  @Post('shows/:id/own-songbook')
  @HttpCode(200)
  ownSongbook(@Param('id') id: string): Promise<ShowAtRevision> {
    return this.shows.ownSongbook(id);
  }

  @Get('shows/:id/history')
  history(@Param('id') id: string): Promise<HistoryEntry[]> {
    return this.shows.history(id);
  }

  @Get('shows/:id/history/:revision')
  past(@Param('id') id: string, @Param('revision') revision: string): Promise<PastShow> {
    return this.shows.past(id, revision);
  }

  @Get('shows/:id/file')
  @Header('Content-Disposition', 'attachment; filename="rig.yunta.json"')
  async file(@Param('id') id: string): Promise<StreamableFile> {
    return new StreamableFile(Buffer.from(await this.shows.export(id)), { type: 'application/json' });
  }

  @Get('schema')
  schema(): object {
    return showSchema;
  }
}
