import { spawn } from 'node:child_process';
import { request as ask } from 'node:http';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { fileURLToPath } from 'node:url';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { BackupsView, BackupView, BinItem, ProjectView, Refusal } from '@nestplank/contract';
import Libsql from 'libsql';
import { createApp } from './app.js';
import { backupFolder, backupsOf, copyDatabase, keepBefore, KEPT, writeBackup } from './backups/backup-files.js';
import { shapeFault } from './bounded.js';
import { logger } from './logger.js';

logger.level = process.env['LOG_LEVEL'] ?? 'silent';
const root = fileURLToPath(new URL('../../..', import.meta.url));
const demo = readFileSync(join(root, 'demo/thimble.json'), 'utf8');
let folder: string;
let app: NestExpressApplication;
let base: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-doors-'));
  app = await createApp({ database: join(folder, 'test.sqlite') });
  await app.listen(0, '127.0.0.1');
  base = (await app.getUrl()).replace('[::1]', '127.0.0.1');
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Asks with any headers, as a browser would that fetch does not let us play. */
function send(
  method: string,
  path: string,
  headers: Record<string, string> = {},
  body?: string,
): Promise<{ status: number; text: string; headers: NodeJS.Dict<string | string[]> }> {
  return new Promise((resolve, reject) => {
    const sent = ask(`${base}${path}`, { method, headers }, (response) => {
      let text = '';
      response.setEncoding('utf8');
      response.on('data', (part: string) => (text += part));
      response.on('end', () => resolve({ status: response.statusCode ?? 0, text, headers: response.headers }));
    });
    sent.on('error', reject);
    sent.end(body);
  });
}
const json = { 'content-type': 'application/json' };
const importDemo = async (): Promise<string> =>
  (
    JSON.parse((await send('POST', '/api/projects/import', json, JSON.stringify({ text: demo }))).text) as {
      id: string;
    }
  ).id;

describe('doors', () => {
  it('another name for this address is refused, whatever is asked', async () => {
    for (const host of ['evil.example', 'evil.example:80', '192.168.1.7', 'localhost.evil.example'])
      expect((await send('GET', '/api/projects', { host })).status, host).toBe(421);
    for (const host of ['localhost:1', '127.0.0.1', 'LOCALHOST', '[::1]:4310'])
      expect((await send('GET', '/api/projects', { host })).status, host).toBe(200);
    expect((await send('DELETE', '/api/projects/x', { host: 'evil.example' })).status).toBe(421);
  });
  it('a page of another origin can neither ask nor send, by whatever form', async () => {
    const id = await importDemo();
    const foreign = { origin: 'http://evil.example' };
    for (const headers of [
      foreign,
      { origin: 'null' },
      { origin: 'http://localhost:9999' },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
    ] as Record<string, string>[]) {
      expect(
        (await send('POST', '/api/projects/import', { ...headers, 'content-type': 'text/plain' }, demo)).status,
      ).toBe(403);
      expect((await send('DELETE', `/api/projects/${id}`, headers)).status).toBe(403);
      expect((await send('GET', `/api/projects/${id}/files/labels`, headers)).status).toBe(403);
      const form = '--x\r\nContent-Disposition: form-data; name="photo"; filename="a.png"\r\n\r\nx\r\n--x--\r\n';
      const photo = await send(
        'POST',
        `/api/projects/${id}/photos`,
        { ...headers, 'content-type': 'multipart/form-data; boundary=x' },
        form,
      );
      expect(photo.status).toBe(403);
    }
    const own = { ...json, origin: base, 'sec-fetch-site': 'same-origin' };
    expect((await send('POST', '/api/projects/import', own, JSON.stringify({ text: demo }))).status).toBe(201);
  });
  it('every route is shut to another origin, however its path is spelled', async () => {
    const { hostname, port } = new URL(base);
    const raw = (method: string, path: string, headers: Record<string, string>): Promise<number> =>
      new Promise((resolve, reject) => {
        // as it is written: nothing is made plain on the way
        const sent = ask({ hostname, port, method, path, headers }, (response) => {
          response.resume();
          response.on('end', () => resolve(response.statusCode ?? 0));
        });
        sent.on('error', reject);
        sent.end();
      });
    const { paths } = JSON.parse((await send('GET', '/api/openapi.json')).text) as {
      paths: Record<string, Record<string, unknown>>;
    };
    const routes = Object.entries(paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => [method.toUpperCase(), path.replace(/\{[^}]*\}/g, 'x')] as const),
    );
    expect(routes.length).toBeGreaterThan(30);
    const spelled = (path: string): string[] => [
      path,
      path.toUpperCase(),
      path.replace('/api', '/Api'),
      path.replace('/api', '//api'),
      path.replace('/api/', '/api//'),
      path.replace('/api', '/%61pi'),
      path.replace('/api', '/%41PI'),
      path.replace('/api', '/./api'),
      path.replace('/api', '/assets/../api'),
      `${path}/`,
      path.replace('/api', '/\\api'),
      path.replace('/api', '/%'),
    ];
    const foreign: Record<string, string>[] = [
      { origin: 'http://evil.example', 'sec-fetch-site': 'cross-site' },
      { origin: 'null' },
    ];
    const { backups: before } = JSON.parse((await send('GET', '/api/backups')).text) as BackupsView;
    const open: string[] = [];
    for (const [method, path] of routes)
      for (const written of spelled(path))
        for (const headers of foreign) {
          const status = await raw(method, written, headers);
          // there is no such route, or it is shut
          if (![403, 404].includes(status)) open.push(`${method} ${written}: ${status}`);
          else if (status === 404 && method !== 'GET') open.push(`${method} ${written} came as far as the routes`);
        }
    expect(open).toEqual([]);
    expect((JSON.parse((await send('GET', '/api/backups')).text) as BackupsView).backups).toEqual(before);
    // the same spelling is answered where its own page asks
    expect(await raw('GET', '/API/PROJECTS', { origin: base, 'sec-fetch-site': 'same-origin' })).toBe(200);
    expect(await raw('GET', '/API/PROJECTS', {})).toBe(200);
  });
  it('its policy lets no page frame it, rebase it or take its forms', async () => {
    const policy = String((await send('GET', '/api/health')).headers['content-security-policy']);
    for (const rule of ["base-uri 'self'", "form-action 'self'", "frame-ancestors 'none'"])
      expect(policy).toContain(rule);
  });
});

