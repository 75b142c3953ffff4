import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import sharp from 'sharp';
import { strFromU8, strToU8, unzipSync, zipSync, type Unzipped } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PhotoView, ProjectListItem, ProjectView, Refusal, TakenIn, VersionView } from '@nestplank/contract';
import { createApp } from './app.js';

const demo = readFileSync(new URL('../../../demo/thimble.json', import.meta.url), 'utf8');
let folder: string;
let app: NestExpressApplication;
let base: string;
/** A project with two photos and two versions, as it is taken out. */
let files: Unzipped;
let id: string;

const send = (method: string, path: string, body?: unknown): Promise<Response> =>
  fetch(`${base}/${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
const sent = async (all: Unzipped): Promise<Response> => {
  const body = new FormData();
  body.append('archive', new Blob([new Uint8Array(zipSync(all))]), 'a.zip');
  return fetch(`${base}/everything`, { method: 'POST', body });
};
const takenIn = async (all: Unzipped): Promise<TakenIn> => {
  const answer = await sent(all);
  expect(answer.status).toBe(201);
  return (await answer.json()) as TakenIn;
};
const list = async (): Promise<string[]> =>
  ((await (await send('GET', 'projects')).json()) as ProjectListItem[]).map((one) => one.id).sort();
interface Index {
  projects: { file: string; photos: Record<string, unknown>[]; versions: Record<string, unknown>[] }[];
}
/** The archive with its list changed. */
const listed = (change: (index: Index) => void): Unzipped => {
  const index = JSON.parse(strFromU8(files['index.json'] ?? new Uint8Array())) as Index;
  change(index);
  return { ...files, 'index.json': strToU8(JSON.stringify(index)) };
};
const rename = (to: string) => ({ id: randomUUID(), name: 'renameProject', payload: { name: to, model: '' } });

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-archive-'));
  app = await createApp({ database: join(folder, 'test.sqlite') });
  await app.listen(0, '127.0.0.1');
  base = `${await app.getUrl()}/api`;
  ({ id } = (await (await send('POST', 'projects/import', { text: demo })).json()) as { id: string });
  for (const width of [300, 400]) {
    const picture = await sharp({ create: { width, height: 200, channels: 3, background: '#884422' } })
      .png()
      .toBuffer();
    const body = new FormData();
    body.append('photo', new Blob([new Uint8Array(picture)]), 'p.png');
    const answer = await fetch(`${base}/projects/${id}/photos`, { method: 'POST', body });
    expect(((await answer.json()) as PhotoView).id).not.toBe('');
  }
  for (const name of ['One', 'Two']) await send('POST', `projects/${id}/versions`, { name });
  files = unzipSync(Buffer.from(await (await fetch(`${base}/everything/${id}`)).arrayBuffer()));
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('an archive that is taken in', () => {
  it('loses one photo or version that is missing, broken or odd, by name, and nothing else', async () => {
    const names = Object.keys(files);
    const photo = names.find((name) => name.endsWith('-small.webp')) ?? '';
    const version = names.find((name) => name.startsWith('versions/')) ?? '';
    const without = (lost: string): Unzipped =>
      Object.fromEntries(Object.entries(files).filter(([own]) => own !== lost));
    for (const [all, lost, versions] of [
      [without(photo), photo, 2],
      [{ ...files, [photo]: strToU8('<svg xmlns="http://www.w3.org/2000/svg"/>') }, photo, 2],
      [without(version), version, 1],
      [{ ...files, [version]: strToU8('{') }, version, 1],
    ] as const) {
      const { ids, refused } = await takenIn(all);
      expect(refused.map(({ file }) => file)).toEqual([lost]);
      expect(refused[0]?.why).not.toBe('');
      const kept = (await (await send('GET', `projects/${ids[0] ?? ''}/versions`)).json()) as VersionView[];
      expect(kept).toHaveLength(versions);
      const back = unzipSync(Buffer.from(await (await fetch(`${base}/everything/${ids[0] ?? ''}`)).arrayBuffer()));
      expect(Object.keys(back).filter((name) => name.endsWith('-small.webp'))).toHaveLength(lost === photo ? 1 : 2);
    }
  });

  it.each<[string, (index: Index) => void]>([
    ['a width of −5', ({ projects: [one] }) => void Object.assign(one?.photos[0] ?? {}, { width: -5 })],
    ['a photo of yesterday', ({ projects: [one] }) => void Object.assign(one?.photos[0] ?? {}, { at: 'yesterday' })],
    [
      'a revision nothing comes after',
      ({ projects: [one] }) => void Object.assign(one?.versions[0] ?? {}, { revision: 2 ** 53 - 1 }),
    ],
    ['a date that is none', ({ projects: [one] }) => void Object.assign(one?.versions[0] ?? {}, { at: '' })],
    ['a version that is a number', ({ projects: [one] }) => void one?.versions.splice(0, 1, 7 as never)],
  ])('refuses what its list says wrongly, %s, by name, and the project can be worked on', async (_what, change) => {
    const { ids, refused } = await takenIn(listed(change));
    expect(refused).toHaveLength(1);
    const [own = ''] = ids;
    const { revision } = (await (await send('GET', `projects/${own}`)).json()) as ProjectView;
    const answer = await send('POST', `projects/${own}/operations`, { revision, steps: [rename('Still mine')] });
    expect(answer.status).toBe(200);
    for (const { at } of (await (await send('GET', `projects/${own}/versions`)).json()) as VersionView[])
      expect(Number.isNaN(Date.parse(at))).toBe(false);
  });

  it('refuses a project of nothing but spaces before it is unpacked, and takes the other', async () => {
    const spaces = 'projects/spaces.json';
    const all = listed(({ projects }) => void projects.push({ file: spaces, photos: [], versions: [] }));
    const body = { ...all, [spaces]: new Uint8Array(60_000_000).fill(32) };
    const { ids, refused } = await takenIn(body);
    expect(ids).toHaveLength(1);
    expect(refused).toMatchObject([{ file: spaces, why: expect.stringContaining('60 MB') as unknown }]);
  });

  it('that is none changes nothing and says of which file', async () => {
    const before = await list();
    for (const [all, place] of [
      [{ 'readme.txt': strToU8('hello') }, 'index.json'],
      [{ ...files, 'index.json': strToU8('[') }, 'index.json'],
      [listed((index) => void Object.assign(index, { version: 2 })), 'index.json'],
    ] as const) {
      const answer = await sent(all);
      expect(answer.status).toBe(400);
      expect(((await answer.json()) as Refusal).place).toBe(place);
    }
    expect(await list()).toEqual(before);
  });

  it('keeps nobody from saving: steps are answered while it goes in', async () => {
    const many = listed((index) => {
      const [one] = index.projects;
      if (one) index.projects = Array.from({ length: 25 }, () => one);
    });
    let done = false;
    const going = takenIn(many).finally(() => (done = true));
    let saved = 0;
    let { revision } = (await (await send('GET', `projects/${id}`)).json()) as ProjectView;
    for (; !done; saved += 1) {
      const answer = await send('POST', `projects/${id}/operations`, { revision, steps: [rename(`Name ${saved}`)] });
      expect(answer.status).toBe(200);
      ({ revision } = (await answer.json()) as { revision: number });
    }
    const { ids, refused } = await going;
    expect([ids.length, refused]).toEqual([25, []]);
    // not one after all of it, but again and again
    expect(saved).toBeGreaterThan(10);
  });
});
