import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { afterEach, describe, expect, it } from 'vitest';
import { readProjectFile } from '@nestplank/core/formats';
import { RefusedError } from '../refusals.js';
import { LongWork } from './long-work.js';
import type { LongJob } from './file.worker.js';
import type { Made } from './make-file.js';

const ofDemo = (name: string) => {
  const text = readFileSync(fileURLToPath(new URL(`../../../../demo/${name}.json`, import.meta.url)), 'utf8');
  const { project, priceBook } = readProjectFile(text);
  return { project, priceBook };
};
const wanted = (name: string, format: string, query: Record<string, unknown> = {}): LongJob => ({
  kind: 'file',
  job: { ...ofDemo(name), format, base: 'http://127.0.0.1', query },
});
const why = async (asked: Promise<unknown>): Promise<string> => {
  try {
    await asked;
    return '';
  } catch (problem) {
    return problem instanceof RefusedError ? `${problem.status} ${problem.message}` : String(problem);
  }
};
let work = new LongWork();
afterEach(async () => {
  await work.onApplicationShutdown();
  work = new LongWork();
});

describe('long work', () => {
  it('ends when nobody waits for it, and the next begins at once', async () => {
    const left = new AbortController();
    const asked = why(work.run<Made>(wanted('bulrush', 'labels'), left.signal));
    const next = work.run<Made>(wanted('thimble', 'csv'));
    left.abort();
    expect(await asked).toMatch(/^503 Nobody waits/);
    expect((await next).name).toBe('thimble-cut-list.csv');
    // whoever left before it began is not served
    expect(await why(work.run<Made>(wanted('bulrush', 'labels'), left.signal))).toMatch(/Nobody waits/);
  });
  it('ends after its time, with a sentence', async () => {
    work.longest = 200;
    expect(await why(work.run<Made>(wanted('bulrush', 'labels')))).toBe(
      '503 This took longer than 0.2 seconds and was ended.',
    );
    work.longest = 120_000;
    expect((await work.run<Made>(wanted('thimble', 'csv'))).type).toBe('text/csv');
  });
  it('refuses what cannot be made with its place, and more than can wait', async () => {
    expect(await why(work.run<Made>(wanted('thimble', 'template', { part: 'none' })))).toMatch(/^400 There is no part/);
    const many = Array.from({ length: 14 }, () => why(work.run<Made>(wanted('thimble', 'csv'))));
    const answers = await Promise.all(many);
    expect(answers.filter((answer) => answer.startsWith('429'))).toHaveLength(2);
    expect(answers.filter((answer) => answer === '')).toHaveLength(12);
  });
});
