import { Controller, Get, Inject } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { InjectDataSource } from '@nestjs/typeorm';
import { DataSource } from 'typeorm';

@ApiTags('platform')
@Controller('health')
export class HealthController {
  constructor(@InjectDataSource() @Inject(DataSource) private readonly database: DataSource) {}

  @Get()
  async health(): Promise<{ status: 'ok'; database: 'ok' }> {
    await this.database.query('SELECT 1');
    return { status: 'ok', database: 'ok' };
  }
}
