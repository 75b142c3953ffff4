import { Injectable } from '@nestjs/common';
import { Mutex } from 'async-mutex';
import { DataSource, type EntityManager } from 'typeorm';

/** One connection serves everybody, so work on the database goes one after another. */
@Injectable()
export class Transactions {
  private readonly turn = new Mutex();

  constructor(private readonly source: DataSource) {}

  /** Runs work in a transaction of its own: all of it is kept, or none. */
  run<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(() => this.source.transaction(work));
  }

  /** Reads without a transaction, but never in the middle of one. */
  read<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(() => work(this.source.manager));
  }
}
