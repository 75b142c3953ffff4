import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { startPriceBook } from '../../materials/start-book.js';
import { readProjectFile } from '../../formats/read.js';
import { derive } from '../../derive/again.fixture.js';
import type { Project } from '../../document/schema.js';
import { boxOf } from '../../numeric/plane.js';
import { squareCorners } from './square-corners.fixture.js';
import { lineAt } from '../fixing/fixing-map.js';

const file = readProjectFile(wrenFile);
/** With boards of the size they are to have in the end. */
const wren = {
  ...file,
  project: squareCorners({ ...file.project, boxes: { ...file.project.boxes, scribe: 0 } }),
};

/** Wren with the left window's front side leaning back by 100 over its height. */
function leaning(): Project {
  const { survey } = wren.project;
  const from = survey.readings['opening/o1/from']?.at(-1)?.value ?? 0;
  const to = survey.readings['opening/o1/to']?.at(-1)?.value ?? 0;
  const reading = (value: number) => [{ value, method: 'tape' as const, at: '2026-10-02T08:00:00.000Z' }];
  return {
    ...wren.project,
    survey: {
      ...survey,
      openings: survey.openings.map((opening) => (opening.id === 'o1' ? { ...opening, slanted: true } : opening)),
      readings: {
        ...survey.readings,
        'opening/o1/from-head': reading(from + 100),
        'opening/o1/to-head': reading(to),
      },
    },
  };
}
const plain = derive(wren.project, wren.priceBook);
const slanted = derive(leaning(), wren.priceBook);
const boxIn = (derived: typeof plain) => derived.lined.windowBoxes.find((box) => box.opening === 'o1');
const partOf = (derived: typeof plain, name: string) =>
  boxIn(derived)?.parts.find((part) => part.id === `window-o1-${name}`);
const lengthOf = (derived: typeof plain, name: string): number =>
  boxOf(partOf(derived, name)?.outline.outer ?? [[0, 0]]).maxX;

describe('the box of a window whose side leans', () => {
  // 800 x 455 in the demo, boards of 9: the lean is 100 in 455
  const lean = 100 / 455;

  it('leans with it: its boards have the lengths of the opening’s own sides', () => {
    expect(lengthOf(plain, 'sill')).toBeCloseTo(800, 6);
    expect(lengthOf(slanted, 'sill')).toBeCloseTo(800, 6);
    // the head board's lower face lies 9 under the head
    expect(lengthOf(slanted, 'head')).toBeCloseTo(800 - lean * (455 - 9), 6);
    expect(lengthOf(slanted, 'front')).toBeCloseTo((455 - 18) * Math.hypot(1, lean), 6);
    expect(lengthOf(slanted, 'rear')).toBeCloseTo(455 - 18, 6);
  });

  it('has ends sawn at the angle of the lean, and says so', () => {
    const angle = (Math.atan(lean) * 180) / Math.PI;
    const ends = partOf(slanted, 'front')?.edges.filter(({ at }) => at === 'left' || at === 'right') ?? [];
    expect(ends).toHaveLength(2);
    // level cuts on a leaning board: out on its drawn face at one end, in at the other
    // on the left wall it is drawn with its foot at the right
    const at = (end: string) => ends.find((edge) => edge.at === end)?.bevel.most;
    expect(at('right')).toBeCloseTo(angle, 6);
    expect(at('left')).toBeCloseTo(-angle, 6);
    expect(partOf(plain, 'front')?.edges).toEqual([]);
  });

  it('has a trim mitred by half of each corner', () => {
    // a corner of 90 + 12.4 degrees is mitred at 51.2 from the side, 38.8 off square
    const angle = (Math.atan(lean) * 180) / Math.PI;
    const low = partOf(slanted, 'trim-1');
    expect(low?.ends?.start).toBeCloseTo(90 - (90 - angle) / 2, 6);
    expect(low?.ends?.end).toBeCloseTo(45, 6);
    expect(partOf(plain, 'trim-1')?.ends).toEqual({ start: 45, end: 45 });
  });

  it('has its hole in the lining, its noggin and its area lean too', () => {
    const left = slanted.lined.linings.find((lining) => lining.surface === 'left');
    const hole = left?.ground.openings.find((opening) => opening.id === 'o1');
    expect(hole?.sides?.front[1]).toBeCloseTo((hole?.sides?.front[0] ?? 0) + 100, 3);
    const beside = left?.lines.filter((line) => line.name === hole?.name && line.lean !== 0) ?? [];
    expect(beside.length).toBeGreaterThan(0);
    for (const line of beside)
      expect(lineAt(line, line.to) - line.at).toBeCloseTo(line.lean * (line.to - line.from), 6);
    // 100 x 455 / 2 less of glass is so much more of wall
    const more = (slanted.areas?.left ?? 0) - (plain.areas?.left ?? 0);
    expect(more).toBeCloseTo((100 * 455) / 2 / 1e6, 3);
  });
});

