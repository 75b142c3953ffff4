import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ProjectView, StepsResult } from '@nestplank/contract';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const entry = join(root, 'apps/server/dist/main.js');
const folder = mkdtempSync(join(tmpdir(), 'nest-plank-crash-'));
const database = join(folder, 'crash.sqlite');

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

const kill = (server: ChildProcess): Promise<void> =>
  new Promise((resolve) => {
    server.removeAllListeners('exit');
    server.once('exit', () => resolve());
    server.kill('SIGKILL');
  });

describe('killing the server in the middle of saves', () => {
  beforeAll(() => {
    if (!existsSync(entry)) throw new Error('Build the server first: npm run build.');
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it('loses no acknowledged change, keeps no half of one, and starts again without reseeding', async () => {
    let acknowledged = 0;
    let value = 0;
    for (let round = 0; round < 3; round += 1) {
      const { server, base } = await start();
      const opened = (await (await fetch(`${base}/api/projects/wren`)).json()) as ProjectView;
      expect(opened.revision).toBeGreaterThanOrEqual(acknowledged);
      // a change the server made but could not acknowledge may be there; never more than that one
      expect(opened.revision).toBeLessThanOrEqual(acknowledged + 1);
      if (opened.revision === acknowledged && acknowledged > 0)
        expect(opened.project.layout.units.find((unit) => unit.id === 'bench')?.body.x).toBe(value);
      acknowledged = opened.revision;
      let killed: Promise<void> | null = null;
      for (let i = 0; ; i += 1) {
        const x = 1000 + round * 100 + i;
        if (i === 12) killed = kill(server);
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
        } catch {
          break;
        }
      }
      await killed;
    }
    expect(acknowledged).toBeGreaterThanOrEqual(36);
    const { server, base } = await start();
    expect((await (await fetch(`${base}/api/projects`)).json()) as unknown[]).toHaveLength(1);
    await kill(server);
  });
});
