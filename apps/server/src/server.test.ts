import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ProjectView, Refusal, StepsResult, VersionView } from '@nestplank/contract';
import { derive } from '@nestplank/core/derive';
import { templateParts } from '@nestplank/core/lining';
import { TEMPLATE_PAGES, templatePages } from '@nestplank/core/parts';
import type { PriceBook, Project } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { createApp } from './app.js';

const demo = readFileSync(new URL('../../../demo/wren.json', import.meta.url), 'utf8');
let folder: string;
let app: NestExpressApplication;
let base: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-server-'));
  app = await createApp({ database: join(folder, 'test.sqlite') });
  await app.listen(0, '127.0.0.1');
  base = (await app.getUrl()).replace('[::1]', '127.0.0.1');
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

async function call<T>(method: string, path: string, body?: unknown): Promise<{ status: number; body: T }> {
  const response = await fetch(`${base}/api/${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  });
  const text = await response.text();
  return { status: response.status, body: (text === '' ? null : JSON.parse(text)) as T };
}
const importDemo = async (): Promise<string> =>
  (await call<{ id: string }>('POST', 'projects/import', { text: demo })).body.id;
const view = async (id: string): Promise<ProjectView> => (await call<ProjectView>('GET', `projects/${id}`)).body;
const move = (x: number, id: string = randomUUID()) => ({
  id,
  name: 'changeUnit',
  payload: { id: 'bench', changes: { x } },
});
const post = <T = StepsResult>(id: string, revision: number, ...steps: unknown[]) =>
  call<T>('POST', `projects/${id}/operations`, { revision, steps });
const benchX = (project: Project): number | undefined =>
  project.layout.units.find((unit) => unit.id === 'bench')?.body.x;

describe('projects', () => {
  it('are started empty, listed, opened and removed', async () => {
    const { status, body } = await call<{ id: string }>('POST', 'projects', {
      name: 'Bulrush',
      kind: 'bus',
      model: 'Norvik',
      units: 'in',
      startDate: '2026-11-30',
    });
    expect(status).toBe(201);
    expect((await view(body.id)).project).toMatchObject({
      name: 'Bulrush',
      vehicle: { kind: 'bus', model: 'Norvik' },
      settings: { units: 'in' },
    });
    expect((await call<{ id: string }[]>('GET', 'projects')).body.map((p) => p.id)).toContain(body.id);
    expect((await call('DELETE', `projects/${body.id}`)).status).toBe(204);
    expect((await call<Refusal>('GET', `projects/${body.id}`)).body).toMatchObject({
      statusCode: 404,
      code: 'not-found',
    });
  });
  it('are refused with the field that is wrong, unknown fields included', async () => {
    const wrong = await call<Refusal>('POST', 'projects', {
      name: '',
      kind: 'boat',
      model: 'x',
      units: 'mm',
      startDate: '2026-11-30',
      colour: 'green',
    });
    expect(wrong.status).toBe(400);
    for (const field of ['name', 'kind', 'colour']) expect(wrong.body.message).toContain(field);
  });
  it('come back from a file as they were, each with an id of its own', async () => {
    const [first, second] = [await importDemo(), await importDemo()];
    expect(second).not.toBe(first);
    const original = (JSON.parse(demo) as { project: Project }).project;
    expect({ ...(await view(second)).project, id: original.id }).toEqual(original);
  });
  it('refuse broken files by place', async () => {
    expect((await call<Refusal>('POST', 'projects/import', { text: demo.slice(0, 2000) })).body).toMatchObject({
      statusCode: 400,
      code: 'invalid',
      message: expect.stringMatching(/^Line \d+, column \d+/) as string,
    });
    const spoilt = demo.replace('"family": "bed-platform"', '"family": "hammock"');
    expect((await call<Refusal>('POST', 'projects/import', { text: spoilt })).body.message).toBe(
      'project.layout.units[0].family: there is no hammock to refer to.',
    );
    expect((await call<Refusal>('POST', 'projects/import', '{ not json')).body.message).toContain('JSON');
    const huge = await call<Refusal>('POST', 'projects/import', { text: 'x'.repeat(21 * 1024 * 1024) });
    expect(huge).toMatchObject({ status: 413, body: { code: 'too-large' } });
  });
});

describe('operations', () => {
  it('are applied in order with a revision each', async () => {
    const id = await importDemo();
    const { body } = await post(id, 0, move(1400), move(1300));
    expect(body).toMatchObject({ revision: 2, history: { undo: ['changeUnit', 'changeUnit'], redo: [] } });
    const now = await view(id);
    expect([now.revision, benchX(now.project)]).toEqual([2, 1300]);
  });
  it('are all done or none', async () => {
    const id = await importDemo();
    const bad = await post<Refusal>(id, 0, move(1400), {
      id: randomUUID(),
      name: 'removeUnit',
      payload: { id: 'sofa' },
    });
    expect(bad).toMatchObject({
      status: 422,
      body: { code: 'operation', message: 'There is no sofa any more; it may have been removed elsewhere.' },
    });
    expect((await view(id)).revision).toBe(0);
    expect(benchX((await view(id)).project)).toBe(1500);
  });
  it('refuse a revision that was overtaken, and say which it is now', async () => {
    const id = await importDemo();
    await post(id, 0, move(1400));
    expect(await post<Refusal>(id, 0, move(1300))).toMatchObject({
      status: 409,
      body: { code: 'conflict', revision: 1 },
    });
    expect(benchX((await view(id)).project)).toBe(1400);
  });
  it('sent twice are done once', async () => {
    const id = await importDemo();
    const step = move(1400);
    await post(id, 0, step);
    expect(await post(id, 0, step)).toMatchObject({ status: 200, body: { revision: 1 } });
    // the first was heard, the second of the batch was not
    const next = move(1350);
    expect(await post(id, 0, step, next)).toMatchObject({ status: 200, body: { revision: 2 } });
    expect(benchX((await view(id)).project)).toBe(1350);
  });
  it('refuse what is unknown or out of range, naming the place', async () => {
    const id = await importDemo();
    expect((await post<Refusal>(id, 0, { id: randomUUID(), name: 'flyAway', payload: {} })).status).toBe(400);
    expect(
      (
        await post<Refusal>(id, 0, {
          id: randomUUID(),
          name: 'changeUnit',
          payload: { id: 'bench', changes: { colour: 'red' } },
        })
      ).body.message,
    ).toContain('colour');
    const reading = (value: number) => ({
      id: randomUUID(),
      name: 'takeReading',
      payload: { address: 'floor/length', reading: { value, method: 'tape', at: '2026-10-01T08:00:00.000Z' } },
    });
    expect((await post<Refusal>(id, 0, reading(20))).body).toMatchObject({ code: 'operation', place: 'floor/length' });
    expect((await post<Refusal>(id, 0)).status).toBe(400);
  });
  it('can be undone and redone, step by step, and a new step drops what was undone', async () => {
    const id = await importDemo();
    await post(id, 0, move(1400), move(1300));
    const turn = (name: string) => ({ id: randomUUID(), name });
    const undone = await post(id, 2, turn('undo'));
    expect(undone.body.history).toEqual({ undo: ['changeUnit'], redo: ['changeUnit'] });
    expect(benchX((await view(id)).project)).toBe(1400);
    await post(id, 3, turn('redo'));
    expect(benchX((await view(id)).project)).toBe(1300);
    await post(id, 4, turn('undo'), turn('undo'));
    expect(benchX((await view(id)).project)).toBe(1500);
    const after = await post(id, 6, move(1000));
    expect(after.body.history).toEqual({ undo: ['changeUnit'], redo: [] });
    expect(await post<Refusal>(id, 7, turn('redo'))).toMatchObject({
      status: 422,
      body: { message: 'There is nothing to redo.' },
    });
  });
  it('from twenty clients at once on their own projects are all kept', async () => {
    const ids = await Promise.all(Array.from({ length: 20 }, importDemo));
    await Promise.all(
      ids.map(async (id) => {
        for (let i = 0; i < 5; i += 1) expect((await post(id, i, move(1000 + i))).status).toBe(200);
      }),
    );
    for (const id of ids) expect(await view(id)).toMatchObject({ revision: 5 });
  });
});

describe('versions, prices and files', () => {
  it('keeps versions by name and by itself', async () => {
    const id = await importDemo();
    await call('POST', `projects/${id}/versions`, { name: 'First' });
    for (let i = 0; i < 51; i += 1) await post(id, i, move(1000 + i));
    const { body: versions } = await call<VersionView[]>('GET', `projects/${id}/versions`);
    expect(versions.map((v) => [v.name, v.automatic])).toEqual([
      ['After 50 steps', true],
      ['First', false],
    ]);
    const kept = await call<Project>('GET', `projects/${id}/versions/${versions[1]?.id ?? ''}`);
    expect(benchX(kept.body)).toBe(1500);
  });
  it('draws a build small as it is now, and says null of one that is not measured or not there', async () => {
    interface Small {
      small: { bands: unknown[]; units: unknown[]; state: { readings: number; units: number } } | null;
    }
    const id = await importDemo();
    const first = (await call<Small>('GET', `compare/small/${id}`)).body.small;
    expect(first?.bands).toHaveLength(3);
    expect(first?.state.units).toBe(first?.units.length);
    const { revision } = await view(id);
    await call('POST', `projects/${id}/operations`, {
      revision,
      steps: [{ id: randomUUID(), name: 'removeUnit', payload: { id: 'bench' } }],
    });
    // of the revision it is now, not as it was remembered
    expect((await call<Small>('GET', `compare/small/${id}`)).body.small?.state.units).toBe(
      (first?.state.units ?? 0) - 1,
    );
    const empty = await call<{ id: string }>('POST', 'projects', {
      name: 'Empty',
      model: '',
      kind: 'van',
      units: 'mm',
      startDate: '2026-11-27',
    });
    expect((await call<Small>('GET', `compare/small/${empty.body.id}`)).body.small).toBeNull();
    expect((await call<Small>('GET', 'compare/small/nobody')).body.small).toBeNull();
  });
  it('takes in a list of materials, changed ones in their places and new ones behind, or none of it', async () => {
    const { priceBookId, priceBook } = await view(await importDemo());
    const take = (items: unknown) => call<PriceBook>('PUT', `price-books/${priceBookId}/items`, { items });
    const [first, second] = priceBook.items;
    if (!first || !second) throw new Error('no prices');
    const taken = await take([
      { ...second, name: 'Renamed', source: 'the yard’s list', waste: 0.15 },
      { ...first, id: 'new-a', name: 'New a' },
      { ...first, id: 'new-b', name: 'New b' },
    ]);
    expect(taken.status).toBe(200);
    expect(taken.body.items.map(({ id }) => id)).toEqual([...priceBook.items.map(({ id }) => id), 'new-a', 'new-b']);
    expect(taken.body.items[1]).toMatchObject({ name: 'Renamed', source: 'the yard’s list', waste: 0.15 });
    const before = (await call<PriceBook>('GET', `price-books/${priceBookId}`)).body;
    expect(before).toEqual(taken.body);
    expect(
      (
        await take([
          { ...first, name: 'Changed' },
          { ...second, thickness: -1 },
        ])
      ).status,
    ).toBe(400);
    expect((await call<PriceBook>('GET', `price-books/${priceBookId}`)).body).toEqual(before);
  });
  it('moves the prices of a group by a factor, dates them, and refuses what is no factor', async () => {
    const { priceBookId, priceBook } = await view(await importDemo());
    const level = (body: unknown) => call<PriceBook>('PUT', `price-books/${priceBookId}/level`, body);
    const moved = await level({ group: 'timber', factor: 1.1, date: '2026-11-27' });
    expect(moved.status).toBe(200);
    for (const [i, item] of moved.body.items.entries()) {
      const was = priceBook.items[i];
      const timber = item.group === 'timber';
      expect(item.priceDate).toBe(timber ? '2026-11-27' : was?.priceDate);
      expect(item.pack?.price ?? 0).toBe(timber ? Math.round((was?.pack?.price ?? 0) * 1.1) : (was?.pack?.price ?? 0));
    }
    expect((await call<PriceBook>('GET', `price-books/${priceBookId}`)).body).toEqual(moved.body);
    for (const bad of [
      { group: 'timber', factor: 0, date: '2026-11-27' },
      { group: 'boats', factor: 1.1, date: '2026-11-27' },
      { group: null, factor: 1.1, date: 'today' },
    ])
      expect((await level(bad)).status).toBe(400);
    expect(
      (await level({ group: null, factor: 1, date: '2026-11-28' })).body.items.every(
        (item) => item.priceDate === '2026-11-28',
      ),
    ).toBe(true);
  });
  it('changes a price, refuses nonsense, and leaves other projects alone', async () => {
    const [one, two] = [await view(await importDemo()), await view(await importDemo())];
    const item = one.priceBook.items[0];
    if (!item) throw new Error('empty price book');
    const put = <T>(body: unknown) => call<T>('PUT', `price-books/${one.priceBookId}/items/${item.id}`, body);
    const changed = await put<PriceBook>({ ...item, stocks: item.stocks.map((stock) => ({ ...stock, price: 1 })) });
    expect(changed.body.items[0]?.stocks.map((stock) => stock.price)).toEqual([1, 1]);
    expect((await call<PriceBook>('GET', `price-books/${two.priceBookId}`)).body.items[0]).toEqual(item);
    expect((await put<Refusal>({ ...item, density: -3 })).body.message).toContain('density');
    expect((await put<Refusal>({ ...item, id: 'other' })).body.place).toBe('id');
    expect(
      (
        await call<PriceBook>('PUT', `price-books/${one.priceBookId}/items/new-one`, { ...item, id: 'new-one' })
      ).body.items.at(-1)?.id,
    ).toBe('new-one');
    expect(
      (await call<PriceBook>('DELETE', `price-books/${one.priceBookId}/items/new-one`)).body.items.some(
        (i) => i.id === 'new-one',
      ),
    ).toBe(false);
  });
  it('writes open files', async () => {
    const id = await importDemo();
    const file = (format: string) => fetch(`${base}/api/projects/${id}/files/${format}`);
    const start = async (format: string) => Buffer.from(await (await file(format)).arrayBuffer());
    expect((await start('pdf')).subarray(0, 5).toString()).toBe('%PDF-');
    for (const format of ['dxf', 'svg']) expect((await start(format)).subarray(0, 2).toString()).toBe('PK');
    const csv = (await start('csv')).toString();
    expect(csv.split('\n')[0]).toContain('parts,where,material,thickness_mm,length_mm');
    const wren = readProjectFile(demo);
    const listed = csv
      .trim()
      .split('\n')
      .slice(1)
      .flatMap((row) => (row.split(',')[0] ?? '').split(' '));
    expect(listed.sort()).toEqual(
      derive(wren.project, wren.priceBook)
        .parts.map(({ id }) => id)
        .sort(),
    );
    // many pages are made only for one who knows how many; a board made larger than any paper covers is refused
    const bus = readFileSync(new URL('../../../demo/bulrush.json', import.meta.url), 'utf8');
    const { id: busId } = (await call<{ id: string }>('POST', 'projects/import', { text: bus })).body;
    const taken = readProjectFile(bus);
    const large = templateParts(derive(taken.project, taken.priceBook)).find(
      (part) => templatePages(part, 'letter') > TEMPLATE_PAGES.asked,
    );
    const address = `${base}/api/projects/${busId}/files/template?part=${encodeURIComponent(large?.id ?? '')}&paper=letter`;
    expect(await (await fetch(address)).json()).toMatchObject({ statusCode: 400, place: 'pages' });
    const meant = await fetch(`${address}&pages=${large ? templatePages(large, 'letter') : 0}`);
    expect(
      Buffer.from(await meant.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    expect((await file('doc')).status).toBe(400);
    expect((await start('labels')).subarray(0, 5).toString()).toBe('%PDF-');
    expect((await start('template?part=kitchen.end-front&paper=a3')).subarray(0, 5).toString()).toBe('%PDF-');
    // what a unit covers of the floor is printed as large as it is
    expect((await start('template?part=kitchen.floor-card&paper=a4')).subarray(0, 5).toString()).toBe('%PDF-');
    expect(await (await file('template?part=no-such')).json()).toMatchObject({
      place: 'part',
      message: 'There is no part “no-such”.',
    });
    expect(await (await file('template?part=kitchen.end-front&paper=a9')).json()).toMatchObject({ place: 'paper' });
  });
  it('describes itself and says that it is well', async () => {
    const { body } = await call<{ paths: Record<string, unknown> }>('GET', 'openapi.json');
    expect(Object.keys(body.paths)).toContain('/api/projects/{id}/operations');
    expect((await call<{ status: string; journal: string }>('GET', 'health')).body).toMatchObject({
      status: 'ok',
      journal: 'wal',
    });
  });
});
