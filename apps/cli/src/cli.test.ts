import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { derive } from '@nestplank/core/derive';
import { projectFileText, readProjectFile } from '@nestplank/core/formats';
import { halfWidth, roofHeight } from '@nestplank/core/shell';
import { cutJobSchema, planFaults, type CutPlan } from '@nestplank/core/cutting';
import { plank, started } from './plank.fixture.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const entry = join(root, 'apps/cli/dist/bundle/main.js');
const demo = join(root, 'demo/wren.json');
const { project, priceBook } = readProjectFile(readFileSync(demo, 'utf8'));
const derived = derive(project, priceBook);
const folder = mkdtempSync(join(tmpdir(), 'nest-plank-cli-'));
const at = (name: string): string => join(folder, name);

function file(name: string, content: unknown): string {
  writeFileSync(at(name), typeof content === 'string' ? content : JSON.stringify(content));
  return at(name);
}

describe('the command line', () => {
  beforeAll(() => {
    if (!existsSync(entry)) throw new Error('Build the command line first: npm run build.');
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it('reports everything derived', () => {
    const { code, out } = started('report', demo);
    expect(code).toBe(0);
    const report = JSON.parse(out) as {
      room: { standing: { value: number } };
      parts: { outline: { outer: unknown[] } }[];
      cutPlans: unknown[];
      cost: { total: number };
      work: { tasks: unknown[] };
    };
    expect(report.room.standing.value).toBe(1843);
    expect(report.parts).toHaveLength(derived.parts.length);
    expect(report.parts.every((part) => part.outline.outer.length >= 4)).toBe(true);
    expect(report.cutPlans).toHaveLength(derived.plans.length);
    expect(report.cost.total).toBeGreaterThan(0);
    expect(report.work.tasks).toHaveLength(derived.schedule.tasks.length);
  });
  it('reports what every screen has, all texts said, in the project’s own units', () => {
    const report = JSON.parse(plank('report', join(root, 'demo/bulrush.json')).out) as Record<string, unknown> & {
      linings: { surface: string; pieces: unknown[]; parts: string[]; held: unknown[] }[];
      floor: { screws: unknown[]; finish: { rows: unknown[] } };
      survey: { closures: { said: string }[] };
      layers: { surface: string; wattsPerSquareMetreKelvin: number }[];
      warmth: { of: { id: string; u: number }[] };
      cost: { lines: { why: string; shares: { phase: string; of: string }[] }[] };
      work: { tasks: { task: { title: string } }[] };
    };
    for (const key of [
      'windowBoxes',
      'archBoxes',
      'headers',
      'corners',
      'doorLinings',
      'boxesHeld',
      'ribs',
      'areas',
      'left',
    ])
      expect(report[key], key).toBeDefined();
    expect(report.linings.map(({ surface }) => surface)).toEqual(expect.arrayContaining(['left', 'right']));
    expect(report.linings[0]?.parts.every((part) => typeof part === 'string')).toBe(true);
    expect(report.cost.lines.every(({ why, shares }) => typeof why === 'string' && shares.length > 0)).toBe(true);
    expect(report.work.tasks.every(({ task }) => typeof task.title === 'string')).toBe(true);
    expect(report.survey.closures.some(({ said }) => said.includes('in'))).toBe(true);
    // what a surface lets through is one figure wherever it stands
    for (const { surface, wattsPerSquareMetreKelvin } of report.layers) {
      const there = report.warmth.of.find(({ id }) => id === surface);
      if (there) expect(there.u).toBe(wattsPerSquareMetreKelvin);
    }
    const unsaid = (value: unknown): boolean =>
      Array.isArray(value)
        ? value.some(unsaid)
        : typeof value === 'object' &&
          value !== null &&
          (('key' in value && 'params' in value) || Object.values(value).some(unsaid));
    expect(unsaid(report)).toBe(false);
  });
  it('writes the price book as CSV and takes one in; rows that cannot be right are named', () => {
    const csv = at('book.csv');
    expect(plank('book', demo, '-o', csv).code).toBe(0);
    const lines = readFileSync(csv, 'utf8');
    file('own.csv', `${lines.split('\n')[0] ?? ''}\n${['yard-9', 'Yard 9', 'sheet'].join(',')},,,,9\n,,,,,,x\n`);
    const made = at('with-yard.json');
    const { code, err } = plank('book', demo, '--take', at('own.csv'), '-o', made);
    expect(code).toBe(1);
    expect(err).toContain('row 3');
    const { priceBook: taken } = readProjectFile(readFileSync(made, 'utf8'));
    expect(taken.items.find(({ id }) => id === 'yard-9')).toMatchObject({ name: 'Yard 9', thickness: 9 });
    expect(plank('book', demo, '--take', file('bad.csv', 'name\nx\n')).code).toBe(2);
  });
  it('takes in readings of a CSV', () => {
    const made = at('empty.json');
    plank('new', '-o', made, '--kind', 'van', '--name', 'Empty');
    const csv = file(
      'read.csv',
      'address,value,unit\nfloor/length,3400,mm\nstation/s1/left/0,34 5/8,in\nfloor/length,x,mm\n',
    );
    const { code, err } = plank('import', made, '--readings', csv, '-o', at('read.json'));
    expect(code).toBe(1);
    expect(err.trim().split('\n')).toEqual([expect.stringContaining('row 4') as string]);
    const { readings } = readProjectFile(readFileSync(at('read.json'), 'utf8')).project.survey;
    expect(readings['floor/length']?.[0]?.value).toBe(3400);
    expect(readings['station/s1/left/0']?.[0]?.value).toBeCloseTo(879.475, 6);
  });
  it('makes a new project, and says what its walk asks for', () => {
    const made = at('fresh.json');
    expect(plank('new', '-o', made, '--kind', 'trailer', '--name', 'Little Box', '--units', 'in').code).toBe(0);
    const fresh = readProjectFile(readFileSync(made, 'utf8'));
    expect(fresh.project).toMatchObject({ id: 'little-box', name: 'Little Box', vehicle: { kind: 'trailer' } });
    expect(fresh.project.settings.units).toBe('in');
    expect(fresh.priceBook.items.length).toBeGreaterThan(20);
    const walk = JSON.parse(plank('walk', made).out) as { address: string; said: string; taken: number | null }[];
    expect(walk.length).toBeGreaterThan(10);
    expect(walk.every(({ taken, said }) => taken === null && said !== '')).toBe(true);
    expect(JSON.parse(plank('next', made).out)).toMatchObject({ worst: null, next: null });
    expect(plank('new', '-o', made, '--kind', 'boat', '--name', 'x')).toMatchObject({ code: 2 });
    expect(plank('new', '-o', made, '--kind', 'van', '--name', '?!').err).toContain('no letter');
  });
  it('says what is taken on the walk, and which reading would help most', () => {
    const walk = JSON.parse(plank('walk', demo).out) as { address: string; taken: number | null }[];
    expect(walk.map(({ address }) => address)).toEqual(derived.walk);
    expect(walk.filter(({ taken }) => taken !== null)).toHaveLength(derived.progress.taken);
    const { worst, next } = JSON.parse(plank('next', demo).out) as {
      worst: number;
      next: { readings: { address: string }[]; before: number; after: number } | null;
    };
    expect(worst).toBeCloseTo(derived.quality?.worst ?? 0, 6);
    expect(next?.readings.map(({ address }) => address) ?? []).toEqual(derived.quality?.next?.addresses ?? []);
    if (next) expect(next.after).toBeLessThan(next.before);
  });
  it('prints a section as the shell has it, every 10 mm', () => {
    const { code, out } = plank('section', demo, '--x', '1500');
    expect(code).toBe(0);
    const { bare, net } = JSON.parse(out) as Record<
      'bare' | 'net',
      { floor: number; left: [number, number][]; right: [number, number][]; roof: [number, number][] }
    >;
    const { shell, inner } = derived;
    if (!shell || !inner) throw new Error('the demo has a shell');
    expect(net.floor).toBe(inner.floor);
    for (const [z, out] of bare.left) expect(out).toBeCloseTo(halfWidth(shell, 'left', 1500, z), 6);
    for (const [y, z] of net.roof) expect(z).toBeCloseTo(roofHeight(inner, 1500, y), 6);
    const steps = bare.left.slice(1, -1).map(([z], i) => z - (bare.left[i]?.[0] ?? 0));
    for (const step of steps) expect(step).toBeCloseTo(10, 6);
    expect(plank('section', demo, '--x', '90000')).toMatchObject({ code: 2 });
  });
  it('checks only what is asked for', () => {
    expect(plank('check', demo, '--only', 'problems').code).toBe(derived.problems.length > 0 ? 1 : 0);
    expect(plank('check', demo, '--only', 'rules').out).toMatch(/^collision/);
    expect(plank('check', demo, '--only', 'colour')).toMatchObject({ code: 2 });
    // a floor length that its two diagonals do not bear out is a failing closure
    const slip = structuredClone(project);
    const length = slip.survey.readings['floor/length']?.at(-1);
    if (!length) throw new Error('the demo has a floor');
    slip.survey.readings['floor/diagonal-a'] = [{ ...length, value: length.value + 400 }];
    slip.survey.readings['floor/diagonal-b'] = [{ ...length, value: length.value + 40 }];
    const out = plank('check', file('slip.json', projectFileText(slip, priceBook)), '--only', 'closures');
    expect(out.code).toBe(1);
    expect(out.out).toMatch(/^closure: /m);
  });
  it('checks: exit 1 and the rule, exit 0 when mended by operations', () => {
    const failing = plank('check', demo);
    expect(failing.code).toBe(1);
    expect(failing.out).toMatch(/^collision: Bed and Bench run into each other: 50 along/);
    const operations = file('mend.json', [{ name: 'changeUnit', payload: { id: 'bench', changes: { x: 1450 } } }]);
    expect(plank('apply', demo, operations, '-o', at('mended.json')).code).toBe(0);
    expect(plank('check', at('mended.json'))).toMatchObject({
      code: 0,
      out: expect.stringMatching(
        /^\d+ checks, none fails\.\nnot known: Seen, but without a measured place: Skylight\..*\n$/,
      ) as string,
    });
    expect(plank('check', at('mended.json'), '--only', 'rules').out).toBe('35 checks, none fails.\n');
  });
  it('cuts a job to a plan that stands up', () => {
    const job = {
      format: 'cut-job',
      version: 1,
      kind: 'sheet',
      kerf: 3.2,
      trim: 10,
      method: 'guillotine',
      stock: [{ id: 's', length: 2440, width: 1220, quantity: null, price: 5400, offcut: false }],
      parts: [
        { id: 'a', length: 720, width: 400, quantity: 9, mayTurn: false },
        { id: 'b', length: 500, width: 310, quantity: 7, mayTurn: true },
      ],
    };
    expect(plank('cut', file('job.json', job), '-o', at('plan.json'), '--seconds', '2', '--seed', '3').code).toBe(0);
    const plan = JSON.parse(readFileSync(at('plan.json'), 'utf8')) as CutPlan;
    expect(planFaults(cutJobSchema.parse(job), plan)).toEqual([]);
    expect(plan).toMatchObject({ format: 'cut-plan', version: 1, unplaced: [] });
    expect(plan.seconds).toBeGreaterThan(0);
  });
  it('exports the room as a closed file of its own, as a mode has it', () => {
    const glb = (...more: string[]) => {
      const said = plank('export', demo, '--as', 'gltf', '-o', at('glb'), ...more);
      const file = said.code === 0 ? readFileSync(join(at('glb'), 'wren.glb')) : null;
      return { said, file };
    };
    const shut = glb();
    expect(shut.said).toMatchObject({ code: 0, err: '' });
    expect(shut.file?.subarray(0, 4).toString()).toBe('glTF');
    expect(shut.file?.length).toBe(shut.file?.readUInt32LE(8));
    const named = JSON.parse(shut.file?.subarray(20, 20 + shut.file.readUInt32LE(12)).toString() ?? '') as {
      nodes: { name?: string }[];
    };
    const names = new Set(named.nodes.map(({ name }) => name));
    for (const { id, role } of derived.parts) if (!role.startsWith('corner')) expect(names).toContain(id);
    expect(glb('--mode', 'Meal').file?.equals(shut.file ?? Buffer.alloc(0))).toBe(false);
    expect(glb('--mode', 'Never').said).toMatchObject({ code: 2 });
  });
  it.each(['json', 'csv', 'dxf', 'svg', 'pdf'])('exports %s', (format) => {
    expect(plank('export', demo, '--as', format, '-o', at('out'))).toMatchObject({ code: 0, err: '' });
  });
  it('has written one file for each part, and what was exported comes back', () => {
    const written = readdirSync(at('out'));
    expect(written.filter((name) => name.endsWith('.dxf'))).toHaveLength(derived.parts.length);
    expect(written.filter((name) => name.endsWith('.svg'))).toHaveLength(derived.parts.length);
    expect(written).toEqual(expect.arrayContaining(['wren.json', 'wren-cut-list.csv', 'wren-cut-diagrams.pdf']));
    expect(readFileSync(at('out/wren-cut-diagrams.pdf')).subarray(0, 5).toString()).toBe('%PDF-');
    expect(plank('import', at('out/wren.json')).out).toContain('"units":6');
    expect(plank('export', demo, '--as', 'doc', '-o', at('out')).code).toBe(2);
  });
  it('writes the readings, which come back, and the sheet to take into the vehicle', () => {
    expect(plank('export', demo, '--as', 'readings', '-o', at('out'))).toMatchObject({ code: 0, err: '' });
    expect(plank('export', demo, '--as', 'survey', '-o', at('out'))).toMatchObject({ code: 0, err: '' });
    const rows = readFileSync(at('out/wren-readings.csv'), 'utf8').trim().split('\n');
    const { survey } = (
      JSON.parse(readFileSync(demo, 'utf8')) as { project: { survey: { readings: Record<string, unknown[]> } } }
    ).project;
    expect(rows).toHaveLength(1 + Object.values(survey.readings).flat().length);
    expect(rows[1]).toMatch(/^floor\/length,3690,mm,tape,/);
    expect(readFileSync(at('out/wren-survey-sheet.pdf')).subarray(0, 5).toString()).toBe('%PDF-');
  });
  it('reports what the survey, the layers and the depths come to', () => {
    const report = JSON.parse(plank('report', demo).out) as {
      survey: { quality: { worst: number; goal: number } };
      warmth: { watts: number };
      fixings: { surface: string; pick: { length: number } | null }[];
      reveals: { opening: string }[];
      cavities: unknown[];
    };
    expect(report.survey.quality.worst).toBeLessThan(report.survey.quality.goal);
    expect(report.warmth.watts).toBeGreaterThan(500);
    expect(report.fixings.find((fixing) => fixing.surface === 'floor')?.pick?.length).toBe(35);
    expect(report.reveals.map((reveal) => reveal.opening)).toEqual(['o1', 'o2']);
    expect(report.cavities.length).toBeGreaterThan(3);
  });
  it('says in one line what fails in the bus, and ends with 1', () => {
    const bulrush = demo.replace('wren', 'bulrush');
    const checked = plank('check', bulrush);
    expect(checked.code).toBe(1);
    expect(checked.out).toContain('cannot sit up on the bed');
    expect(checked.err).toMatch(/^\d+ of \d+ checks fail\.$/m);
    const bus = readProjectFile(readFileSync(bulrush, 'utf8'));
    const { outliers } = derive(bus.project, bus.priceBook);
    const slips = plank('check', bulrush, '--only', 'slips')
      .out.split('\n')
      .filter((line) => line.startsWith('slip: '));
    expect(slips).toHaveLength(outliers.length);
  });
  it('lists the rules and runs one alone', () => {
    const rules = JSON.parse(plank('rules').out) as { name: string; inputs: { properties: object } }[];
    expect(rules.map((rule) => rule.name)).toContain('bed-length');
    expect(rules.find((rule) => rule.name === 'bed-length')?.inputs.properties).toHaveProperty('stature.unit', 'mm');
    const verdict = plank('rule', 'bed-length', file('in.json', { clear: 1838, stature: 1752, who: 'Joost' }));
    expect(JSON.parse(verdict.out)).toMatchObject({
      grade: 'tight',
      spare: -34,
      said: 'Joost, lying across: 34 short of good. Clear 1\u202f838, wants 1\u202f872.',
    });
    expect(plank('rule', 'no-such', at('in.json'))).toMatchObject({ code: 2, out: '' });
    expect(plank('rule', 'bed-length', file('bad.json', { clear: 'long', stature: 1752 })).err).toContain('clear');
  });
  it.each([
    ['a file that is not there', () => ['report', at('nowhere.json')], /nowhere\.json: cannot be read/],
    [
      'truncated JSON',
      () => ['report', file('cut.json', readFileSync(demo, 'utf8').slice(0, 3000))],
      /Line \d+, column \d+: this is not JSON/,
    ],
    [
      'a file of another kind',
      () => ['report', file('kind.json', { format: 'cut-job', version: 1 })],
      /This is a cut-job, not a nest-plank-file/,
    ],
    ['a later version', () => ['check', file('later.json', { format: 'nest-plank-file', version: 6 })], /version 6/],
    [
      'a field that is wrong',
      () => ['report', file('field.json', readFileSync(demo, 'utf8').replace('"kerf": 2.4', '"kerf": -1'))],
      /project\.settings\.cutting\.kerf/,
    ],
    [
      'a job without width',
      () => [
        'cut',
        file('job2.json', {
          format: 'cut-job',
          version: 1,
          kind: 'sheet',
          kerf: 1,
          stock: [{ id: 's', length: 10, width: 10, price: 1 }],
          parts: [{ id: 'p', length: 1 }],
        }),
      ],
      /parts\[0\]\.width/,
    ],
    [
      'an operation that cannot be done',
      () => ['apply', demo, file('ops.json', [{ name: 'removeUnit', payload: { id: 'sofa' } }])],
      /\[0\] removeUnit: There is no sofa/,
    ],
    [
      'a layer of a material that is not in the price book',
      () => [
        'apply',
        demo,
        file('layer.json', [
          {
            name: 'putLayer',
            payload: {
              surface: 'left',
              layer: {
                id: 'x',
                material: 'unobtainium',
                thickness: 9,
                place: 'continuous',
                share: 1,
                measured: null,
                board: false,
              },
            },
          },
        ]),
      ],
      /\[0\] putLayer: .*unobtainium/,
    ],
    [
      'a carcass of battens, or of foam',
      () => [
        'apply',
        demo,
        file('foam.json', [{ name: 'changeUnit', payload: { id: 'kitchen', changes: { carcass: 'foam-30' } } }]),
      ],
      /\[0\] changeUnit: Kitchen: Rigid foam 30 is not sold in sheets/,
    ],
    ...(
      [
        [
          'a part larger than any sheet',
          { parts: [{ id: 'long-side', length: 3000, width: 300 }] },
          /“long-side” left out: it is longer than any stock/,
        ],
        [
          'a part that fits only turned',
          { parts: [{ id: 'tall', length: 1000, width: 2000 }] },
          /“tall” left out: it would fit turned/,
        ],
        ['a size of nothing', { parts: [{ id: 'p', length: 0, width: 300 }] }, /parts\[0\]\.length/],
        ['a size under nothing', { parts: [{ id: 'p', length: 200, width: -3 }] }, /parts\[0\]\.width/],
        ['a size that is no number', { parts: [{ id: 'p', length: 'long', width: 3 }] }, /parts\[0\]\.length/],
        [
          'a kerf larger than a part',
          { kerf: 12, parts: [{ id: 'p', length: 200, width: 10 }] },
          /kerf of 12 .*“p”.*10/,
        ],
        ['a trim larger than the sheet', { trim: 620 }, /“s” is 1220 wide and the trim takes 1240/],
        [
          'an outline that crosses itself',
          {
            method: 'free',
            parts: [
              {
                id: 'bow',
                length: 10,
                width: 10,
                outline: [
                  [0, 0],
                  [10, 10],
                  [10, 0],
                  [0, 10],
                ],
              },
            ],
          },
          /“bow” crosses itself/,
        ],
        [
          'an id that is there twice',
          {
            parts: [
              { id: 'p', length: 9, width: 9 },
              { id: 'p', length: 8, width: 8 },
            ],
          },
          /parts\[1\].*used twice/,
        ],
        ['an unknown field', { colour: 'blue' }, /colour/],
      ] as const
    ).map(
      ([what, changes, line]) =>
        [
          `a cut job with ${what}`,
          () => [
            'cut',
            file('bad-job.json', {
              format: 'cut-job',
              version: 1,
              kind: 'sheet',
              kerf: 3,
              trim: 0,
              stock: [{ id: 's', length: 2440, width: 1220, quantity: null, price: 5400, offcut: false }],
              parts: [{ id: 'p', length: 400, width: 300 }],
              ...changes,
            }),
            '-o',
            at('bad-plan.json'),
            '--seconds',
            '0.2',
          ],
          line,
        ] as [string, () => string[], RegExp],
    ),
    ['an option that is not a number', () => ['cut', at('job.json'), '--seconds', 'soon'], /not a number/],
    ['a file over 20 MB', () => ['report', file('huge.json', ' '.repeat(21 * 1024 * 1024))], /larger than 20 MB/],
  ] as const)('refuses %s with one line and exit code 2', (_what, args, line) => {
    const { code, out, err } = plank(...args());
    expect(code).toBe(2);
    expect(out).toBe('');
    expect(err.trim().split('\n')).toHaveLength(1);
    expect(err).toMatch(line);
  });
});
