import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { PriceBook, PriceItem } from '@nestplank/core';
import { migratePriceItem } from '@nestplank/core/formats';
import { PriceBookEntity, PriceItemEntity } from '../database/entities.js';
import { Transactions } from '../database/transactions.js';
import { notFound } from '../refusals.js';

type Row = Omit<PriceItemEntity, 'bookId' | 'position'>;
const rowOf = ({ id, name, supplier, priceDate, ...rest }: PriceItem): Row => ({
  id,
  name,
  supplier,
  priceDate,
  data: JSON.stringify(rest),
});
const itemOf = ({ id, name, supplier, priceDate, data }: PriceItemEntity): PriceItem =>
  migratePriceItem({ id, name, supplier, priceDate, ...(JSON.parse(data) as object) }) as PriceItem;

@Injectable()
export class PricesService {
  constructor(private readonly transactions: Transactions) {}

  book(id: string): Promise<PriceBook> {
    return this.transactions.read((manager) => this.bookIn(manager, id));
  }

  async bookIn(manager: EntityManager, id: string): Promise<PriceBook> {
    const book = await manager.findOneBy(PriceBookEntity, { id });
    if (!book) throw notFound('price book', id);
    const rows = await manager.find(PriceItemEntity, { where: { bookId: id }, order: { position: 'ASC' } });
    return { currency: book.currency, items: rows.map(itemOf) };
  }

  async addBook(manager: EntityManager, name: string, book: PriceBook): Promise<string> {
    const id = randomUUID();
    await manager.insert(PriceBookEntity, { id, name, currency: book.currency });
    for (const [position, item] of book.items.entries())
      await manager.insert(PriceItemEntity, { bookId: id, position, ...rowOf(item) });
    return id;
  }

  /** Adds an item or changes the one with the same id. */
  put(bookId: string, item: PriceItem): Promise<PriceBook> {
    return this.transactions.run(async (manager) => {
      await this.bookIn(manager, bookId);
      const changed = await manager.update(PriceItemEntity, { bookId, id: item.id }, rowOf(item));
      if (!changed.affected)
        await manager.insert(PriceItemEntity, {
          bookId,
          position: await manager.countBy(PriceItemEntity, { bookId }),
          ...rowOf(item),
        });
      return this.bookIn(manager, bookId);
    });
  }

  remove(bookId: string, id: string): Promise<PriceBook> {
    return this.transactions.run(async (manager) => {
      const result = await manager.delete(PriceItemEntity, { bookId, id });
      if (!result.affected) throw notFound('price', id);
      return this.bookIn(manager, bookId);
    });
  }
}
