import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seededRandom } from '../../../packages/core/src/numeric/random.js';
import { createApp } from './app.js';
import { logger } from './logger.js';

logger.level = 'silent';
const REQUESTS = 3000;
/** The bench asks for what was found. */
const MEASURES = process.env['NEST_PLANK_MEASURES'];
const demo = readFileSync(fileURLToPath(new URL('../../../demo/thimble.json', import.meta.url)), 'utf8');
let folder: string;
let app: NestExpressApplication | undefined;
let base: string;
let alone: ChildProcess | null = null;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-malformed-'));
  if (MEASURES) {
    // what its memory comes to is seen only where the server is alone
    alone = spawn(process.execPath, [fileURLToPath(new URL('../dist/main.js', import.meta.url))], {
      env: { ...process.env, PORT: '0', NEST_PLANK_DB: join(folder, 'test.sqlite') },
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    const { stdout } = alone;
    base = await new Promise((resolve) =>
      stdout?.on('data', (data: Buffer) => {
        const found = /http:\/\/\S+/.exec(data.toString())?.[0];
        if (found) resolve(found);
      }),
    );
    return;
  }
  app = await createApp({ database: join(folder, 'test.sqlite') });
  await app.listen(0, '127.0.0.1');
  base = (await app.getUrl()).replace('[::1]', '127.0.0.1');
});
afterAll(async () => {
  alone?.kill('SIGKILL');
  await app?.close();
  rmSync(folder, { recursive: true, force: true });
});

interface Described {
  readonly paths: Readonly<Record<string, Readonly<Record<string, unknown>>>>;
}

describe('requests that nobody sends on purpose', () => {
  it(`${REQUESTS} of them over every published route: no fault of the server, and it goes on`, async () => {
    const send = (method: string, path: string, body?: string, type = 'application/json'): Promise<Response> =>
      fetch(`${base}${path}`, { method, body, headers: body === undefined ? {} : { 'content-type': type } });
    const { id } = (await (await send('POST', '/api/projects/import', JSON.stringify({ text: demo }))).json()) as {
      id: string;
    };
    const { paths } = (await (await send('GET', '/api/openapi.json')).json()) as Described;
    const routes = Object.entries(paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => ({ path, method })),
    );
    expect(routes.length).toBeGreaterThan(25);
    const random = seededRandom(20261127);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
    const words = [
      id,
      'constructor',
      '__proto__',
      '..%2f..',
      '%00',
      'ä',
      'x'.repeat(300),
      'laser',
      'json',
      '0',
      '-1',
      'NaN',
    ];
    const values: readonly unknown[] = [
      null,
      0,
      -1,
      1e308,
      '',
      'x',
      [],
      {},
      [[]],
      [null],
      { a: { b: [] } },
      true,
      '__proto__',
      id,
      { length: 9 },
      Array.from({ length: 300 }, () => ({})),
      'x'.repeat(5000),
    ];
    const fields = [
      'text',
      'revision',
      'steps',
      'name',
      'kind',
      'units',
      'startDate',
      'address',
      'battery',
      'id',
      'from',
      '__proto__',
    ];
    const faults: string[] = [];
    const seen = new Map<number, number>();
    let slowest = { ms: 0, what: '' };
    for (let i = 0; i < REQUESTS; i += 1) {
      const { path, method } = pick(routes);
      // what empties or replaces the database is tried elsewhere
      if (
        path.includes('restore') ||
        (path.endsWith('/everything') && method === 'get') ||
        (method === 'delete' && random() < 0.9)
      )
        continue;
      const filled = path.replace(/\{\w+\}/g, () => (random() < 0.5 ? id : pick(words)));
      const query = random() < 0.2 ? `?${pick(fields)}=${pick(words)}&ids=a&ids=b&size[]=1` : '';
      const hasBody = method !== 'get' && random() < 0.9;
      const body = !hasBody
        ? undefined
        : random() < 0.1
          ? pick(['{', '[1,', 'null', '"x"', '{"a":1e999}', '\u0000'])
          : JSON.stringify(
              Object.fromEntries(Array.from({ length: Math.floor(random() * 4) }, () => [pick(fields), pick(values)])),
            );
      const type =
        random() < 0.9
          ? 'application/json'
          : pick(['text/plain', 'multipart/form-data; boundary=x', 'application/xml']);
      const begun = performance.now();
      const response = await send(method.toUpperCase(), `${filled}${query}`, body, type);
      const ms = performance.now() - begun;
      if (ms > slowest.ms) slowest = { ms, what: `${method} ${filled.slice(0, 80)}` };
      seen.set(response.status, (seen.get(response.status) ?? 0) + 1);
      if (response.status >= 500)
        faults.push(`${response.status} ${method} ${filled.slice(0, 80)}${query} ${body?.slice(0, 120) ?? ''}`);
      // an open stream is left
      await response.body?.cancel();
    }
    expect(faults).toEqual([]);
    expect(seen.get(400) ?? 0).toBeGreaterThan(300);
    expect((await send('GET', `/api/projects/${id}`)).status).toBeLessThan(500);
    const health = await send('GET', '/api/health');
    expect(health.status).toBe(200);
    const { memoryMb } = (await health.json()) as { memoryMb: number };
    if (MEASURES) writeFileSync(MEASURES, JSON.stringify({ requests: REQUESTS, slowest, memoryMb }));
  });
});
