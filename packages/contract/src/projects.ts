import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Holds } from './holds.js';
import type { Patch } from '@nestplank/core/document';
import {
  idSchema,
  OPERATION_NAMES,
  practiceSchema,
  projectSchema,
  settingsSchema,
  type OperationName,
  type PriceBook,
  type Project,
  type Settings,
  type VehicleKind,
} from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';

const vehicle = projectSchema.shape.vehicle.shape;

/** As many steps as can be asked about at once. */
export const MOST_ASKED = 20_000;

/** Undo and redo are sent like operations: the server keeps what they need. */
export const STEP_NAMES = ['undo', 'redo'] as const;
export type StepName = OperationName | (typeof STEP_NAMES)[number];

export class CreateProjectDto {
  @ApiProperty({ example: 'Wren' })
  @Holds(projectSchema.shape.name)
  name: string;

  @ApiProperty({ enum: vehicle.kind.options })
  @Holds(vehicle.kind)
  kind: VehicleKind;

  @ApiProperty({ example: 'Halden Carrier' })
  @Holds(vehicle.model)
  model: string;

  @ApiProperty({ enum: settingsSchema.shape.units.options })
  @Holds(settingsSchema.shape.units)
  units: Settings['units'];

  @ApiProperty({ example: '2026-11-30', description: 'The day on which work may begin.' })
  @Holds(settingsSchema.shape.startDate)
  startDate: string;

  @ApiPropertyOptional({
    description: 'A project whose shell is a starting point: its readings are taken over as estimates.',
  })
  @IsOptional()
  @Holds(idSchema)
  from?: string;

  @ApiPropertyOptional({
    description: 'A practice vehicle drawn by lot: the simulated instruments read its true shape.',
  })
  @IsOptional()
  @Holds(practiceSchema.shape.seed)
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

  @ApiPropertyOptional({
    description: 'The database the project was read from when the step was made: it is done in no other one.',
  })
  @IsOptional()
  @IsString()
  @MaxLength(64)
  database?: string;
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

/** A project is asked for by one who has steps of which it is not known whether they were done. */
export class AskedStepsDto {
  @ApiProperty({ type: [String], description: 'Ids of steps: the answer names those that are done.' })
  @IsArray()
  @ArrayMaxSize(MOST_ASKED)
  @IsUUID(undefined, { each: true })
  steps: string[];
}

export class CreateVersionDto {
  @ApiProperty({ example: 'Before the bench moved' })
  @Holds(projectSchema.shape.name)
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

/** A project in the bin. */
export interface BinItem {
  readonly id: string;
  readonly name: string;
  readonly deletedAt: string;
  /** When it goes for good. */
  readonly until: string;
}

/** What can be undone and redone: the names of the steps, the next one last. */
export interface HistoryView {
  readonly undo: readonly StepName[];
  readonly redo: readonly StepName[];
}

export interface ProjectView {
  /** The database it lies in: kept by it for good, and by its copies and backups. */
  readonly database: string;
  readonly project: Project;
  readonly revision: number;
  readonly history: HistoryView;
  readonly priceBookId: string;
  readonly priceBook: PriceBook;
  /** Of the steps that were asked about, those that are done. */
  readonly done: readonly string[];
  /** What was said of the project when it was opened: brought to a new version, put right. Told once; kept in its log. */
  readonly news: readonly Message[];
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

/** One line of a project's log. Nothing is ever taken out of it. */
export interface LogView {
  readonly id: string;
  readonly at: string;
  readonly kind: 'note';
  readonly said: Message;
}

/** Why a stored project cannot be opened: what is wrong with it, each with its place. */
export interface FaultView {
  readonly place: string;
  readonly said: Message;
}

export interface PhotoView {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  readonly at: string;
}

/** Why a backup was made: once a day, by hand, before the tables were changed. */
export const BACKUP_KINDS = ['daily', 'hand', 'migration'] as const;
export type BackupKind = (typeof BACKUP_KINDS)[number];

/** A backup of everything: projects, versions, history, prices, log and photos. */
export interface BackupView {
  readonly name: string;
  readonly kind: BackupKind;
  readonly at: string;
  readonly bytes: number;
  /** The clock was ahead when it was made: its time is not gone by yet. */
  readonly ahead: boolean;
}

/** The backups there are, newest first, and how many of each kind are kept. */
/** What was taken in of an archive, and what of it could not be read. */
export interface TakenIn {
  readonly ids: readonly string[];
  readonly refused: readonly { readonly file: string; readonly why: string }[];
}
export interface BackupsView {
  readonly kept: Readonly<Record<BackupKind, number>>;
  readonly backups: readonly BackupView[];
  /** The database is damaged: what is whole of it is read, and nothing is kept. */
  readonly damaged: boolean;
}

/** What can keep a database from keeping a change. */
export const STORAGE_TROUBLES = ['full', 'read-only', 'damaged', 'gone', 'failed'] as const;
export type StorageTrouble = (typeof STORAGE_TROUBLES)[number];

/** Every refusal of the server has this shape. */
export interface Refusal {
  readonly statusCode: number;
  /**
   * conflict: somebody changed the project first; storage: nothing can be kept just now; operation: a step cannot be done; unsound: the stored document cannot be
   * opened; the rest as HTTP has it.
   */
  readonly code: 'conflict' | 'operation' | 'invalid' | 'not-found' | 'too-large' | 'unsound' | 'storage' | 'failed';
  readonly message: string;
  /** Where: a field, an address or a place in a file. */
  readonly place: string;
  /** The step that was refused, and the project's revision. */
  readonly step?: string;
  readonly revision?: number;
  /** Steps of those sent that were done before: they are not sent again. */
  readonly done?: readonly string[];
  /** What keeps the database from keeping anything. */
  readonly trouble?: StorageTrouble;
  /** What is wrong with a document that cannot be opened. */
  readonly faults?: readonly FaultView[];
}
