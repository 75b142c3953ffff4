import { randomUUID } from 'node:crypto';
import { HttpStatus, Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { PriceBook, PriceItem, Project } from '@nestplank/core/document';
import type { RepriceDto } from '@nestplank/contract';
import { repriced, startPriceBook } from '@nestplank/core/materials';
import { materialsOf } from '@nestplank/core/furniture';
import { migratePriceItem, migrateProject } from '@nestplank/core/formats';
import { PriceBookEntity, PriceItemEntity, ProjectEntity } from '../database/entities.js';
import { troubleOf } from '../database/storage.js';
import { Transactions } from '../database/transactions.js';
import { notFound, RefusedError } from '../refusals.js';

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
  /** Books as they were last read: a step is held against one each time. Forgotten when one changes. */
  private readonly known = new Map<string, PriceBook>();
  /** Books that could not be read. */
  private readonly lost = new Set<string>();

  constructor(private readonly transactions: Transactions) {
    transactions.whenReplaced(() => {
      this.known.clear();
      this.lost.clear();
    });
  }

  /** Runs a change of a book; what was remembered of it is forgotten before and after, whether it was kept or not. */
  private async changing(bookId: string, work: (manager: EntityManager) => Promise<PriceBook>): Promise<PriceBook> {
    this.known.delete(bookId);
    try {
      return await this.transactions.run(async (manager) => {
        const book = await work(manager);
        return book;
      });
    } finally {
      this.known.delete(bookId);
    }
  }

  book(id: string): Promise<PriceBook> {
    return this.transactions.read((manager) => this.bookIn(manager, id));
  }

  async bookIn(manager: EntityManager, id: string): Promise<PriceBook> {
    const known = this.known.get(id);
    if (known) return known;
    try {
      const book = await manager.findOneBy(PriceBookEntity, { id });
      if (!book) throw notFound('price book', id);
      const rows = await manager.find(PriceItemEntity, { where: { bookId: id }, order: { position: 'ASC' } });
      const read = { currency: book.currency, items: rows.map(itemOf) };
      this.known.set(id, read);
      return read;
    } catch (problem) {
      // the projects can be read without them: those of a new build stand in
      if (troubleOf(problem) !== 'damaged') throw problem;
      this.lost.add(id);
      return startPriceBook();
    }
  }

  /** Whether the prices of a book could not be read, and others stand in for them. */
  isLost = (id: string): boolean => this.lost.has(id);

  async addBook(manager: EntityManager, name: string, book: PriceBook): Promise<string> {
    const id = randomUUID();
    await manager.insert(PriceBookEntity, { id, name, currency: book.currency });
    for (const [position, item] of book.items.entries())
      await manager.insert(PriceItemEntity, { bookId: id, position, ...rowOf(item) });
    return id;
  }

  /** Adds an item or changes the one with the same id. */
  put(bookId: string, item: PriceItem): Promise<PriceBook> {
    return this.changing(bookId, async (manager) => {
      await this.bookIn(manager, bookId);
      const changed = await manager.update(PriceItemEntity, { bookId, id: item.id }, rowOf(item));
      if (!changed.affected)
        await manager.insert(PriceItemEntity, {
          bookId,
          position: await manager.countBy(PriceItemEntity, { bookId }),
          ...rowOf(item),
        });
      this.known.delete(bookId);
      return this.bookIn(manager, bookId);
    });
  }

  /** Takes in a list of materials, new and changed, all or none of them. */
  take(bookId: string, items: readonly PriceItem[]): Promise<PriceBook> {
    return this.changing(bookId, async (manager) => {
      const there = new Set((await this.bookIn(manager, bookId)).items.map(({ id }) => id));
      let position = await manager.countBy(PriceItemEntity, { bookId });
      for (const item of items)
        if (there.has(item.id)) await manager.update(PriceItemEntity, { bookId, id: item.id }, rowOf(item));
        else await manager.insert(PriceItemEntity, { bookId, position: position++, ...rowOf(item) });
      this.known.delete(bookId);
      return this.bookIn(manager, bookId);
    });
  }

  /** Moves all prices of a group, or of everything, by a factor, and dates them. */
  reprice(bookId: string, { group, factor, date }: RepriceDto): Promise<PriceBook> {
    return this.changing(bookId, async (manager) => {
      const { items } = await this.bookIn(manager, bookId);
      for (const item of items.filter((own) => group === null || own.group === group))
        await manager.update(PriceItemEntity, { bookId, id: item.id }, rowOf(repriced(item, factor, date)));
      this.known.delete(bookId);
      return this.bookIn(manager, bookId);
    });
  }

  /** Takes an item out, unless a project still speaks of it: its parts would have no thickness. */
  remove(bookId: string, id: string): Promise<PriceBook> {
    return this.changing(bookId, async (manager) => {
      const rows = await manager.find(ProjectEntity, { where: { bookId }, select: { name: true, document: true } });
      const user = rows.find((row) => materialsOf(migrateProject(JSON.parse(row.document)) as Project).has(id));
      if (user)
        throw new RefusedError(
          HttpStatus.CONFLICT,
          'invalid',
          `${user.name} is made of it: choose another material there first.`,
          { place: id },
        );
      const result = await manager.delete(PriceItemEntity, { bookId, id });
      if (!result.affected) throw notFound('price', id);
      this.known.delete(bookId);
      return this.bookIn(manager, bookId);
    });
  }
}
