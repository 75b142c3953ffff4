import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsDateString,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import {
  OPERATION_NAMES,
  type OperationName,
  type Patch,
  type PriceBook,
  type Project,
  type Settings,
  type VehicleKind,
} from '@nestplank/core';

/** Undo and redo are sent like operations: the server keeps what they need. */
export const STEP_NAMES = ['undo', 'redo'] as const;
export type StepName = OperationName | (typeof STEP_NAMES)[number];

export class CreateProjectDto {
  @ApiProperty({ example: 'Wren' })
  @IsString()
  @IsNotEmpty()
  @MaxLength(80)
  name: string;

  @ApiProperty({ enum: ['van', 'bus', 'trailer'] })
  @IsIn(['van', 'bus', 'trailer'])
  kind: VehicleKind;

  @ApiProperty({ example: 'Halden Carrier' })
  @IsString()
  @MaxLength(80)
  model: string;

  @ApiProperty({ enum: ['mm', 'in'] })
  @IsIn(['mm', 'in'])
  units: Settings['units'];

  @ApiProperty({ example: '2026-11-30', description: 'The day on which work may begin.' })
  @IsDateString()
  @Matches(/^\d{4}-\d{2}-\d{2}$/)
  startDate: string;

  @ApiPropertyOptional({
    description: 'A project whose shell is a starting point: its readings are taken over as estimates.',
  })
  @IsOptional()
  @IsString()
  @Matches(/^[A-Za-z0-9][A-Za-z0-9_-]{0,59}$/)
  from?: string;

  @ApiPropertyOptional({
    description: 'A practice vehicle drawn by lot: the simulated instruments read its true shape.',
  })
  @IsOptional()
  @IsInt()
  @Min(0)
  @Max(1_000_000_000)
  practiceSeed?: number;
}

export class ImportProjectDto {
  @ApiProperty({ description: 'The text of a project file.' })
  @IsString()
  @IsNotEmpty()
  text: string;
}

export class StepDto {
  @ApiProperty({ format: 'uuid', description: 'Given by the sender: the same step sent twice is done once.' })
  @IsUUID()
  id: string;

  @ApiProperty({ enum: [...OPERATION_NAMES, ...STEP_NAMES] })
  @IsIn([...OPERATION_NAMES, ...STEP_NAMES])
  name: StepName;

  @ApiPropertyOptional({ type: 'object', additionalProperties: true })
  @IsOptional()
  @IsObject()
  payload?: Record<string, unknown>;
}

export class PostStepsDto {
  @ApiProperty({ description: 'The revision these steps were made on.' })
  @IsInt()
  @Min(0)
  revision: number;

  @ApiProperty({ type: [StepDto] })
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => StepDto)
  steps: StepDto[];
}

export class CreateVersionDto {
  @ApiProperty({ example: 'Before the bench moved' })
  @IsString()
  @IsNotEmpty()
  @MaxLength(80)
  name: string;
}

export interface ProjectListItem {
  readonly id: string;
  readonly name: string;
  readonly kind: VehicleKind;
  readonly model: string;
  readonly revision: number;
  readonly updatedAt: string;
}

/** What can be undone and redone: the names of the steps, the next one last. */
export interface HistoryView {
  readonly undo: readonly StepName[];
  readonly redo: readonly StepName[];
}

export interface ProjectView {
  readonly project: Project;
  readonly revision: number;
  readonly history: HistoryView;
  readonly priceBookId: string;
  readonly priceBook: PriceBook;
}

export interface StepsResult {
  readonly revision: number;
  readonly history: HistoryView;
  /** For each step what it changed; the sender of an undo learns from it. */
  readonly done: readonly { readonly id: string; readonly name: StepName; readonly patches: readonly Patch[] }[];
}

export interface VersionView {
  readonly id: string;
  readonly name: string;
  readonly automatic: boolean;
  readonly revision: number;
  readonly at: string;
}

export interface PhotoView {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  readonly at: string;
}

/** Every refusal of the server has this shape. */
export interface Refusal {
  readonly statusCode: number;
  /** conflict: somebody changed the project first; operation: a step cannot be done; the rest as HTTP has it. */
  readonly code: 'conflict' | 'operation' | 'invalid' | 'not-found' | 'too-large' | 'failed';
  readonly message: string;
  /** Where: a field, an address or a place in a file. */
  readonly place: string;
  /** The step that was refused, and the project's revision. */
  readonly step?: string;
  readonly revision?: number;
}
