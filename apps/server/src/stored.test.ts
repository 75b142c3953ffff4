import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  OTHER_DATABASE,
  type LogView,
  type ProjectView,
  type Refusal,
  type StepsResult,
  type VersionView,
} from '@nestplank/contract';
import type { PriceBook } from '@nestplank/core/document';
import { say } from '@nestplank/core/words';
import { createApp } from './app.js';
import { databaseOptions } from './database/database.module.js';
import { OperationEntity, ProjectEntity } from './database/entities.js';

const text = (path: string): string => readFileSync(new URL(`../../../${path}`, import.meta.url), 'utf8');
const demo = text('demo/wren.json');
const fixture = (version: number): { project: Record<string, unknown> } =>
  JSON.parse(text(`packages/core/src/document/migrate/fixtures/v${version}.json`)) as {
    project: Record<string, unknown>;
  };

let folder: string;
let file: string;
let app: NestExpressApplication;
let base: string;

async function start(): Promise<void> {
  app = await createApp({ database: file });
  await app.listen(0, '127.0.0.1');
  base = (await app.getUrl()).replace('[::1]', '127.0.0.1');
}
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-stored-'));
  file = join(folder, 'test.sqlite');
  await start();
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

async function call<T>(method: string, path: string, body?: unknown): Promise<{ status: number; body: T }> {
  const response = await fetch(`${base}/api/${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  return { status: response.status, body: (await response.json()) as T };
}
const importDemo = async (): Promise<string> =>
  (await call<{ id: string }>('POST', 'projects/import', { text: demo })).body.id;
const step = (name: string, payload: unknown) => ({ id: randomUUID(), name, payload });
const move = () => step('changeUnit', { id: 'bench', changes: { x: 1400 } });
const post = <T = StepsResult>(id: string, revision: number, ...steps: unknown[]) =>
  call<T>('POST', `projects/${id}/operations`, { revision, steps });
const view = (id: string) => call<ProjectView>('GET', `projects/${id}`);

/** Changes what the database holds, as an earlier release would have left it, while nobody has it open. */
async function rewritten(id: string, change: (document: Record<string, unknown>) => unknown): Promise<void> {
  await app.close();
  const source = await new DataSource(databaseOptions(file)).initialize();
  const rows = source.getRepository(ProjectEntity);
  const row = await rows.findOneByOrFail({ id });
  const document = change(JSON.parse(row.document) as Record<string, unknown>);
  await rows.update({ id }, { document: JSON.stringify(document) });
  await source.destroy();
  await start();
}

describe('a step of another database', () => {
  it('is refused by name, and nothing of what came with it is done; the name is the same after a restart', async () => {
    const id = await importDemo();
    const { database, revision } = (await view(id)).body;
    expect(database).toMatch(/^[0-9a-f]{32}$/);
    const [own, other, former] = [{ ...move(), database }, { ...move(), database: 'f'.repeat(32) }, move()];
    const refused = await post<Refusal>(id, revision, own, other);
    expect([refused.status, refused.body.step, refused.body.message]).toEqual([422, other.id, OTHER_DATABASE]);
    expect((await view(id)).body.revision).toBe(revision);
    // a page of a release that knew of none is taken as before
    expect((await post(id, revision, own, former)).status).toBe(200);
    // a restart, and a project brought in again, change nothing about it
    await app.close();
    await start();
    expect((await view(id)).body.database).toBe(database);
    expect((await view(await importDemo())).body.database).toBe(database);
    expect((await post<Refusal>(id, revision + 2, { ...move(), database: 7 })).status).toBe(400);
  });
});

describe('a document that an earlier release stored', () => {
  it.each([1, 2, 3, 4])(
    'of version %i is brought to the present one for good, and that is told once and kept in the log',
    async (version) => {
      const id = await importDemo();
      await post(id, 0, move());
      await rewritten(id, () => ({ ...fixture(version).project, id }));
      const first = await view(id);
      expect(first.status).toBe(200);
      expect(first.body.project.version).toBe(5);
      expect(first.body.history).toEqual({ undo: [], redo: [] });
      const told = first.body.news.map((news) => say(news));
      expect(told[0]).toContain(`written by version ${version} and is now of version 5`);
      expect(told[0]).toContain('the 1 step before can no longer be undone');
      const again = await view(id);
      expect([again.body.news, again.body.revision]).toEqual([[], first.body.revision]);
      expect(again.body.project).toEqual(first.body.project);
      const log = await call<LogView[]>('GET', `projects/${id}/log`);
      expect(log.body.map((entry) => say(entry.said)).sort()).toEqual([...told].sort());
      // what it was is a version that can be returned to
      const { body: versions } = await call<VersionView[]>('GET', `projects/${id}/versions`);
      const before = versions.find((kept) => kept.name === `As version ${version} wrote it`);
      const kept = await call<{ version: number }>('GET', `projects/${id}/versions/${before?.id ?? ''}`);
      expect(kept.body.version).toBe(5);
      expect(
        (
          await post(
            id,
            first.body.revision,
            step('putPerson', { person: { id: 'guest', name: 'Guest', stature: 1700 } }),
          )
        ).status,
      ).toBe(200);
    },
  );
  it('and left unsound is put right where that is plain: readings, double ids, people who are gone', async () => {
    const id = await importDemo();
    await rewritten(id, (document) => {
      const survey = document['survey'] as { readings: Record<string, unknown[]> };
      const [reading] = survey.readings['floor/length'] ?? [];
      const people = document['people'] as { id: string }[];
      return {
        ...document,
        people: [...people.slice(0, 1), ...people.slice(0, 1)],
        survey: {
          ...survey,
          readings: { ...survey.readings, 'floor/length': Array.from({ length: 55 }, () => reading) },
        },
      };
    });
    const { body } = await view(id);
    const told = body.news.map((news) => say(news)).join(' ');
    expect(told).toContain('the oldest 5 readings were let go');
    expect(told).toContain('people: ilva was there twice; the second is ilva-2 now');
    expect(told).toContain('taken off Bed');
    expect(body.project.survey.readings['floor/length']).toHaveLength(50);
    expect(body.project.people.map((person) => person.id)).toEqual(['ilva', 'ilva-2']);
  });
  it('and cannot be opened is never lost: it says what is wrong, comes out as it is, and returns to a version', async () => {
    const id = await importDemo();
    await call('POST', `projects/${id}/versions`, { name: 'Sound' });
    await rewritten(id, (document) => ({ ...document, survey: 'gone' }));
    const { status, body } = await call<Refusal>('GET', `projects/${id}`);
    expect([status, body.code, body.faults?.[0]?.place]).toEqual([422, 'unsound', 'project.survey']);
    expect(body.message).toContain('Nothing of it is lost');
    const stored = await call<{ survey: string; units?: unknown }>('GET', `projects/${id}/stored`);
    expect(stored.body.survey).toBe('gone');
    expect((await post<Refusal>(id, 0, move())).body.code).toBe('unsound');
    const { body: versions } = await call<VersionView[]>('GET', `projects/${id}/versions`);
    const sound = await call<object>('GET', `projects/${id}/versions/${versions[0]?.id ?? ''}`);
    const restored = await post(id, body.revision ?? 0, step('restore', { project: sound.body }));
    expect(restored.status).toBe(200);
    expect((await view(id)).body.project.survey.stations.length).toBeGreaterThan(3);
  });
});

describe('what is stored of a step', () => {
  const sizes = async (id: string): Promise<{ name: string; bytes: number }[]> => {
    const source = app.get(DataSource);
    const rows = await source.getRepository(OperationEntity).find({ where: { projectId: id }, order: { seq: 'ASC' } });
    return rows.map((row) => ({
      name: row.name,
      bytes: row.payload.length + row.patches.length + row.inverse.length,
    }));
  };
  it('is what it changed: a cut that is ticked takes less than 2 kB, a plan kept again hardly more', async () => {
    const id = await importDemo();
    const { project } = (await view(id)).body;
    const plan = project.keptPlans.find((kept) => kept.sheets.some((sheet) => sheet.done.length > 0));
    const sheet = plan?.sheets.find((own) => own.done.length > 0);
    const tick = step('tickCut', {
      material: plan?.material,
      sheet: sheet?.id,
      step: sheet?.done[0],
      done: false,
      seconds: null,
    });
    const again = step('keepPlan', plan);
    expect((await post(id, 0, tick)).status).toBe(200);
    expect((await post(id, 1, again)).status).toBe(200);
    const [ticked, kept] = await sizes(id);
    expect(ticked?.bytes).toBeLessThan(2000);
    // the sheet whose cut is taken back again, and no other
    expect(kept?.bytes).toBeLessThan(2.5 * JSON.stringify(sheet).length + 2000);
  });
});

describe('the price book and what is made of it', () => {
  it('keeps a material that a project is made of, and lets go of one that none is', async () => {
    const id = await importDemo();
    const { priceBookId } = (await view(id)).body;
    const remove = (item: string) => call<Refusal & PriceBook>('DELETE', `price-books/${priceBookId}/items/${item}`);
    const used = await remove('birch-15');
    expect([used.status, used.body.place]).toEqual([409, 'birch-15']);
    expect(used.body.message).toContain('is made of it');
    const { status, body } = await remove('screws-60');
    expect(status).toBe(200);
    expect(body.items.some((item) => item.id === 'screws-60')).toBe(false);
  });
  it('is looked into by every step: a material that is not in it is refused at its place', async () => {
    const id = await importDemo();
    const bad = step('changeUnit', { id: 'kitchen', changes: { carcass: 'unobtainium' } });
    const refused = await post<Refusal>(id, 0, bad);
    expect([refused.status, refused.body.code, refused.body.place]).toEqual([
      422,
      'operation',
      'project.layout.units[1].materials.carcass',
    ]);
    const { priceBookId, priceBook } = (await view(id)).body;
    const [item] = priceBook.items;
    await call('PUT', `price-books/${priceBookId}/items/unobtainium`, { ...item, id: 'unobtainium' });
    expect((await post(id, 0, bad)).status).toBe(200);
  });
  it('refuses a name of blanks and a day that is none', async () => {
    const id = await importDemo();
    const { priceBookId, priceBook } = (await view(id)).body;
    const [item] = priceBook.items;
    for (const odd of [{ name: '   ' }, { priceDate: '2026-99-99' }])
      expect(
        (await call('PUT', `price-books/${priceBookId}/items/${item?.id ?? ''}`, { ...item, ...odd })).status,
      ).toBe(400);
  });
});
