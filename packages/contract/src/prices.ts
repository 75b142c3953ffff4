import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsNumber,
  IsOptional,
  IsPositive,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import type { PriceItem } from '@nestplank/core';

const ID = /^[A-Za-z0-9][A-Za-z0-9_-]{0,59}$/;
const GROUPS = ['sheet', 'insulation', 'timber', 'lining', 'adhesive', 'fixing'] as const;
const HATCHES = ['birch', 'pine', 'poplar', 'foam', 'wool', 'grey'] as const;
const LAID = ['planks', 'tiles', 'roll'] as const;
const UNITS = ['piece', 'ml', 'm2', 'm'] as const;

export class PriceStockDto {
  @ApiProperty()
  @Matches(ID)
  id: string;

  @ApiProperty({ description: 'mm, along the grain' })
  @IsPositive()
  @Max(100_000)
  length: number;

  @ApiProperty({ description: 'mm' })
  @IsPositive()
  @Max(100_000)
  width: number;

  @ApiProperty({ description: 'minor units' })
  @IsInt()
  @Min(0)
  price: number;

  @ApiProperty({ nullable: true, type: Number, description: 'How many can be had; null for as many as wanted.' })
  @IsOptional()
  @IsInt()
  @Min(0)
  quantity: number | null;
}

export class PricePackDto {
  @ApiProperty()
  @IsPositive()
  contents: number;

  @ApiProperty({ enum: UNITS })
  @IsIn(UNITS)
  unit: (typeof UNITS)[number];

  @ApiProperty({ description: 'minor units' })
  @IsInt()
  @Min(0)
  price: number;
}

export class FastenerDto {
  @ApiProperty({ enum: ['wood', 'metal', 'brad'] })
  @IsIn(['wood', 'metal', 'brad'])
  kind: 'wood' | 'metal' | 'brad';

  @ApiProperty({ description: 'mm' })
  @IsPositive()
  @Max(50)
  diameter: number;

  @ApiProperty({ description: 'mm' })
  @IsPositive()
  @Max(1000)
  length: number;
}

export class StiffnessDto {
  @ApiProperty({ description: 'N/mm2' })
  @IsPositive()
  modulus: number;

  @ApiProperty({ description: 'N/mm2' })
  @IsPositive()
  strength: number;
}

export class BendingDto {
  @ApiProperty({ type: StiffnessDto })
  @ValidateNested()
  @Type(() => StiffnessDto)
  along: StiffnessDto;

  @ApiProperty({ type: StiffnessDto })
  @ValidateNested()
  @Type(() => StiffnessDto)
  across: StiffnessDto;
}

export class RecoatDto {
  @ApiProperty({ description: 'hours' })
  @IsNumber()
  @Min(0)
  @Max(500)
  from: number;

  @ApiProperty({ description: 'hours' })
  @IsNumber()
  @Min(0)
  @Max(2000)
  to: number;
}

export class PriceItemDto implements PriceItem {
  @ApiProperty()
  @Matches(ID)
  id: string;

  @ApiProperty()
  @IsString()
  @IsNotEmpty()
  @MaxLength(80)
  name: string;

  @ApiProperty({ enum: GROUPS })
  @IsIn(GROUPS)
  group: PriceItem['group'];

  @ApiProperty({ enum: HATCHES })
  @IsIn(HATCHES)
  hatch: PriceItem['hatch'];

  @ApiProperty()
  @IsString()
  @IsNotEmpty()
  @MaxLength(80)
  supplier: string;

  @ApiProperty({ example: '2026-10-01' })
  @Matches(/^\d{4}-\d{2}-\d{2}$/)
  priceDate: string;

  @ApiProperty({ description: 'mm' })
  @IsNumber()
  @Min(0)
  @Max(500)
  thickness: number;

  @ApiProperty({ description: 'mm; of a batten' })
  @IsNumber()
  @Min(0)
  @Max(5000)
  width: number;

  @ApiProperty({ description: 'mm; of one piece of what is sold by area in pieces, else 0' })
  @IsNumber()
  @Min(0)
  @Max(10_000)
  pieceLength: number;

  @ApiProperty({ enum: LAID, nullable: true, description: 'how a floor finish is laid' })
  @IsOptional()
  @IsIn(LAID)
  laid: PriceItem['laid'];

  @ApiProperty({ type: RecoatDto, nullable: true, description: 'of a paint or varnish' })
  @IsOptional()
  @ValidateNested()
  @Type(() => RecoatDto)
  recoat: RecoatDto | null;

  @ApiProperty({ description: 'kg/m3' })
  @IsNumber()
  @Min(0)
  @Max(10_000)
  density: number;

  @ApiProperty({ description: 'W/mK' })
  @IsNumber()
  @Min(0)
  @Max(500)
  conductivity: number;

  @ApiProperty()
  @IsBoolean()
  grain: boolean;

  @ApiProperty({ description: 'at 20 C' })
  @IsNumber()
  @Min(0)
  @Max(2000)
  cureHours: number;

  @ApiProperty({ description: 'How much harder than air vapour finds it; 0 when not known' })
  @IsNumber()
  @Min(0)
  @Max(10_000_000)
  vapour: number;

  @ApiProperty({ description: 'Work to fit a square metre, or a metre of batten, hours' })
  @IsNumber()
  @Min(0)
  @Max(50)
  hours: number;

  @ApiProperty()
  @IsBoolean()
  deadening: boolean;

  @ApiProperty({ description: 'The size it is sold under where that is not its real one' })
  @IsString()
  @MaxLength(40)
  soldAs: string;

  @ApiProperty({ type: FastenerDto, nullable: true })
  @IsOptional()
  @ValidateNested()
  @Type(() => FastenerDto)
  fastener: FastenerDto | null;

  @ApiProperty({ nullable: true, type: BendingDto })
  @IsOptional()
  @ValidateNested()
  @Type(() => BendingDto)
  bending: BendingDto | null;

  @ApiProperty({ type: [PriceStockDto] })
  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => PriceStockDto)
  stocks: PriceStockDto[];

  @ApiProperty({ type: PricePackDto, nullable: true })
  @IsOptional()
  @ValidateNested()
  @Type(() => PricePackDto)
  pack: PricePackDto | null;
}
