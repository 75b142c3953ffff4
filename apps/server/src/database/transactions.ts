import { Worker } from 'node:worker_threads';
import { Injectable } from '@nestjs/common';
import { Mutex } from 'async-mutex';
import { DataSource, type EntityManager } from 'typeorm';
import type { StorageTrouble } from '@nestplank/contract';
import { logger } from '../logger.js';
import { RefusedError } from '../refusals.js';
import { threadScript } from '../threads.js';
import { fileMark, fileTrouble, storageRefusal, troubleOf } from './storage.js';

/**
 * One connection serves everybody, so work on the database goes one after another. A connection on which a commit or a
 * rollback failed is not used again: what hangs in it would swallow all that follows. It is made anew before the next work.
 */
@Injectable()
export class Transactions {
  private readonly turn = new Mutex();
  /** The database's file. */
  readonly path: string;
  private mark: number | null;
  private fouled = false;
  private found: StorageTrouble | null = null;
  private damaged = false;
  private readonly others: (() => void)[] = [];

  constructor(private readonly source: DataSource) {
    this.path = String(source.options.database);
    this.mark = fileMark(this.path);
  }

  /** Runs work in a transaction of its own: all of it is kept, or none. It is answered only when SQLite has it on disk. */
  run<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(async () => {
      await this.usable();
      if (this.damaged) throw storageRefusal('damaged');
      const runner = this.source.createQueryRunner();
      let result: T;
      try {
        await runner.startTransaction();
      } catch (problem) {
        // whether it was begun is not known
        this.fouled = true;
        throw this.told(problem, true);
      }
      try {
        result = await work(runner.manager);
      } catch (problem) {
        await runner.rollbackTransaction().catch(() => (this.fouled = true));
        // a rollback that says nothing may still have left the transaction open
        if (runner.isTransactionActive) this.fouled = true;
        throw this.told(problem);
      }
      try {
        if (fileMark(this.path) === this.mark) await runner.commitTransaction();
        else {
          this.found = 'gone';
          throw storageRefusal('gone');
        }
      } catch (problem) {
        this.fouled = true;
        throw this.told(problem, true);
      }
      this.found = null;
      return result;
    });
  }

  /** Reads without a transaction, but never in the middle of one. */
  read<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(async () => {
      await this.usable();
      try {
        return await work(this.source.manager);
      } catch (problem) {
        throw this.told(problem);
      }
    });
  }

  /** Looks the whole file through: a damaged one is read where it can be, and not written to. */
  async check(): Promise<void> {
    const rows = await this.read((manager) => manager.query<{ quick_check: string }[]>('PRAGMA quick_check(1)'));
    this.damaged = rows[0]?.quick_check !== 'ok';
    if (this.damaged) logger.error(`The database ${this.path} is damaged: ${rows[0]?.quick_check ?? 'no answer'}`);
  }

  /**
   * Reads where the file may be damaged: what cannot be read is null, and what can be is read all the same. Other troubles
   * are thrown as ever.
   */
  async readWhole<T>(work: (manager: EntityManager) => Promise<T>): Promise<T | null> {
    try {
      return await this.read(work);
    } catch (problem) {
      if (problem instanceof RefusedError && problem.more.trouble === 'damaged') return null;
      throw problem;
    }
  }

  /** Told when the file is another one than before: what was remembered of it is of no use. */
  whenReplaced(forget: () => void): void {
    this.others.push(forget);
  }

  /** Writes everything into the database file itself, so that the file alone is whole. */
  settle(): Promise<void> {
    return this.turn.runExclusive(async () => {
      await this.source.query('PRAGMA wal_checkpoint(TRUNCATE)').catch((problem: unknown) => logger.warn(problem));
    });
  }

  /**
   * Writes a whole copy of the database as it is now to a path, in a thread of its own: saves go on meanwhile.
   * @returns what is wrong with the copy, or null
   */
  async copyTo(path: string): Promise<string | null> {
    // what is gone would be made anew, and empty
    if (fileMark(this.path) !== this.mark) throw storageRefusal((this.found = 'gone'));
    const script = threadScript(import.meta.url, '../backups/copy.worker', 'backups/copy.worker');
    const worker = new Worker(script, { workerData: { from: this.path, to: path } });
    try {
      const fault = await new Promise<string | null>((resolve, reject) => {
        worker.once('message', resolve);
        worker.once('error', reject);
        worker.once('exit', (code) => reject(new Error(`The thread of the backup ended with ${code}.`)));
      });
      // there was room for all of it
      if (this.found === 'full') this.found = null;
      return fault;
    } catch (problem) {
      throw this.told(problem);
    }
  }

  /** Closes the database while its file is put another way, and opens what is there then. */
  replaced(work: (database: string) => Promise<void>): Promise<void> {
    return this.turn.runExclusive(async () => {
      if (this.source.isInitialized) await this.source.destroy();
      this.fouled = true;
      try {
        await work(this.path);
      } catch (problem) {
        throw this.told(problem);
      } finally {
        await this.usable();
      }
      this.found = null;
      this.damaged = false;
    });
  }

  /** What keeps changes from being kept now; null when nothing does. */
  trouble(): StorageTrouble | null {
    return fileTrouble(this.path, this.mark) ?? (this.damaged ? 'damaged' : this.found);
  }

  private told(problem: unknown, committing = false): unknown {
    if (problem instanceof RefusedError) return problem;
    const trouble = troubleOf(problem) ?? (committing ? 'failed' : null);
    if (trouble === null) return problem;
    this.found = trouble;
    if (trouble !== 'full') logger.error(problem);
    return storageRefusal(trouble);
  }

  private async usable(): Promise<void> {
    if (!this.fouled) return;
    try {
      if (this.source.isInitialized) await this.source.destroy();
    } catch (problem) {
      logger.warn(problem);
    }
    const mark = fileMark(this.path);
    // opening would make an empty one
    if (mark === null) throw storageRefusal((this.found = 'gone'));
    try {
      await this.source.initialize();
      if (mark !== this.mark) for (const forget of this.others) forget();
      this.mark = mark;
      this.fouled = false;
    } catch (problem) {
      logger.error(problem);
      throw storageRefusal((this.found = troubleOf(problem) ?? 'failed'));
    }
  }
}
