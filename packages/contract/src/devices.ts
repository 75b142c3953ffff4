import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { IsNotEmpty, IsNumber, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';

/** The instruments a page can be linked with. A real one would be another implementation of the same messages. */
export const INSTRUMENTS = ['laser', 'angle-finder'] as const;
export type InstrumentKind = (typeof INSTRUMENTS)[number];

export class ConnectDto {
  @ApiPropertyOptional({ description: 'How often things go wrong: 1 as in life, 0 never.', default: 1 })
  @IsOptional()
  @IsNumber()
  @Min(0)
  @Max(10)
  faults?: number;

  @ApiPropertyOptional({ description: 'Charge to begin with, per cent.', default: 100 })
  @IsOptional()
  @IsNumber()
  @Min(1)
  @Max(100)
  battery?: number;
}

export class ClickDto {
  @ApiProperty({ example: 'station/s3/left/700', description: 'What the instrument is pointed at.' })
  @IsString()
  @IsNotEmpty()
  @MaxLength(120)
  address: string;
}

/** How an instrument is. */
export interface InstrumentState {
  readonly kind: InstrumentKind;
  readonly state: 'linked' | 'measuring' | 'lost' | 'off';
  /** Per cent. */
  readonly battery: number;
  /** Its figures scatter more when the battery is low. */
  readonly low: boolean;
}

/** What comes over the stream, one message an event. */
export type InstrumentMessage =
  | ({ readonly type: 'state' } & InstrumentState)
  | {
      readonly type: 'reading';
      readonly address: string;
      /** mm, or degrees of an angle finder. */
      readonly value: number;
      readonly unit: 'mm' | 'degrees';
      readonly at: string;
    }
  | { readonly type: 'missed'; readonly address: string; readonly why: 'no-return' | 'lost' | 'nothing-there' | 'off' };
