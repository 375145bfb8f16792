import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { IsArray, IsIn, IsInt, IsObject, IsOptional, IsString, Matches, MaxLength, Min, MinLength } from 'class-validator';

/** Envelopes; what is inside them is checked by the core. */
export class NewShowDto {
  @ApiProperty({ enum: ['empty', 'demo', 'file'] })
  @IsIn(['empty', 'demo', 'file'])
  kind: 'empty' | 'demo' | 'file';

  @ApiPropertyOptional({ description: 'Name of an empty rig' })
  @IsOptional()
  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name?: string;

  @ApiPropertyOptional({ description: 'Text of an exported file' })
  @IsOptional()
  @IsString()
  text?: string;
}

export class SentBatchDto {
  @ApiProperty({ description: 'Made once by the client; a retry with the same id is applied once' })
  @Matches(/^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/)
  id: string;

  @ApiProperty({ description: 'The revision that the batch was made over' })
  @IsInt()
  @Min(0)
  base: number;

  @ApiProperty({ type: Object })
  @IsObject()
  command: Record<string, unknown>;

  @ApiProperty({ type: [Object] })
  @IsArray()
  steps: unknown[];
}