describe('the box of the glass in a rear door', () => {
  /** A window of 400 x 300 in the right rear door, its frame 40 behind the inner sheet of the door. */
  const { survey } = wren.project;
  const readings = {
    from: 150,
    to: 550,
    sill: 900,
    head: 1200,
    'frame-front-low': 40,
    'frame-front-high': 36,
    'frame-rear-low': 40,
    'frame-rear-high': 36,
  };
  const project: Project = {
    ...wren.project,
    survey: {
      ...survey,
      openings: [
        ...survey.openings,
        {
          id: 'rw',
          name: 'Rear glass',
          kind: 'window',
          surface: 'rear',
          cornerRadius: 0,
          swing: 'fixed',
          hand: 'none',
          slanted: false,
          framed: true,
          ring: null,
        },
      ],
      readings: {
        ...survey.readings,
        ...Object.fromEntries(
          Object.entries(readings).map(([what, value]) => [
            `opening/rw/${what}`,
            [{ value, method: 'tape' as const, at: '2026-10-02T08:00:00.000Z' }],
          ]),
        ),
      },
    },
  };
  const derived = derive(project, wren.priceBook);
  const box = derived.lined.windowBoxes.find((candidate) => candidate.opening === 'rw');

  it('is as deep as the frame lies behind the door’s layers, tapered by what its corners differ', () => {
    const deep = derived.depths.doors.total;
    const sill = box?.parts.find((part) => part.id === 'window-rw-sill');
    expect(boxOf(sill?.outline.outer ?? [])).toMatchObject({ maxX: 400, maxY: 40 + deep });
    const front = box?.parts.find((part) => part.id === 'window-rw-front');
    expect(boxOf(front?.outline.outer ?? []).maxX).toBeCloseTo(300 - 18, 6);
    // 4 of taper over 300, less the two thicknesses of board
    const depths = front?.outline.outer.filter(([, y]) => y > 0).map(([, y]) => y) ?? [];
    expect(Math.max(...depths) - Math.min(...depths)).toBeCloseTo((4 * (300 - 18)) / 300, 6);
    expect(box?.track).toBeNull();
    const end = derived.inner?.length ?? 0;
    for (const part of box?.parts ?? [])
      // the boards go back from the finished face, the trim lies on it
      expect(part.place.origin[0]).toBeGreaterThanOrEqual(part.role === 'trim' ? end - part.thickness - 1e-9 : end - 1);
  });

  it('is cut and fitted by the order of work, as every box is', () => {
    const ids = derived.schedule.tasks.map(({ task }) => task.id);
    for (const made of derived.lined.windowBoxes) {
      const [first] = made.parts;
      expect(ids).toContain(`box-${first?.id ?? ''}-cut`);
      expect(ids.indexOf(`box-${first?.id ?? ''}-fit`)).toBeGreaterThan(ids.indexOf(`box-${first?.id ?? ''}-cut`));
    }
    expect(ids.filter((id) => id.startsWith('box-') && id.endsWith('-fit'))).toHaveLength(
      new Set(
        derived.parts
          .filter((part) => part.unit === null && part.of !== undefined)
          .filter((part) => part.role !== 'door-panel' && part.surface !== 'floor')
          .map((part) => part.of),
      ).size,
    );
  });
});

describe('a curtain that is wanted', () => {
  it('is bought: its track, brackets and cloth, and no other', () => {
    const book = startPriceBook();
    const hung = (curtains: string[]) =>
      derive({ ...wren.project, boxes: { ...wren.project.boxes, curtains } }, book).shopping.lines;
    expect(hung([]).some((line) => line.material.startsWith('curtain'))).toBe(false);
    const lines = hung(['o1']);
    // 800 and 100 beyond at each side is 1000 of track: half a length of 2 m, four brackets
    const of = (id: string) => lines.find((line) => line.material === id);
    expect(of('curtain-track')).toMatchObject({ amount: 1, quantity: 1 });
    expect(of('curtain-bracket')).toMatchObject({ amount: 4, quantity: 1 });
    // half as wide again as the track, hems of 150 on the longest drop
    const drop = Math.max(...(boxIn(plain)?.track?.hems ?? [0]));
    expect(of('curtain-cloth')?.amount).toBeCloseTo((1.5 * 1000 * (drop + 150)) / 1e6, 9);
  });

  it('hangs from the underside of what hangs lower over its window, and nowhere where something stands in its place', () => {
    const trackUnder = (from: number, to: number) => {
      const project = {
        ...wren.project,
        layout: {
          ...wren.project.layout,
          units: wren.project.layout.units.map((unit) =>
            unit.id === 'overhead-left' ? { ...unit, body: { ...unit.body, from, to } } : unit,
          ),
        },
      };
      const made = derive({ ...project, boxes: { ...project.boxes, curtains: ['o1'] } }, wren.priceBook);
      return {
        track: made.lined.windowBoxes.find(({ opening }) => opening === 'o1')?.track ?? null,
        cloth: made.shopping.lines.find(({ material }) => material === 'curtain-cloth')?.amount ?? 0,
        said: made.problems.some(({ said }) => said.key === 'curtain.noTrack'),
      };
    };
    // over the head of 1440 by more than the 60 of a track: no matter
    const high = trackUnder(1500, 1780);
    // lower, at 1430 above a floor of 47: the track comes down to its underside at 1477, 23 lower than it was
    const low = trackUnder(1430, 1780);
    expect(Math.max(...(high.track?.hems ?? [])) - Math.max(...(low.track?.hems ?? []))).toBeCloseTo(1500 - 1477, 6);
    expect(low.cloth).toBeGreaterThan(0);
    expect(low.said).toBe(false);
    // over the glass itself no track can be put up, and nothing is bought for one
    const before = trackUnder(1200, 1600);
    expect(before.track).toBeNull();
    expect(before.cloth).toBe(0);
    expect(before.said).toBe(true);
  });
});