describe('what cannot be right is refused at once, never with a fault of the server', () => {
  const post = async (path: string, body: unknown): Promise<{ status: number; ms: number; said: Refusal }> => {
    const start = performance.now();
    const { status, text } = await send('POST', path, json, typeof body === 'string' ? body : JSON.stringify(body));
    return { status, ms: performance.now() - start, said: JSON.parse(text) as Refusal };
  };
  it('steps that are lists, nothing, or too many; fields without end; nesting without end', async () => {
    const id = await importDemo();
    const at = `/api/projects/${id}/operations`;
    const nested = '['.repeat(5000) + ']'.repeat(5000);
    for (const body of [
      { revision: 0, steps: [[]] },
      { revision: 0, steps: [null] },
      { revision: 0, steps: ['x'] },
      { revision: 0, steps: 7 },
      [],
      { revision: 0, steps: Array.from({ length: 100_000 }, () => ({})) },
      Object.fromEntries(Array.from({ length: 20_000 }, (_, i) => [`k${i}`, 1])),
      { revision: 0, steps: [{ id: randomUUID(), name: 'changeSettings', payload: { changes: { a: 1 } } }] },
      `{"revision":0,"steps":${nested}}`,
    ])
      expect((await post(at, body)).status, JSON.stringify(body).slice(0, 60)).toBeGreaterThanOrEqual(400);
    for (const body of [{ revision: 0, steps: [[]] }, `{"revision":0,"steps":${nested}}`])
      expect((await post(at, body)).status).toBe(400);
    const deep = await post('/api/projects/import', { text: nested });
    expect([deep.status, deep.said.code]).toEqual([400, 'invalid']);
  });
  it('two steps of one name in one message, and a cut three thousand deep', async () => {
    const id = await importDemo();
    const { revision } = JSON.parse((await send('GET', `/api/projects/${id}`)).text) as ProjectView;
    const step = { id: randomUUID(), name: 'changeSettings', payload: { changes: { budget: 5 } } };
    const twice = await post(`/api/projects/${id}/operations`, { revision, steps: [step, step] });
    expect([twice.status, twice.said.step]).toEqual([400, step.id]);
    const leaf = '{"name":"b","holds":{"kind":"open"},"front":{"kind":"none"}}';
    const cut = '{"cut":"up","divider":"board","sizes":[{"share":1},{"share":1}],"parts":[';
    const file = JSON.parse(demo) as { project: { layout: { units: { division: unknown }[] } } };
    const [unit] = file.project.layout.units;
    if (!unit) throw new Error('the demo has a unit');
    unit.division = 'DEEP';
    const text = JSON.stringify(file).replace('"DEEP"', `${cut.repeat(3000)}${leaf}${`,${leaf}]}`.repeat(3000)}`);
    const deep = await post('/api/projects/import', { text });
    expect([deep.status, deep.said.code]).toEqual([400, 'invalid']);
    expect(deep.said.message).toContain('deep');
  });
  it('names that every object has, a question asked twice, a price twice', async () => {
    const id = await importDemo();
    for (const name of ['constructor', '__proto__', 'toString', 'hasOwnProperty'])
      expect((await send('GET', `/api/projects/${id}/files/${name}`)).status, name).toBe(400);
    expect((await send('GET', `/api/compare?ids=${id}&ids=${id}`)).status).toBe(400);
    const file = JSON.parse(demo) as { priceBook: { items: unknown[] } };
    file.priceBook.items.push(file.priceBook.items[0]);
    expect((await post('/api/projects/import', { text: JSON.stringify(file) })).status).toBe(400);
  });
  it('a body is looked through in one pass', () => {
    expect(shapeFault({ a: [1, { b: 'x' }] })).toBeNull();
    let deep: unknown = 1;
    for (let i = 0; i < 50_000; i += 1) deep = [deep];
    expect(shapeFault(deep)).toContain('nested');
    expect(shapeFault(Array.from({ length: 70_000 }, () => 0))).toContain('values');
  });
});

