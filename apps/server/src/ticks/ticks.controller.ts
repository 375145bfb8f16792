import { Body, Controller, Get, HttpCode, Inject, Param, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Tick } from '@yunta/contract';
import { TickDto } from '../shows/dto.ts';
import { TicksService } from './ticks.service.ts';

@ApiTags('worksheet')
@Controller('api/shows/:id/ticks')
export class TicksController {
  constructor(@Inject(TicksService) private readonly ticks: TicksService) {}

  @Get()
  list(@Param('id') id: string): Promise<Tick[]> {
    return this.ticks.list(id);
  }

  @Put()
  @HttpCode(204)
  set(@Param('id') id: string, @Body() body: TickDto): Promise<void> {
    return this.ticks.set(id, body);
  }
}
