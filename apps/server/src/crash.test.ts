import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ProjectView, StepsResult } from '@nestplank/contract';
import { seededRandom } from '../../../packages/core/src/numeric/random.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const entry = join(root, 'apps/server/dist/main.js');
const folder = mkdtempSync(join(tmpdir(), 'nest-plank-crash-'));
const database = join(folder, 'crash.sqlite');
/** So many times the server is killed; the bench asks for more and for what was found. */
const CYCLES = Number(process.env['NEST_PLANK_KILLS'] ?? 15);
const MEASURES = process.env['NEST_PLANK_MEASURES'];
/** A server is left to save for at most this long before it is killed, ms. */
const LONGEST_LIFE_MS = 250;

/** Starts the real server on a free port and waits for its address. */
function start(): Promise<{ server: ChildProcess; base: string }> {
  const server = spawn(process.execPath, [entry], {
    env: { ...process.env, PORT: '0', NEST_PLANK_DB: database, NEST_PLANK_DEMO: join(root, 'demo/wren.json') },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    server.once('exit', (code) => reject(new Error(`ended with ${String(code)}`)));
    server.stdout?.on('data', (data: Buffer) => {
      const base = /http:\/\/\S+/.exec(data.toString())?.[0];
      if (base) resolve({ server, base });
    });
  });
}

const after = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

const kill = (server: ChildProcess): Promise<void> =>
  new Promise((resolve) => {
    server.removeAllListeners('exit');
    server.once('exit', () => resolve());
    server.kill('SIGKILL');
  });

const placeOf = ({ project }: ProjectView): number | undefined =>
  project.layout.units.find((unit) => unit.id === 'bench')?.body.x;

describe('killing the server in the middle of saves', () => {
  beforeAll(() => {
    if (!existsSync(entry)) throw new Error('Build the server first: npm run build.');
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it(`${CYCLES} times: loses no acknowledged change, keeps no half of one, starts again without reseeding`, async () => {
    let acknowledged = 0;
    let value = 0;
    const random = seededRandom(20261127);
    for (let round = 0; round < CYCLES; round += 1) {
      const { server, base } = await start();
      const opened = (await (await fetch(`${base}/api/projects/wren`)).json()) as ProjectView;
      expect(opened.revision).toBeGreaterThanOrEqual(acknowledged);
      // a change the server made but could not acknowledge may be there; never more than that one
      expect(opened.revision).toBeLessThanOrEqual(acknowledged + 1);
      if (opened.revision === acknowledged && acknowledged > 0) expect(placeOf(opened)).toBe(value);
      acknowledged = opened.revision;
      value = placeOf(opened) ?? 0;
      // its life is counted from its first answer: on a busy machine a round would else end before one
      let killed: Promise<void> | null = null;
      for (let i = 0; ; i += 1) {
        const x = 1000 + ((round * 100 + i) % 900);
        try {
          const response = await fetch(`${base}/api/projects/wren/operations`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: JSON.stringify({
              revision: acknowledged,
              steps: [{ id: randomUUID(), name: 'changeUnit', payload: { id: 'bench', changes: { x } } }],
            }),
          });
          acknowledged = ((await response.json()) as StepsResult).revision;
          value = x;
          killed ??= after(random() * LONGEST_LIFE_MS).then(() => kill(server));
        } catch {
          break;
        }
      }
      await killed;
    }
    expect(acknowledged).toBeGreaterThanOrEqual(CYCLES);
    const { server, base } = await start();
    expect((await (await fetch(`${base}/api/projects`)).json()) as unknown[]).toHaveLength(1);
    await kill(server);
    if (MEASURES) writeFileSync(MEASURES, JSON.stringify({ cycles: CYCLES, acknowledged }));
  });
});
