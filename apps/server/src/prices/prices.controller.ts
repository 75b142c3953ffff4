import { Body, Controller, Delete, Get, HttpStatus, Param, Put } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { PriceItemDto, RepriceDto, TakePricesDto } from '@nestplank/contract';
import { RefusedError } from '../refusals.js';
import { PricesService } from './prices.service.js';

@ApiTags('price books')
@Controller('price-books')
export class PricesController {
  constructor(private readonly prices: PricesService) {}

  @Get(':book')
  @ApiOperation({ summary: 'A price book' })
  book(@Param('book') book: string) {
    return this.prices.book(book);
  }

  @Put(':book/items/:id')
  @ApiOperation({ summary: 'Add a price or change it' })
  put(@Param('book') book: string, @Param('id') id: string, @Body() item: PriceItemDto) {
    if (item.id !== id)
      throw new RefusedError(
        HttpStatus.BAD_REQUEST,
        'invalid',
        `The item's id is ${item.id}, the address says ${id}.`,
        { place: 'id' },
      );
    return this.prices.put(book, item);
  }

  @Put(':book/items')
  @ApiOperation({ summary: 'Take in a list of prices, new and changed' })
  take(@Param('book') book: string, @Body() { items }: TakePricesDto) {
    return this.prices.take(book, items);
  }

  @Put(':book/level')
  @ApiOperation({ summary: 'Move all prices of a group, or of everything, by a factor' })
  reprice(@Param('book') book: string, @Body() level: RepriceDto) {
    return this.prices.reprice(book, level);
  }

  @Delete(':book/items/:id')
  @ApiOperation({ summary: 'Take a price out' })
  remove(@Param('book') book: string, @Param('id') id: string) {
    return this.prices.remove(book, id);
  }
}
