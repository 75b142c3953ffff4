import { ApiProperty } from '@nestjs/swagger';
import { priceBookSchema, priceItemSchema, type PriceItem } from '@nestplank/core/document';
import { IsIn, IsNumber, Max, Min } from 'class-validator';
import { Holds } from './holds.js';

const { shape } = priceItemSchema;

/** One line of a price book. Each field is held to the core's own schema for it. */
export class PriceItemDto implements PriceItem {
  @ApiProperty()
  @Holds(shape.id)
  id: string;

  @ApiProperty()
  @Holds(shape.name)
  name: string;

  @ApiProperty({ enum: shape.group.options })
  @Holds(shape.group)
  group: PriceItem['group'];

  @ApiProperty({ enum: shape.hatch.options })
  @Holds(shape.hatch)
  hatch: PriceItem['hatch'];

  @ApiProperty()
  @Holds(shape.supplier)
  supplier: string;

  @ApiProperty({ example: '2026-10-01' })
  @Holds(shape.priceDate)
  priceDate: string;

  @ApiProperty({ description: 'mm' })
  @Holds(shape.thickness)
  thickness: number;

  @ApiProperty({ description: 'mm; of a batten' })
  @Holds(shape.width)
  width: number;

  @ApiProperty({ description: 'mm; of one piece of what is sold by area in pieces, else 0' })
  @Holds(shape.pieceLength)
  pieceLength: number;

  @ApiProperty({ nullable: true, type: String, description: 'how a floor finish is laid: planks, tiles or roll' })
  @Holds(shape.laid)
  laid: PriceItem['laid'];

  @ApiProperty({ nullable: true, type: Object, description: 'of a paint or varnish: from and to, hours' })
  @Holds(shape.recoat)
  recoat: PriceItem['recoat'];

  @ApiProperty({ nullable: true, required: false, type: Number, description: 'm2 a litre covers in one coat' })
  @Holds(shape.coverage)
  coverage?: PriceItem['coverage'];

  @ApiProperty({ description: 'kg/m3' })
  @Holds(shape.density)
  density: number;

  @ApiProperty({ description: 'W/mK' })
  @Holds(shape.conductivity)
  conductivity: number;

  @ApiProperty()
  @Holds(shape.grain)
  grain: boolean;

  @ApiProperty({ description: 'hours at 20 C' })
  @Holds(shape.cureHours)
  cureHours: number;

  @ApiProperty({ description: 'How much harder than air vapour finds it; 0 when not known' })
  @Holds(shape.vapour)
  vapour: number;

  @ApiProperty({ description: 'Work to fit a square metre, or a metre of batten, hours' })
  @Holds(shape.hours)
  hours: number;

  @ApiProperty()
  @Holds(shape.deadening)
  deadening: boolean;

  @ApiProperty({ description: 'The size it is sold under where that is not its real one' })
  @Holds(shape.soldAs)
  soldAs: string;

  @ApiProperty({ nullable: true, type: Object, description: 'kind, diameter and length, mm' })
  @Holds(shape.fastener)
  fastener: PriceItem['fastener'];

  @ApiProperty({ required: false, type: Object, description: 'what moving parts hang and run on: kind, length, bears' })
  @Holds(shape.hardware)
  hardware?: PriceItem['hardware'];

  @ApiProperty({ nullable: true, type: Object, description: 'modulus and strength along and across, N/mm2' })
  @Holds(shape.bending)
  bending: PriceItem['bending'];

  @ApiProperty({ required: false, description: 'where the price and the figures are from' })
  @Holds(shape.source)
  source?: string;

  @ApiProperty({ required: false, description: 'share added for waste; the project\u2019s own without it' })
  @Holds(shape.waste)
  waste?: number;

  @ApiProperty({ type: [Object], description: 'sheets: id, length and width in mm, price in minor units, quantity' })
  @Holds(shape.stocks)
  stocks: PriceItem['stocks'];

  @ApiProperty({ nullable: true, type: Object, description: 'contents, unit, price in minor units' })
  @Holds(shape.pack)
  pack: PriceItem['pack'];
}

/** Materials taken in from a file: new and changed. */
export class TakePricesDto {
  @ApiProperty({ type: [PriceItemDto] })
  @Holds(priceBookSchema.shape.items)
  items: PriceItem[];
}

/** A new price level for one group of materials, or for all. */
export class RepriceDto {
  @ApiProperty({ nullable: true, enum: shape.group.options, description: 'null for everything' })
  @IsIn([...shape.group.options, null])
  group: PriceItem['group'] | null;

  @ApiProperty({ description: '1.05 for 5 % dearer' })
  @IsNumber()
  @Min(0.1)
  @Max(10)
  factor: number;

  @ApiProperty({ example: '2026-11-27' })
  @Holds(shape.priceDate)
  date: string;
}
