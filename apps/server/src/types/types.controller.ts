import { Body, Controller, Delete, Get, HttpCode, Inject, Param, Post, Put } from '@nestjs/common';
import { ApiProperty, ApiTags } from '@nestjs/swagger';
import { type DeviceType, typesSchema } from '@yunta/core';
import type { ArrivedTypes, KeptType } from '@yunta/contract';
import { IsInt, IsObject, IsString, Min, ValidateIf } from 'class-validator';
import { TypesService } from './types.service.ts';

export class SentTypeDto {
  @ApiProperty({
    type: Number,
    nullable: true,
    description: 'The revision that it was made from; null for a type that is not kept yet',
  })
  @ValidateIf((_, value) => value !== null)
  @IsInt()
  @Min(1)
  base: number | null;

  @ApiProperty({ type: Object })
  @IsObject()
  type: Record<string, unknown>;
}

export class TypesFileDto {
  @ApiProperty({ description: 'Text of an exported file of types' })
  @IsString()
  text: string;
}

@ApiTags('types')
@Controller('api/types')
export class TypesController {
  constructor(@Inject(TypesService) private readonly types: TypesService) {}

  @Get()
  list(): Promise<KeptType[]> {
    return this.types.list();
  }

  @Get('schema')
  schema(): object {
    return typesSchema;
  }

  @Put(':id')
  keep(@Param('id') id: string, @Body() body: SentTypeDto): Promise<DeviceType> {
    return this.types.keep(id, body.base, body.type);
  }

  @Post('file')
  @HttpCode(200)
  bring(@Body() body: TypesFileDto): Promise<ArrivedTypes> {
    return this.types.bring(body.text);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id') id: string): Promise<void> {
    return this.types.remove(id);
  }
}