describe('the bin', () => {
  it('keeps a project with all that belongs to it, gives it back, and is emptied after its days', async () => {
    const id = await importDemo();
    await send('DELETE', `/api/projects/${id}`);
    expect((await send('GET', `/api/projects/${id}`)).status).toBe(404);
    const bin = JSON.parse((await send('GET', '/api/projects/bin')).text) as BinItem[];
    const item = bin.find((one) => one.id === id);
    expect(Date.parse(item?.until ?? '') - Date.parse(item?.deletedAt ?? '')).toBe(30 * 86_400_000);
    expect((await send('POST', `/api/projects/${id}/bring-back`)).status).toBe(204);
    expect((await send('GET', `/api/projects/${id}`)).status).toBe(200);
    expect((await send('POST', `/api/projects/${id}/bring-back`)).status).toBe(404);
  });
});

describe('backups', () => {
  it('are whole, can be fetched, and put everything back as it was', async () => {
    const id = await importDemo();
    const step = (budget: number) => ({ id: randomUUID(), name: 'changeSettings', payload: { changes: { budget } } });
    const change = (revision: number, budget: number) =>
      send('POST', `/api/projects/${id}/operations`, json, JSON.stringify({ revision, steps: [step(budget)] }));
    const budget = async (): Promise<number> =>
      (JSON.parse((await send('GET', `/api/projects/${id}`)).text) as ProjectView).project.settings.budget;
    await change(0, 111);
    const made = JSON.parse((await send('POST', '/api/backups')).text) as BackupView;
    await change(1, 222);
    expect(await budget()).toBe(222);
    const file = await send('GET', `/api/backups/${made.name}`);
    expect([file.status, file.text.slice(0, 15)]).toEqual([200, 'SQLite format 3']);
    expect((await send('POST', `/api/backups/${made.name}/restore`)).status).toBe(200);
    expect(await budget()).toBe(111);
    // what was there before is a backup itself
    const { backups: list } = JSON.parse((await send('GET', '/api/backups')).text) as BackupsView;
    expect(list.filter((backup) => backup.kind === 'hand')).toHaveLength(2);
    expect((await change(1, 333)).status).toBe(200);
    for (const name of ['nowhere.sqlite', '..%2f..%2ftest.sqlite'])
      expect((await send('POST', `/api/backups/${name}/restore`)).status).toBe(404);
  });
});

