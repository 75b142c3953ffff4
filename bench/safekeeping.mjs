// Measures what docs/safekeeping.md promises, at the lengths the tests do not go to, and writes its part of docs/performance.md.
import { spawn, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Libsql from 'libsql';
import { serverArguments } from '../scripts/prepare.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'nest-plank-safe-'));
const rows = [];
const row = (what, wanted, found, ok) => {
  rows.push({ what, wanted, found, ok });
  process.stdout.write(`${what}: ${found}\n`);
};
const share = (values, part) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * part))];
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Runs one file of the tests at full length; what it measured, or null when it failed. */
function tested(file, env) {
  const measures = join(folder, 'measures.json');
  rmSync(measures, { force: true });
  const { status } = spawnSync('npx', ['vitest', 'run', file, '--testTimeout=1800000'], {
    cwd: root,
    env: { ...process.env, NEST_PLANK_MEASURES: measures, ...env },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (status !== 0) return null;
  try {
    return JSON.parse(readFileSync(measures, 'utf8'));
  } catch {
    return {};
  }
}

/** Starts the server; its address, and how long it took until it could be used, ms. */
function start(database, more = {}) {
  const begun = performance.now();
  const server = spawn(process.execPath, serverArguments(root), {
    env: { ...process.env, PORT: '0', NEST_PLANK_DB: database, ...more },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    server.once('exit', (code) => reject(new Error(`The server ended with ${code}.`)));
    server.stdout.on('data', (data) => {
      const base = /http:\/\/\S+/.exec(String(data))?.[0];
      if (base) resolve({ server, base, ms: performance.now() - begun });
    });
  });
}
const end = (server) =>
  new Promise((resolve) => {
    server.removeAllListeners('exit');
    server.once('exit', resolve);
    server.kill('SIGTERM');
  });
const json = async (url, body) => {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${url}: ${response.status} ${await response.text()}`);
  return response.json();
};

/** 20 clients save twice a second while labels, cut drawings and a backup are made without a pause. */
async function savesMeanwhile() {
  const { server, base } = await start(join(folder, 'busy.sqlite'), { NEST_PLANK_DEMO: join(root, 'demo') });
  const demo = readFileSync(join(root, 'demo/wren.json'), 'utf8');
  const ids = [];
  for (let i = 0; i < 20; i += 1) ids.push((await json(`${base}/api/projects/import`, { text: demo })).id);
  let over = false;
  const made = { labels: 0, pdf: 0, backups: 0 };
  const again = async (name, pause, work) => {
    while (!over) {
      const response = await work();
      if (!response.ok) throw new Error(`${name}: ${response.status}`);
      await response.arrayBuffer();
      made[name] += 1;
      await wait(pause);
    }
  };
  const busy = [
    again('labels', 50, () => fetch(`${base}/api/projects/bulrush/files/labels`)),
    again('pdf', 50, () => fetch(`${base}/api/projects/bulrush/files/pdf`)),
    again('backups', 3000, () => fetch(`${base}/api/backups`, { method: 'POST' })),
  ];
  const times = [];
  await Promise.all(
    ids.map(async (id, number) => {
      let revision = 0;
      const first = performance.now() + number * 25;
      for (let i = 0; i < 60; i += 1) {
        // each keeps its own pace: people do not fall into step because a save took long
        await wait(Math.max(0, first + i * 500 - performance.now()));
        const begun = performance.now();
        const steps = [{ id: randomUUID(), name: 'changeUnit', payload: { id: 'bench', changes: { x: 1000 + i } } }];
        ({ revision } = await json(`${base}/api/projects/${id}/operations`, { revision, steps }));
        if (i >= 5) times.push(performance.now() - begun);
      }
    }),
  );
  over = true;
  await Promise.all(busy);
  const health = await (await fetch(`${base}/api/health`)).json();
  await end(server);
  row(
    `A change saved, 20 clients at two a second, meanwhile ${made.labels} files of labels, ${made.pdf} of cut drawings and ${made.backups} backups were made (99th percentile)`,
    'under 60 ms',
    `${share(times, 0.99).toFixed(0)} ms (median ${share(times, 0.5).toFixed(1)} ms, slowest ${Math.max(...times).toFixed(0)} ms)`,
    share(times, 0.99) < 60,
  );
  row('Server memory after that', 'told', `${health.memoryMb} MB`, true);
}

/** 200 projects with 50 000 steps between them, as a server of years has them. */
async function startWithMuch() {
  const database = join(folder, 'much.sqlite');
  const first = await start(database, { NEST_PLANK_DEMO: join(root, 'demo/wren.json') });
  let revision = 0;
  for (let i = 0; i < 10; i += 1) {
    const steps = [{ id: randomUUID(), name: 'changeUnit', payload: { id: 'bench', changes: { x: 1000 + i } } }];
    ({ revision } = await json(`${first.base}/api/projects/wren/operations`, { revision, steps }));
  }
  await end(first.server);
  const open = new Libsql(database);
  const columns = (table, skip) =>
    open
      .prepare(`SELECT name FROM pragma_table_info('${table}')`)
      .all()
      .map(({ name }) => name)
      .filter((name) => name !== skip);
  const copies = (table, changed, skip) => {
    const names = columns(table, skip);
    const values = names.map((name) => changed[name] ?? `"${name}"`);
    return `INSERT INTO ${table} (${names.map((name) => `"${name}"`).join(', ')}) SELECT ${values.join(', ')} FROM ${table}`;
  };
  open.exec('BEGIN');
  open.exec(
    `WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 199) ${copies('projects', { id: `'p' || n.i` })}, n WHERE projects.id = 'wren'`,
  );
  open.exec(
    `WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 4999) ${copies('operations', { projectId: `CASE WHEN n.i % 200 = 0 THEN 'wren' ELSE 'p' || (n.i % 200) END`, stepId: `stepId || '-' || n.i`, revision: 'revision' }, 'seq')}, n WHERE operations.projectId = 'wren'`,
  );
  open.exec('COMMIT');
  const count = (table) => open.prepare(`SELECT count(*) AS n FROM ${table}`).get().n;
  const [projects, steps] = [count('projects'), count('operations')];
  open.close();
  const { server, base, ms } = await start(database);
  const listed = (await (await fetch(`${base}/api/projects`)).json()).length;
  if (listed !== projects) throw new Error(`${listed} of ${projects} projects were listed.`);
  await end(server);
  // the first start of the day makes the backup of the day besides; the one after does not
  const second = await start(database);
  await end(second.server);
  row(
    `Start with ${projects} projects and ${steps} steps (with the backup of the day ${(ms / 1000).toFixed(1)} s)`,
    'under 2 s',
    `${(second.ms / 1000).toFixed(1)} s`,
    second.ms < 2000,
  );
}

const kills = tested('apps/server/src/crash.test.ts', { NEST_PLANK_KILLS: '300' });
row(
  'Server killed at random moments of saving: acknowledged changes lost',
  'none in 300 kills',
  kills ? `none in ${kills.cycles} kills, ${kills.acknowledged} changes` : 'failed',
  kills !== null,
);
const malformed = tested('apps/server/src/malformed.test.ts', {});
row(
  'Malformed requests over every published route: slowest answer',
  'under 1 s, no 5xx',
  malformed ? `${malformed.slowest.ms.toFixed(0)} ms (${malformed.slowest.what})` : 'failed',
  malformed !== null && malformed.slowest.ms < 1000,
);
row(
  'Server memory after them',
  'under 250 MB',
  malformed ? `${malformed.memoryMb} MB` : 'failed',
  malformed !== null && malformed.memoryMb < 250,
);
const schedules = tested('apps/web/src/state/messages.test.ts', { VITE_SCHEDULES: '10000' });
row(
  'Schedules of messages lost, doubled, delayed and out of order: projects that do not come together',
  'none in 10 000',
  schedules ? 'none' : 'failed',
  schedules !== null,
);
await savesMeanwhile();
await startWithMuch();
rmSync(folder, { recursive: true, force: true });

const path = join(root, 'docs/performance.md');
const text = readFileSync(path, 'utf8');
const part = [
  '<!-- safekeeping -->',
  '',
  '## Safekeeping',
  '',
  `Measured by \`npm run bench -- safekeeping\` on ${new Date().toISOString().slice(0, 10)}.`,
  '',
  '| What | Wanted | Found | |',
  '| --- | --- | --- | --- |',
  ...rows.map(({ what, wanted, found, ok }) => `| ${what} | ${wanted} | ${found} | ${ok ? 'met' : '**not met**'} |`),
  '',
  '<!-- /safekeeping -->',
].join('\n');
const former = /<!-- safekeeping -->[\s\S]*<!-- \/safekeeping -->/;
writeFileSync(path, former.test(text) ? text.replace(former, () => part) : `${text.trimEnd()}\n\n${part}\n`);
process.exit(0);
