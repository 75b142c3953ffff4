import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { strFromU8, strToU8, unzipSync, zipSync, type Unzipped } from 'fflate';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { InstrumentMessage, PhotoView, ProjectView, TakenIn, VersionView } from '@nestplank/contract';
import type { VehicleMeasures } from '@nestplank/core/derive';
import { createApp } from './app.js';
import { MOST_PHOTOS } from './photos/photos.service.js';
import { ProjectsService } from './projects/projects.service.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));
let folder: string;
let app: NestExpressApplication;
let base: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'nest-plank-devices-'));
  app = await createApp({ database: join(folder, 'test.sqlite'), demo: join(root, 'demo') });
  await app.listen(0, '127.0.0.1');
  base = `${await app.getUrl()}/api`;
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

const send = (method: string, path: string, body?: unknown): Promise<Response> =>
  fetch(`${base}/${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
const practice = async (name: string, seed: number): Promise<string> => {
  const response = await send('POST', 'projects', {
    name,
    kind: 'van',
    model: 'practice',
    units: 'mm',
    startDate: '2026-10-01',
    practiceSeed: seed,
  });
  expect(response.status).toBe(201);
  return ((await response.json()) as { id: string }).id;
};

/** Reads messages off the stream until one is found. */
async function until(
  path: string,
  wanted: (message: InstrumentMessage) => boolean,
  then: () => Promise<unknown>,
): Promise<InstrumentMessage> {
  const end = new AbortController();
  const response = await fetch(`${base}/${path}`, { signal: end.signal });
  const reader = response.body?.getReader();
  if (!reader) throw new Error('no stream');
  const decoder = new TextDecoder();
  let text = '';
  let asked = false;
  try {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) throw new Error('the stream ended');
      text += decoder.decode(value, { stream: true });
      const messages = text
        .split('\n')
        .filter((line) => line.startsWith('data: '))
        .map((line) => JSON.parse(line.slice(6)) as InstrumentMessage);
      const found = messages.find(wanted);
      if (found) return found;
      if (!asked) {
        asked = true;
        await then();
      }
    }
  } finally {
    end.abort();
  }
}

describe('simulated instruments', () => {
  it('read the hidden shape of a practice vehicle and tell it on the stream', async () => {
    const id = await practice('Laser', 3);
    expect((await send('POST', `projects/${id}/devices/laser/link`, { faults: 0 })).status).toBe(200);
    const message = await until(
      `projects/${id}/devices/laser/stream`,
      (m) => m.type === 'reading',
      () => send('POST', `projects/${id}/devices/laser/click`, { address: 'floor/length' }),
    );
    expect(message).toMatchObject({ type: 'reading', address: 'floor/length', unit: 'mm' });
    expect((message as { value: number }).value).toBeGreaterThan(2800);
  });
  it('run out of battery in the middle, say so, and are linked again', async () => {
    const id = await practice('Weak', 4);
    const linked = await send('POST', `projects/${id}/devices/laser/link`, { faults: 0, battery: 1 });
    expect(await linked.json()).toMatchObject({ state: 'linked', low: true });
    const click = () => send('POST', `projects/${id}/devices/laser/click`, { address: 'floor/length' });
    const off = await until(
      `projects/${id}/devices/laser/stream`,
      (m) => m.type === 'missed',
      async () => {
        await click();
        await click();
        await click();
      },
    );
    expect(off).toMatchObject({ type: 'missed', why: 'off' });
    const again = await send('POST', `projects/${id}/devices/laser/link`, {});
    expect(await again.json()).toMatchObject({ state: 'linked', battery: 100 });
  });
  it('refuse a real vehicle, what they cannot read, and a click without a link', async () => {
    const real = await send('POST', 'projects/wren/devices/laser/link', {});
    expect(real.status).toBe(422);
    expect(((await real.json()) as { message: string }).message).toContain('practice vehicles only');
    const id = await practice('Angle', 5);
    expect((await send('POST', `projects/${id}/devices/laser/click`, { address: 'floor/length' })).status).toBe(404);
    await send('POST', `projects/${id}/devices/angle-finder/link`, { faults: 0 });
    expect((await send('POST', `projects/${id}/devices/angle-finder/click`, { address: 'floor/length' })).status).toBe(
      400,
    );
    expect((await send('POST', `projects/${id}/devices/angle-finder/click`, { address: 'level/along' })).status).toBe(
      202,
    );
    expect((await send('POST', `projects/${id}/devices/lute/link`, {})).status).toBe(400);
    expect((await send('POST', `projects/${id}/devices/laser/link`, { faults: -1 })).status).toBe(400);
    expect((await send('DELETE', `projects/${id}/devices/angle-finder/link`)).status).toBe(204);
  });
});

describe('photos', () => {
  const picture = (width: number): Promise<Buffer> =>
    sharp({ create: { width, height: 1000, channels: 3, background: '#884422' } })
      .jpeg()
      .toBuffer();
  const upload = async (id: string, bytes: Uint8Array): Promise<Response> => {
    const body = new FormData();
    body.append('photo', new Blob([new Uint8Array(bytes)]), 'rust.jpg');
    return fetch(`${base}/projects/${id}/photos`, { method: 'POST', body });
  };
  it('are kept smaller, whole and as a small one, and go with their project', async () => {
    const id = await practice('Photos', 6);
    const kept = await upload(id, await picture(4000));
    expect(kept.status).toBe(201);
    const photo = (await kept.json()) as PhotoView;
    expect(photo).toMatchObject({ width: 1600, height: 400 });
    const small = await fetch(`${base}/photos/${photo.id}?size=small`);
    expect(small.headers.get('content-type')).toBe('image/webp');
    expect((await sharp(Buffer.from(await small.arrayBuffer())).metadata()).width).toBe(320);
    expect((await send('DELETE', `projects/${id}`)).status).toBe(204);
    expect((await fetch(`${base}/photos/${photo.id}`)).status).toBe(200);
    const bin = app.get(ProjectsService);
    const days = (n: number): Date => new Date(Date.now() + n * 86_400_000);
    // a start under a clock that is ahead throws nothing away, nor what comes after it
    expect(await bin.emptyBin(days(400))).toBe(0);
    expect(await bin.emptyBin(days(1))).toBe(0);
    expect(await bin.emptyBin(days(31))).toBe(0);
    expect((await fetch(`${base}/photos/${photo.id}`)).status).toBe(200);
    expect(await bin.emptyBin(days(32))).toBe(1);
    expect((await fetch(`${base}/photos/${photo.id}`)).status).toBe(404);
  });
  it('go with everything that is taken out, and come back with it', async () => {
    const id = await practice('Photo journey', 8);
    const photo = (await (await upload(id, await picture(900))).json()) as PhotoView;
    const found = {
      id: 'n1',
      name: 'Rust',
      kind: 'rust',
      surface: 'left',
      x: 10,
      along: 20,
      size: 5,
      decision: 'redo',
      status: 'open',
      method: '',
      cost: 0,
      photo: photo.id,
    };
    await send('POST', `projects/${id}/operations`, {
      revision: 0,
      steps: [
        { id: randomUUID(), name: 'putFound', payload: { found } },
        {
          id: randomUUID(),
          name: 'takeReading',
          payload: {
            address: 'floor/length',
            reading: { value: 3000, method: 'tape', at: '2026-11-27T08:00:00.000Z', photo: photo.id },
          },
        },
      ],
    });
    const archive = Buffer.from(await (await fetch(`${base}/everything`)).arrayBuffer());
    const sendBack = async (bytes: Uint8Array): Promise<Response> => {
      const body = new FormData();
      body.append('archive', new Blob([new Uint8Array(bytes)]), 'a.zip');
      return fetch(`${base}/everything`, { method: 'POST', body });
    };
    const before = ((await (await fetch(`${base}/projects`)).json()) as unknown[]).length;
    const answer = await sendBack(archive);
    expect(answer.status).toBe(201);
    const { ids } = (await answer.json()) as { ids: string[] };
    expect(ids).toHaveLength(before);
    const views = await Promise.all(
      ids.map(async (own) => (await (await fetch(`${base}/projects/${own}`)).json()) as ProjectView),
    );
    const back = views.find((view) => view.project.name === 'Photo journey');
    const kept = back?.project.survey.found[0]?.photo ?? '';
    expect([kept === photo.id, back?.project.id === id]).toEqual([false, false]);
    // a reading speaks of it by its new id too
    expect(back?.project.survey.readings['floor/length']?.at(-1)?.photo).toBe(kept);
    const bytes = async (which: string): Promise<Buffer> =>
      Buffer.from(await (await fetch(`${base}/photos/${which}`)).arrayBuffer());
    expect((await bytes(kept)).equals(await bytes(photo.id))).toBe(true);
    // what is no archive, or one of something else, changes nothing
    expect((await sendBack(new TextEncoder().encode('no zip'))).status).toBe(400);
    expect((await sendBack(archive.subarray(0, archive.length / 2))).status).toBe(400);
    expect((await fetch(`${base}/everything`, { method: 'POST', body: new FormData() })).status).toBe(400);
    expect(((await (await fetch(`${base}/projects`)).json()) as unknown[]).length).toBe(2 * before);
    // one alone takes its photos along, and its versions
    await send('POST', `projects/${id}/versions`, { name: 'Before the rust was seen to' });
    const one = await fetch(`${base}/everything/${id}`);
    expect(one.headers.get('content-disposition')).toContain(`${id}.zip`);
    const alone = (await (await sendBack(Buffer.from(await one.arrayBuffer()))).json()) as TakenIn;
    expect([alone.ids.length, alone.refused]).toEqual([1, []]);
    const copy = (await (await fetch(`${base}/projects/${alone.ids[0]}`)).json()) as ProjectView;
    expect((await bytes(copy.project.survey.found[0]?.photo ?? '')).equals(await bytes(photo.id))).toBe(true);
    const versions = (await (await fetch(`${base}/projects/${alone.ids[0]}/versions`)).json()) as VersionView[];
    expect(versions.map((version) => [version.name, version.automatic])).toEqual([
      ['Before the rust was seen to', false],
    ]);
    const keptVersion = (await (
      await fetch(`${base}/projects/${alone.ids[0]}/versions/${versions[0]?.id ?? ''}`)
    ).json()) as ProjectView['project'];
    expect(keptVersion.survey.found[0]?.photo).toBe(copy.project.survey.found[0]?.photo);
    expect((await fetch(`${base}/everything/none`)).status).toBe(404);
  });
  it('what of an archive cannot be read is named, the rest is taken in', async () => {
    const whole = unzipSync(Buffer.from(await (await fetch(`${base}/everything`)).arrayBuffer()));
    const names = Object.keys(whole).filter((name) => name.startsWith('projects/'));
    expect(names.length).toBeGreaterThan(2);
    const sent = async (files: Unzipped): Promise<Response> => {
      const body = new FormData();
      body.append('archive', new Blob([new Uint8Array(zipSync(files))]), 'a.zip');
      return fetch(`${base}/everything`, { method: 'POST', body });
    };
    const [first = ''] = names;
    const hurt = { ...whole, [first]: strToU8('{ "format": "nest-plank-file", ') };
    const { ids, refused } = (await (await sent(hurt)).json()) as TakenIn;
    expect([ids.length, refused.map((one) => one.file)]).toEqual([names.length - 1, [first]]);
    expect(refused[0]?.why).not.toBe('');
    const all = { ...whole, ...Object.fromEntries(names.map((name) => [name, strToU8('[]')])) };
    expect((await sent(all)).status).toBe(400);
    // what cannot be opened is taken out all the same, as it is stored
    const id = await practice('Unsound', 9);
    await app
      .get(DataSource)
      .query(`UPDATE projects SET document = '{"version":5,"name":"Unsound"}' WHERE id = '${id}'`);
    const out = unzipSync(Buffer.from(await (await fetch(`${base}/everything`)).arrayBuffer()));
    expect(strFromU8(out[`projects/${id}.json`] ?? new Uint8Array())).toContain('"name": "Unsound"');
    const again = (await (await sent(out)).json()) as TakenIn;
    expect(again.refused.map((one) => one.file)).toEqual([`projects/${id}.json`]);
    expect((await send('DELETE', `projects/${id}`)).status).toBe(204);
    const lost = Object.fromEntries(Object.entries(whole).filter(([name]) => name !== first));
    expect(((await (await sent(lost)).json()) as TakenIn).refused.map((one) => one.file)).toEqual([first]);
  });
  it('more of one project than are kept are refused, and nothing is changed', async () => {
    const id = await practice('Many photos', 7);
    await app.get(DataSource).query(
      `WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ${MOST_PHOTOS})
       INSERT INTO photos SELECT '${id}-' || i, '${id}', 1, 1, x'00', x'00', '' FROM n`,
    );
    const answer = await upload(id, await picture(10));
    expect([answer.status, ((await answer.json()) as { code: string }).code]).toEqual([413, 'too-large']);
  });
  it('that are none, are missing or belong nowhere are refused', async () => {
    expect((await upload('wren', new TextEncoder().encode('not a picture'))).status).toBe(400);
    // a drawing is none: whoever opens it would have to work it out
    for (const drawing of [
      '<svg xmlns="http://www.w3.org/2000/svg" width="9000" height="9000"><rect width="9000" height="9000"/></svg>',
      '<?xml version="1.0"?><!-- a photo --><svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1"/>',
      '%PDF-1.4\n1 0 obj<<>>endobj',
    ])
      expect((await upload('wren', new TextEncoder().encode(drawing))).status, drawing).toBe(400);
    // more than can be made smaller at once wait, and more than can wait are told to come again
    const many = await Promise.all(
      Array.from({ length: 20 }, async () => (await upload('wren', await picture(2000))).status),
    );
    expect(new Set(many)).toEqual(new Set([201, 429]));
    expect(many.filter((status) => status === 201).length).toBeGreaterThanOrEqual(14);
    expect((await upload('nowhere', await picture(10))).status).toBe(404);
    expect((await fetch(`${base}/projects/wren/photos`, { method: 'POST', body: new FormData() })).status).toBe(400);
  });
});

describe('other beginnings and comparisons', () => {
  it('a shell is a starting point: its readings come over as estimates, what was found does not', async () => {
    const response = await send('POST', 'projects', {
      name: 'Sister of Wren',
      kind: 'van',
      model: 'Halden Carrier',
      units: 'mm',
      startDate: '2026-10-01',
      from: 'wren',
    });
    const { id } = (await response.json()) as { id: string };
    const { project } = (await (await send('GET', `projects/${id}`)).json()) as ProjectView;
    expect(project.survey.readings['station/s4/left/700']).toMatchObject([{ value: 929, method: 'estimate' }]);
    expect(project.survey.found).toEqual([]);
    expect(project.layout.units).toEqual([]);
    expect(
      (
        await send('POST', 'projects', {
          name: 'X',
          kind: 'van',
          model: '',
          units: 'mm',
          startDate: '2026-10-01',
          from: 'nobody',
        })
      ).status,
    ).toBe(404);
  });
  it('vehicles are compared on net measures', async () => {
    const response = await send('GET', 'compare?ids=wren,bulrush,thimble');
    const vehicles = (await response.json()) as VehicleMeasures[];
    expect(vehicles.map((vehicle) => vehicle.id)).toEqual(['wren', 'bulrush', 'thimble']);
    expect(vehicles[0]?.length).toBe(3690);
    expect(vehicles[1]?.step).toBeCloseTo(279.4, 6);
    expect((await send('GET', 'compare?ids=wren,nobody')).status).toBe(404);
  });
  it('readings and the survey sheet can be fetched', async () => {
    const csv = await fetch(`${base}/projects/thimble/files/readings`);
    expect(await csv.text()).toMatch(/^address,value,unit,method,taken,what\nfloor\/length,3000/);
    const sheet = Buffer.from(await (await fetch(`${base}/projects/thimble/files/survey`)).arrayBuffer());
    const pages = (await PDFDocument.load(sheet)).getPageCount();
    // a cover with the drawings, then a box for each of the 73 readings, 31 or so on a page
    expect(pages).toBe(1 + Math.ceil(73 / 31));
  });
});
