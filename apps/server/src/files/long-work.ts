import { Worker } from 'node:worker_threads';
import { HttpStatus, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { Mutex } from 'async-mutex';
import { RefusedError } from '../refusals.js';
import { threadScript } from '../threads.js';
import type { LongAnswer, LongJob, LongResult } from './file.worker.js';

const LONGEST_MS = 120_000;
/** A thread that is not used is let go after this long, ms: its libraries are large. */
const IDLE_MS = 30_000;
/** More than this many do not wait. */
const MOST_WAITING = 12;

/** Work that takes seconds goes to a thread of its own, one after another, so that saves do not wait for it. */
@Injectable()
export class LongWork implements OnApplicationShutdown {
  private readonly turn = new Mutex();
  private worker: Worker | null = null;
  private idle: NodeJS.Timeout | null = null;
  private waiting = 0;
  /** No file takes longer than this, ms. */
  longest = LONGEST_MS;

  async onApplicationShutdown(): Promise<void> {
    await this.end();
  }

  /** @param given up when it is aborted: what was begun for it is ended */
  async run<T extends LongResult>(job: LongJob, given?: AbortSignal): Promise<T> {
    if (this.waiting >= MOST_WAITING)
      throw new RefusedError(
        HttpStatus.TOO_MANY_REQUESTS,
        'failed',
        'Too many files are being made. Ask again shortly.',
      );
    this.waiting += 1;
    try {
      return await this.turn.runExclusive(() => this.work<T>(job, given));
    } finally {
      this.waiting -= 1;
    }
  }

  private work<T extends LongResult>(job: LongJob, given?: AbortSignal): Promise<T> {
    if (this.idle) clearTimeout(this.idle);
    if (given?.aborted) return Promise.reject(this.refusal('Nobody waits for this any more.'));
    const worker = (this.worker ??= new Worker(threadScript(import.meta.url, './file.worker', 'files/file.worker')));
    return new Promise<T>((resolve, reject) => {
      const finish = (then: () => void): void => {
        clearTimeout(limit);
        given?.removeEventListener('abort', leave);
        worker.off('error', broken).off('exit', gone).off('message', answered);
        this.idle = setTimeout(() => void this.end(), IDLE_MS).unref();
        then();
      };
      const fail = (why: string): void => finish(() => void this.end().then(() => reject(this.refusal(why))));
      const leave = (): void => fail('Nobody waits for this any more.');
      const broken = (problem: unknown): void => fail(`This could not be made: ${String(problem)}.`);
      const gone = (): void => fail('This could not be made: its thread ended.');
      const answered = (answer: LongAnswer): void =>
        finish(() => {
          if (answer.ok) resolve(answer.result as T);
          else if (answer.place === null) reject(this.refusal(`This could not be made: ${answer.message}.`));
          else reject(new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', answer.message, { place: answer.place }));
        });
      const limit = setTimeout(
        () => fail(`This took longer than ${this.longest / 1000} seconds and was ended.`),
        this.longest,
      );
      given?.addEventListener('abort', leave);
      worker.on('error', broken).on('exit', gone).on('message', answered);
      worker.postMessage(job);
    });
  }

  private refusal(why: string): RefusedError {
    return new RefusedError(HttpStatus.SERVICE_UNAVAILABLE, 'failed', why);
  }

  private async end(): Promise<void> {
    const { worker } = this;
    this.worker = null;
    if (this.idle) clearTimeout(this.idle);
    this.idle = null;
    await worker?.terminate();
  }
}
