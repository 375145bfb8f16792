import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post } from '@nestjs/common';
import { ApiProperty, ApiTags } from '@nestjs/swagger';
import type { NamedRevision, RevisionContent } from '@yunta/contract';
import { IsString, MaxLength, MinLength } from 'class-validator';
import { RevisionsService } from './revisions.service.ts';

export class NewRevisionDto {
  @ApiProperty({ description: 'What the revision is called' })
  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name: string;
}

@ApiTags('revisions')
@Controller('api/shows/:id/revisions')
export class RevisionsController {
  constructor(@Inject(RevisionsService) private readonly revisions: RevisionsService) {}

  @Get()
  list(@Param('id') id: string): Promise<NamedRevision[]> {
    return this.revisions.list(id);
  }

  @Post()
  keep(@Param('id') id: string, @Body() body: NewRevisionDto): Promise<NamedRevision> {
    return this.revisions.keep(id, body.name);
  }

  @Get(':revision')
  read(@Param('id') id: string, @Param('revision') revision: string): Promise<RevisionContent> {
    return this.revisions.read(id, revision);
  }

  @Delete(':revision')
  @HttpCode(204)
  remove(@Param('id') id: string, @Param('revision') revision: string): Promise<void> {
    return this.revisions.remove(id, revision);
  }
}