describe('backups in the order they were made', () => {
  const own = (): string => join(mkdtempSync(join(folder, 'order-')), 'a.sqlite');
  const made = (database: string, at: string, wanted?: string) =>
    writeBackup(database, 'hand', new Date(at), (path) => copyDatabase(database, path), wanted);
  const day = (n: number): string => `2026-05-${String(n).padStart(2, '0')}T10:00:00.000Z`;
  const standing = async (): Promise<string> => {
    const database = own();
    copyFileSync(join(folder, 'test.sqlite'), database);
    return database;
  };
  it('the oldest of ten can be put in place: what is kept before makes no room of it', async () => {
    const database = await standing();
    for (let n = 1; n <= KEPT.hand; n += 1) await made(database, day(n));
    const oldest = backupsOf(database).at(-1);
    if (!oldest) throw new Error('there are ten');
    const { backup } = await keepBefore(database, (path) => copyDatabase(database, path), oldest.name);
    const names = backupsOf(database).map(({ name }) => name);
    expect(names).toContain(oldest.name);
    expect(names[0]).toBe(backup?.name);
    // one more is kept until the next
    expect(names).toHaveLength(KEPT.hand + 1);
    await made(database, day(20));
    expect(backupsOf(database)).toHaveLength(KEPT.hand);
  });
  it('the oldest of ten is put in place over the wire, and what was there before is kept', async () => {
    const id = await importDemo();
    const first = JSON.parse((await send('POST', '/api/backups')).text) as BackupView;
    for (let n = 1; n < KEPT.hand; n += 1) await send('POST', '/api/backups');
    await send('DELETE', `/api/projects/${id}`);
    const { status, text } = await send('POST', `/api/backups/${first.name}/restore`);
    expect(status).toBe(200);
    expect((await send('GET', `/api/projects/${id}`)).status).toBe(200);
    const { backups: list } = JSON.parse((await send('GET', '/api/backups')).text) as BackupsView;
    expect(list[0]?.name).toBe((JSON.parse(text) as BackupView).name);
    expect(list.map(({ name }) => name)).toContain(first.name);
  });
  it('a clock that was ahead neither throws away what is made after it nor goes untold', async () => {
    const database = await standing();
    const odd = await made(database, '2031-01-01T10:00:00.000Z');
    for (let n = 1; n <= KEPT.hand - 1; n += 1) await made(database, day(n));
    const now = new Date(day(28));
    expect(backupsOf(database, now).map(({ at }) => at)[0]).toBe(day(KEPT.hand - 1));
    expect(
      backupsOf(database, now)
        .filter(({ ahead }) => ahead)
        .map(({ name }) => name),
    ).toEqual([odd.name]);
    // it goes when its turn comes, as the one that was made first
    await made(database, day(26));
    expect(backupsOf(database, now).map(({ name }) => name)).not.toContain(odd.name);
    expect(backupsOf(database, now)).toHaveLength(KEPT.hand);
  });
  it('those of an earlier release, without a count, come before by their time', async () => {
    const database = await standing();
    await made(database, day(3));
    for (const n of [1, 2])
      copyFileSync(
        join(backupFolder(database), backupsOf(database)[0]?.name ?? ''),
        join(backupFolder(database), `hand-2026-04-0${n}T10-00-00-000Z.sqlite`),
      );
    expect(backupsOf(database).map(({ at }) => at.slice(5, 10))).toEqual(['05-03', '04-02', '04-01']);
  });
  it('what is damaged is kept as the file it is before another is put in its place', async () => {
    const database = await standing();
    const good = await made(database, day(1));
    const bytes = readFileSync(database);
    bytes.fill(7, 100, 4000);
    writeFileSync(database, bytes);
    const { backup, kept } = await keepBefore(database, (path) => copyDatabase(database, path), good.name);
    expect(backup).toBeNull();
    expect(readFileSync(kept).equals(bytes)).toBe(true);
  });
  it('no save that was acknowledged is lost while one is put in place', async () => {
    const id = await importDemo();
    const target = JSON.parse((await send('POST', '/api/backups')).text) as BackupView;
    const acknowledged: number[] = [];
    let revision = (JSON.parse((await send('GET', `/api/projects/${id}`)).text) as ProjectView).revision;
    let going = true;
    const saving = (async () => {
      for (let budget = 1000; going; budget += 1) {
        const step = { id: randomUUID(), name: 'changeSettings', payload: { changes: { budget } } };
        const body = JSON.stringify({ revision, steps: [step] });
        const { status, text } = await send('POST', `/api/projects/${id}/operations`, json, body);
        if (status === 200) {
          acknowledged.push(budget);
          revision = (JSON.parse(text) as { revision: number }).revision;
        } else revision = (JSON.parse((await send('GET', `/api/projects/${id}`)).text) as ProjectView).revision;
      }
    })();
    while (acknowledged.length < 3) await new Promise((done) => setImmediate(done));
    const restored = JSON.parse((await send('POST', `/api/backups/${target.name}/restore`)).text) as BackupView;
    going = false;
    await saving;
    // each is in what was kept before, or was done after on what was put in place
    const before = new Libsql(join(backupFolder(join(folder, 'test.sqlite')), restored.name), { readonly: true });
    const [row] = before.prepare('SELECT document FROM projects WHERE id = ?').all(id) as { document: string }[];
    before.close();
    const kept = (JSON.parse(row?.document ?? '{}') as { settings: { budget: number } }).settings.budget;
    const after = new Libsql(join(folder, 'test.sqlite'), { readonly: true });
    const done = JSON.stringify(after.prepare('SELECT * FROM operations WHERE projectId = ?').all(id));
    after.close();
    const lost = acknowledged.filter((budget) => budget > kept && !new RegExp(`budget\\W+${budget}\\b`).test(done));
    expect([kept >= 1002, lost]).toEqual([true, []]);
  });
});

