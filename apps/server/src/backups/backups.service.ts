import { copyFileSync, existsSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { HttpStatus, Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { BackupKind, BackupView } from '@nestplank/contract';
import { Transactions } from '../database/transactions.js';
import { logger } from '../logger.js';
import { notFound, RefusedError } from '../refusals.js';
import { backupFault, backupFolder, backupsOf, keepBefore, writeBackup } from './backup-files.js';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** Puts a whole copy where a database is. Its companions belong to what was there before and go first. */
export function putInPlace(copy: string, database: string): void {
  const fresh = `${database}.new`;
  try {
    copyFileSync(copy, fresh);
  } catch (problem) {
    rmSync(fresh, { force: true });
    throw problem;
  }
  for (const ending of ['-wal', '-shm']) rmSync(`${database}${ending}`, { force: true });
  renameSync(fresh, database);
}

/** Backups of everything: made by hand, once a day, rotated; looked through before one is put in place of what is there. */
@Injectable()
export class BackupsService implements OnApplicationBootstrap, OnApplicationShutdown {
  private timer: NodeJS.Timeout | null = null;

  constructor(private readonly transactions: Transactions) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => void this.daily(), HOUR_MS).unref();
  }

  async onApplicationShutdown(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    await this.transactions.settle();
  }

  list(): BackupView[] {
    return backupsOf(this.transactions.path);
  }

  isDamaged(): boolean {
    return this.transactions.trouble() === 'damaged';
  }

  make(kind: BackupKind): Promise<BackupView> {
    return writeBackup(this.transactions.path, kind, new Date(), (path) => this.transactions.copyTo(path));
  }

  /** Makes the backup of the day when the last one is a day old. A failure is said in the log and tried again in an hour. */
  async daily(now = new Date()): Promise<void> {
    const last = backupsOf(this.transactions.path, now).find((backup) => backup.kind === 'daily');
    const since = last ? now.getTime() - Date.parse(last.at) : Infinity;
    // one that was made under a clock that was ahead says nothing of when
    if (last && !last.ahead && since < DAY_MS) return;
    if (last?.ahead) logger.warn(`The clock was ahead when ${last.name} was made: its time is not gone by.`);
    try {
      await this.make('daily');
    } catch (problem) {
      logger.error(problem);
    }
  }

  /** The path of a backup. @throws RefusedError when there is none of the name */
  pathOf(name: string): string {
    if (!this.list().some((backup) => backup.name === name)) throw notFound('backup', name);
    return join(backupFolder(this.transactions.path), name);
  }

  /** Puts a backup in place of everything there is, which is itself kept as a backup first. */
  async restore(name: string): Promise<BackupView | null> {
    const path = this.pathOf(name);
    const fault = backupFault(path);
    if (fault !== null)
      throw new RefusedError(HttpStatus.UNPROCESSABLE_ENTITY, 'invalid', `${name} is not put in place. ${fault}`);
    let before: BackupView | null = null;
    // nothing is saved between what is kept and what is put in place
    await this.transactions.replaced(async (database) => {
      if (!existsSync(path)) throw notFound('backup', name);
      const { backup, kept } = await keepBefore(database, (to) => this.transactions.copyTo(to), name);
      if (backup === null) logger.warn(`What was there was not whole. It is kept as ${kept}`);
      before = backup;
      putInPlace(path, database);
    });
    return before;
  }
}
