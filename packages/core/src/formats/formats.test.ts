import { describe, expect, it } from 'vitest';
import { derive } from '../derive/again.fixture.js';
import { blankOf, type Part } from '../parts/part.js';
import { FormatError, readCutJob, readOperations, readProjectFile } from './read.js';
import { projectFileText } from './write-project.js';
import { cutListCsv, partDxf, partSvg } from './write.js';
import { jsonSchemas } from './schema-json.js';
import { reportOf } from './report.js';
import demo from '../../../../demo/wren.json?raw';

const wren = readProjectFile(demo);
const derived = derive(wren.project, wren.priceBook);
const refusal = (read: () => unknown): string => {
  try {
    read();
  } catch (problem) {
    if (problem instanceof FormatError) return problem.message;
    throw problem;
  }
  return 'read without complaint';
};
const spoilt = (from: string, to: string): string => refusal(() => readProjectFile(demo.replace(from, to)));
const part = (id: string): Part => {
  const found = derived.parts.find((candidate) => candidate.id === id);
  if (!found) throw new Error(`no ${id}`);
  return found;
};

describe('reading', () => {
  it('gives back what was written', () => {
    expect(readProjectFile(projectFileText(wren.project, wren.priceBook))).toEqual(wren);
  });
  it.each([
    ['truncated', demo.slice(0, 500), /^Line \d+, column \d+: this is not JSON/],
    ['a comma too many', '{"format": "nest-plank-file",,}', /^Line 1, column 30/],
    ['of another kind', '{"format":"cut-plan","version":1}', /^This is a cut-plan, not a nest-plank-file\.$/],
    ['of no kind', '[]', /^This is a file of another kind/],
    [
      'from the future',
      '{"format":"nest-plank-file","version":6}',
      /^This file is version 6; this program reads up to version 5\.$/,
    ],
  ])('refuses a file that is %s', (_what, text, line) => {
    expect(refusal(() => readProjectFile(text))).toMatch(line);
  });
  it('names the field, the double id and the missing reference', () => {
    expect(spoilt('"kerf": 2.4', '"kerf": "thin"')).toMatch(/^project\.settings\.cutting\.kerf: /);
    expect(spoilt('"id": "s2"', '"id": "s1"')).toBe('project.survey.stations[1]: the id s1 is used twice.');
    expect(spoilt('"sleepers": [\n       "joost"', '"sleepers": [\n       "nobody"')).toBe(
      'project.layout.units[0].options: there is no nobody to refer to.',
    );
    expect(spoilt('"hoursPerDay": 6', '"hoursPerDay": 6, "mood": 1')).toContain('mood');
  });
  it('reads jobs and operations or says what is wrong with them', () => {
    const job = {
      format: 'cut-job',
      version: 1,
      kind: 'sheet',
      kerf: 3,
      trim: { length: 5, width: 0 },
      method: 'free',
      stock: [{ id: 's', length: 2440, width: 1220, quantity: null, price: 1, offcut: false }],
      parts: [{ id: 'p', length: 10, width: 20 }],
    };
    expect(readCutJob(JSON.stringify(job))).toMatchObject({
      trim: { length: 5 },
      parts: [{ quantity: 1, mayTurn: false }],
    });
    expect(refusal(() => readCutJob(JSON.stringify({ ...job, parts: [{ id: 'p', length: 1 }] })))).toContain(
      'parts[0].width',
    );
    expect(refusal(() => readCutJob(JSON.stringify({ ...job, parts: [job.parts[0], job.parts[0]] })))).toContain(
      'the id p is used twice',
    );
    expect(refusal(() => readOperations('[{"name":"removeUnit","payload":{"id":"x"}},{"name":"dance"}]'))).toMatch(
      /^\[1\]: There is no operation named “dance”/,
    );
    expect(refusal(() => readOperations('{}'))).toContain('not a list of operations');
  });
});

describe('writing', () => {
  it('lists every part once, with its figures', () => {
    const [head, ...rows] = cutListCsv(derived.parts, wren.project, wren.priceBook).trim().split('\n');
    expect(head).toBe(
      'parts,where,material,thickness_mm,length_mm,width_mm,quantity,grain,scribed_edges,scribe_allowance_mm,largest_removal_mm,bevel_degrees,square_cut,mass_each_kg',
    );
    // equal ones share a row: every part is in one, once, with its like
    const listed = rows.flatMap((row) => (row.split(',')[0] ?? '').split(' '));
    expect([...listed].sort()).toEqual(derived.parts.map(({ id }) => id).sort());
    expect(rows.length).toBeLessThan(0.7 * derived.parts.length);
    for (const row of rows) {
      const [ids = '', ...cells] = row.replace(/"[^"]*"/g, 'x').split(',');
      expect([ids, cells[5]]).toEqual([ids, String(ids.split(' ').length)]);
      const own = ids.split(' ').map(part);
      for (const other of own)
        expect([other.material, Math.round(blankOf(other).length * 10)]).toEqual([
          own[0]?.material,
          Math.round(blankOf(own[0] ?? other).length * 10),
        ]);
    }
    expect(rows.find((row) => row.startsWith('bench.rail-front '))).toBe(
      'bench.rail-front bench.rail-back,Bench,Birch plywood 15,15,850,80,2,along length,,0,0,0,yes,0.69',
    );
  });
  it('draws a part as closed polylines in mm, with its scribe line on a layer of its own', () => {
    const dxf = partDxf(part('kitchen.end-front'));
    expect(dxf).toContain('LWPOLYLINE');
    for (const layer of ['CUT', 'MARK']) expect(dxf).toContain(layer);
    const xs = [...dxf.matchAll(/^ *10\r?\n(.+)$/gm)].map((m) => Number(m[1]));
    expect(Math.max(...xs)).toBeCloseTo(blankOf(part('kitchen.end-front')).length, 3);
  });
  it('draws a part at true size, with its name made safe', () => {
    const svg = partSvg({ ...part('bed.front'), id: 'a<b>&"c"' });
    const { length } = blankOf(part('bed.front'));
    expect(svg).toContain(`width="${(length + 10).toFixed(3)}mm"`);
    expect(svg).toContain('<title>a&#60;b&#62;&#38;&#34;c&#34;</title>');
    expect(svg.match(/Z/g)).toHaveLength(1 + part('bed.front').outline.holes.length);
  });
  it('publishes schemas of every format', () => {
    expect(Object.keys(jsonSchemas()).sort()).toEqual([
      'cut-job.schema.json',
      'cut-plan.schema.json',
      'nest-plank-file.schema.json',
      'operations.schema.json',
    ]);
  });
  it('reports everything as plain JSON', () => {
    const report = reportOf(wren.project, wren.priceBook, derived);
    expect(JSON.parse(JSON.stringify(report))).toEqual(report);
    expect(report.room).toMatchObject({ standing: { value: 1843, x: 3690 } });
    expect(report.parts).toHaveLength(derived.parts.length);
    expect(report.wishes.map(({ text }) => text)).toEqual((wren.project.wishes ?? []).map(({ text }) => text));
    for (const { rule, state, by } of report.wishes)
      for (const id of by) {
        const check = derived.checks.find((one) => one.id === id);
        expect(check?.rule).toBe(rule);
        if (state === 'kept') expect(check?.grade).toBe('good');
      }
    expect(report.layers[0]).toMatchObject({ surface: 'floor', takes: 47 });
  });
});
