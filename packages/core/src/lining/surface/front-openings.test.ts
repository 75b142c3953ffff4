import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import { describeAddress } from '../../document/address.js';
import type { Opening, Project } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { plainLayer } from '../../layers/buildup.js';
import { boxOf, outlineArea } from '../../numeric/plane.js';
import { faceToward } from '../../parts/hand.js';
import { say } from '../../words/say.js';

const { project: wren, priceBook } = readProjectFile(wrenFile);
const opening = (id: string, kind: Opening['kind'], more: Partial<Opening> = {}): Opening => ({
  id,
  name: id === 'fd' ? 'Way to the cab' : 'Cab window',
  kind,
  surface: 'front',
  cornerRadius: 0,
  swing: 'hinged',
  hand: 'left',
  slanted: false,
  framed: kind === 'window',
  ring: null,
  ...more,
});
const DOOR = { from: -100, to: 500, sill: 0, head: 1500 };
const WINDOW = {
  from: -700,
  to: -300,
  sill: 900,
  head: 1300,
  'frame-front-low': 20,
  'frame-front-high': 24,
  'frame-rear-low': 20,
  'frame-rear-high': 24,
};
/** Wren with a bulkhead that is lined, with a door and a window in it. */
function bulkhead(door: Record<string, number> = DOOR): Project {
  const reading = (value: number) => [{ value, method: 'tape' as const, at: '2026-10-02T08:00:00.000Z' }];
  const readings = [
    ...Object.entries(door).map(([what, value]) => [`opening/fd/${what}`, reading(value)] as const),
    ...Object.entries(WINDOW).map(([what, value]) => [`opening/fw/${what}`, reading(value)] as const),
  ];
  return {
    ...wren,
    buildUps: { ...wren.buildUps, front: [plainLayer('f1', 'poplar-5', 5, 'continuous')] },
    survey: {
      ...wren.survey,
      openings: [...wren.survey.openings, opening('fd', 'door'), opening('fw', 'window')],
      readings: { ...wren.survey.readings, ...Object.fromEntries(readings) },
    },
  };
}
const derived = derive(bulkhead(), priceBook);
const without = derive(
  {
    ...bulkhead(),
    survey: { ...bulkhead().survey, openings: wren.survey.openings },
  },
  priceBook,
);

describe('openings in the front end', () => {
  it('are left out of its area and its lining', () => {
    const holes = (600 * 1500 + 400 * 400) / 1e6;
    expect((without.areas?.['front'] ?? 0) - (derived.areas?.['front'] ?? 0)).toBeCloseTo(holes, 6);
    const pieces = (of: typeof derived) =>
      (of.lined.linings.find(({ surface }) => surface === 'front')?.pieces ?? []).reduce(
        (sum, { outline }) => sum + outlineArea(outline),
        0,
      ) / 1e6;
    expect(pieces(without)).toBeGreaterThan(1);
    // less what the window is cut smaller, and what the joints at other seams differ by
    expect(pieces(without) - pieces(derived)).toBeGreaterThan(holes * 0.93);
    expect(pieces(without) - pieces(derived)).toBeLessThan(holes * 1.03);
  });

  it('have a box and a panel like others, behind the finished face', () => {
    const box = derived.lined.windowBoxes.find(({ opening: id }) => id === 'fw');
    const sill = box?.parts.find(({ id }) => id === 'window-fw-sill');
    const left = wren.boxes.scribe ?? 0;
    // 20 of frame and 5 of lining, and what is left on to be scribed at both edges
    expect(boxOf(sill?.outline.outer ?? []).maxY).toBeCloseTo(25 + 2 * left, 6);
    expect(sill?.place.origin[0]).toBeLessThan(0);
    const panel = derived.lined.doors.panels.find(({ opening: id }) => id === 'fd');
    expect(panel?.length).toBeCloseTo(600 - 2 * wren.doorLining.inset, 6);
    expect(derived.floor.thresholds.find(({ id }) => id === 'fd')).toMatchObject({ before: 0 });
  });

  it('are asked for from the centre line, and named where they pass the wall', () => {
    expect(say(describeAddress(bulkhead().survey, 'opening/fd/from'))).toContain('Centre line to the left edge');
    const wide = derive(bulkhead({ ...DOOR, to: 2000 }), priceBook);
    expect(wide.problems.find(({ place }) => place === 'opening/fd/to')?.said.key).toBe('opening.pastWall');
    const high = derive(bulkhead({ ...DOOR, head: 2600 }), priceBook);
    expect(high.problems.find(({ place }) => place === 'opening/fd/head')?.said.key).toBe('opening.aboveRoof');
  });
});

describe('panels of doors', () => {
  it('are drawn as they are seen from the room, whichever way their door faces', () => {
    const left: Project = {
      ...bulkhead(),
      survey: {
        ...bulkhead().survey,
        openings: bulkhead().survey.openings.map((one) => (one.id === 'o3' ? { ...one, surface: 'left' } : one)),
      },
    };
    const toward = { left: 'right', right: 'left', rear: 'front', front: 'rear' } as const;
    for (const { lined, project } of [
      { lined: derived.lined, project: bulkhead() },
      { lined: derive(left, priceBook).lined, project: left },
    ])
      for (const panel of lined.doors.panels) {
        const surface = project.survey.openings.find(({ id }) => id === panel.opening)?.surface;
        for (const part of panel.parts) {
          expect([panel.opening, faceToward(part)]).toEqual([
            panel.opening,
            toward[surface === 'left' || surface === 'right' || surface === 'front' ? surface : 'rear'],
          ]);
          // its far corner is where the door is
          const box = boxOf(part.outline.outer);
          const { origin, along, across } = part.place;
          const corner = origin.map((o, i) => o + box.maxX * (along[i] ?? 0) + box.maxY * (across[i] ?? 0));
          const level = [origin, corner].map((point) =>
            surface === 'left' || surface === 'right' ? (point[0] ?? 0) : (point[1] ?? 0),
          );
          const read = (what: string): number =>
            project.survey.readings[`opening/${panel.opening}/${what}`]?.at(-1)?.value ?? NaN;
          expect(Math.min(...level)).toBeGreaterThanOrEqual(read('from') - 0.01);
          expect(Math.max(...level)).toBeLessThanOrEqual(read('to') + 0.01);
        }
      }
  });
});