describe('starting and ending the server', () => {
  const entry = join(root, 'apps/server/dist/main.js');
  const started: ReturnType<typeof spawn>[] = [];
  afterEach(() => {
    for (const server of started.splice(0)) server.kill('SIGKILL');
  });
  /** Runs the server until it says where it is, or ends. */
  function run(
    env: Record<string, string>,
  ): Promise<{ url: string; code: number | null; said: string; server: ReturnType<typeof spawn> }> {
    const server = spawn(process.execPath, [entry], {
      env: { ...process.env, LOG_LEVEL: 'silent', PORT: '0', ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    started.push(server);
    return new Promise((resolve) => {
      let said = '';
      server.stderr?.on('data', (data: Buffer) => (said += data.toString()));
      server.stdout?.on('data', (data: Buffer) => {
        const url = /http:\/\/\S+/.exec(data.toString())?.[0];
        if (url) resolve({ url, code: null, said, server });
      });
      server.once('exit', (code) => resolve({ url: '', code, said: said.trim(), server }));
    });
  }
  it('says in one line why it cannot start', async () => {
    const own = mkdtempSync(join(folder, 'start-'));
    const database = join(own, 'a.sqlite');
    const port = new URL(base).port;
    writeFileSync(join(own, 'text.sqlite'), 'this is no database at all, but long enough to be read as one'.repeat(20));
    mkdirSync(join(own, 'folder.sqlite'));
    for (const [env, said] of [
      [{ NEST_PLANK_DB: database, PORT: 'eighty' }, 'PORT is “eighty”'],
      [{ NEST_PLANK_DB: database, PORT: port }, `Port ${port} is in use`],
      [{ NEST_PLANK_DB: join(own, 'text.sqlite') }, 'cannot be opened as a database'],
      [{ NEST_PLANK_DB: join(own, 'folder.sqlite') }, 'is a folder'],
    ] as const) {
      const ended = await run(env);
      expect(ended.code, said).toBe(1);
      expect(ended.said).toContain(said);
      expect(ended.said.split('\n')).toHaveLength(1);
    }
    expect(existsSync(`${database}.lock`)).toBe(false);
  });
  it('a second server on the same database says where the first is; what a killed one left is taken over', async () => {
    const database = join(mkdtempSync(join(folder, 'lock-')), 'a.sqlite');
    const first = await run({ NEST_PLANK_DB: database });
    const second = await run({ NEST_PLANK_DB: database });
    expect(second.code).toBe(1);
    expect(second.said).toContain(first.url);
    // neither sleep nor a file that is removed or old lets go of it
    const saved = (): Promise<number> =>
      fetch(`${first.url}/api/projects`, {
        method: 'POST',
        headers: json,
        body: JSON.stringify({ name: 'A', kind: 'van', model: '', units: 'mm', startDate: '2026-10-01' }),
      }).then(({ status }) => status);
    first.server.kill('SIGSTOP');
    utimesSync(`${database}.lock`, new Date(0), new Date(0));
    expect((await run({ NEST_PLANK_DB: database })).code).toBe(1);
    rmSync(`${database}.lock`);
    expect((await run({ NEST_PLANK_DB: database })).said).toContain('in use by another process');
    first.server.kill('SIGCONT');
    expect(await saved()).toBe(201);
    first.server.kill('SIGKILL');
    const third = await run({ NEST_PLANK_DB: database });
    expect(third.url).not.toBe('');
    expect((await run({ NEST_PLANK_DB: database })).said).toContain(third.url);
  });
  it('asked to end, it ends with streams still open, and the file alone is whole', async () => {
    const database = join(mkdtempSync(join(folder, 'end-')), 'a.sqlite');
    const { url, server } = await run({ NEST_PLANK_DB: database, NEST_PLANK_DEMO: join(root, 'demo/thimble.json') });
    await fetch(`${url}/api/projects/thimble/devices/laser/link`, { method: 'POST', headers: json, body: '{}' });
    const stream = await fetch(`${url}/api/projects/thimble/devices/laser/stream`);
    const start = performance.now();
    const code = await new Promise((resolve) => {
      server.once('exit', resolve);
      server.kill('SIGTERM');
    });
    await stream.body?.cancel().catch(() => undefined);
    expect([code, performance.now() - start < 3000]).toEqual([0, true]);
    const beside = existsSync(`${database}-wal`) ? statSync(`${database}-wal`).size : 0;
    expect([beside, existsSync(`${database}.lock`)]).toEqual([0, false]);
  });
});
