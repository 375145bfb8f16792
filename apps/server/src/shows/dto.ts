import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { type StarterId, starterIds } from '@yunta/core';
import {
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsString,
  Matches,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
} from 'class-validator';

/** The field may be absent. It may not be null: that is a value, and none of ours. */
const MayBeAbsent = () => ValidateIf((_, value) => value !== undefined);

/** Envelopes; what is inside them is checked by the core. */
export class NewShowDto {
  @ApiProperty({ enum: ['empty', 'starter', 'demo', 'file', 'copy'] })
  @IsIn(['empty', 'starter', 'demo', 'file', 'copy'])
  kind: 'empty' | 'starter' | 'demo' | 'file' | 'copy';

  @ApiPropertyOptional({ enum: ['combo', 'fly'], description: 'Which rig of the demo; the combo rig where absent' })
  @MayBeAbsent()
  @IsIn(['combo', 'fly'])
  rig?: 'combo' | 'fly';

  @ApiPropertyOptional({ enum: starterIds, description: 'Topology of a starter' })
  @MayBeAbsent()
  @IsIn(starterIds)
  starter?: StarterId;

  @ApiPropertyOptional({ description: 'Name of an empty rig, a starter or a copy' })
  @MayBeAbsent()
  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name?: string;

  @ApiPropertyOptional({
    description:
      'The rig whose songbook this one shares; one of its own where absent. Not with a file, which brings its own',
  })
  @MayBeAbsent()
  @IsString()
  @MaxLength(64)
  songbookOf?: string;

  @ApiPropertyOptional({ description: 'The rig that is copied, as it is now' })
  @MayBeAbsent()
  @IsString()
  @MaxLength(64)
  of?: string;

  @ApiPropertyOptional({ description: 'Text of an exported file' })
  @MayBeAbsent()
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

export class TickDto {
  @ApiProperty({ description: 'The line of the worksheet' })
  @IsString()
  @MinLength(1)
  @MaxLength(200)
  line: string;

  @ApiProperty({ description: 'What it said when it was entered' })
  @IsString()
  @MaxLength(1000)
  said: string;

  @ApiProperty({ description: 'False takes the tick away' })
  @IsBoolean()
  done: boolean;
}
