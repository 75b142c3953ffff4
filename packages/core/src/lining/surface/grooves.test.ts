import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { readProjectFile } from '../../formats/read.js';
import { partDxf, partSvg } from '../../formats/write.js';
import { derive } from '../../derive/again.fixture.js';
import { applyOperation } from '../../furniture/kit.js';
import type { LiningChoice, Lined, Project } from '../../document/schema.js';
import { say } from '../../words/say.js';
import type { Lining } from './lining.js';
import { packersOf } from '../fixing/packers.js';

const thimble = readProjectFile(thimbleFile);
const wren = readProjectFile(wrenFile);
type Groove = LiningChoice['groove'];
const grooved = (surfaces: readonly Lined[], groove: Partial<Groove>, more: Partial<LiningChoice> = {}): Project =>
  surfaces.reduce(
    (project, surface) =>
      applyOperation(project, {
        name: 'changeLining',
        payload: {
          surface,
          changes: { ...more, groove: { spacing: 120, depth: 1.5, width: 3, direction: 'upright', ...groove } },
        },
      }).project,
    thimble.project,
  );
const on = (project: Project, surface: Lined): Lining => {
  const found = derive(project, thimble.priceBook).lined.linings.find((lining) => lining.surface === surface);
  if (!found) throw new Error(`${surface} is not lined`);
  return found;
};

describe('grooves in sheets', () => {
  it('upright: evenly apart from end to end, the first strip like the last', () => {
    const { grooves, ground } = on(grooved(['left'], {}), 'left');
    if (!grooves) throw new Error('no grooves');
    for (let i = 1; i < grooves.at.length; i += 1)
      expect((grooves.at[i] ?? 0) - (grooves.at[i - 1] ?? 0)).toBeCloseTo(120, 6);
    expect(grooves.first).toBeCloseTo(grooves.last, 6);
    expect(grooves.first).toBeGreaterThanOrEqual(48);
    // 5 mm kept at both ends
    expect(grooves.first + grooves.last + 120 * (grooves.at.length - 1)).toBeCloseTo(ground.unrolled.length - 10, 6);
    expect(grooves).toMatchObject({ meetings: 0, problems: [], notes: [] });
  });

  it('level: meet at every seam and round the room, and run across the grain of standing sheets', () => {
    const project = grooved(['left', 'right'], { direction: 'level', spacing: 150 });
    const [left, right] = [on(project, 'left'), on(project, 'right')];
    expect(left.grooves?.at).toEqual(right.grooves?.at);
    expect(left.grooves?.meetings).toBe((left.grooves?.at.length ?? 0) * left.seams.length);
    const said = left.notes.map((note) => say(note)).join(' ');
    expect(said).toContain('run across the grain');
    expect(said).toContain(`meet at ${left.grooves?.meetings ?? 0} places over ${left.seams.length} seams`);
    // set out alone where the other wall has another spacing
    const alone = grooved(['left'], { direction: 'level', spacing: 150 });
    expect(on(alone, 'left').grooves?.at.length).toBe(left.grooves?.at.length);
  });

  it('are drawn on every panel at its own place, and left out where it is cut out', () => {
    const left = on(grooved(['left'], {}), 'left');
    const parts = left.parts.filter((part) => part.role === 'panel');
    const drawn = parts.flatMap((part) => part.marks?.grooves ?? []);
    // one stretch for each groove, two where a window or an arch comes between
    expect(drawn.length).toBeGreaterThanOrEqual(left.grooves?.at.length ?? 0);
    const window = left.ground.openings[0];
    expect(window).toBeDefined();
    const through = (left.grooves?.at ?? []).filter(
      (u) => Math.abs(u - (window?.middle[0] ?? 0)) < (window?.length ?? 0) / 2 - 40,
    );
    expect(through.length).toBeGreaterThan(2);
    // what runs through the window is in two, and nothing is in the window
    expect(drawn.length).toBeGreaterThanOrEqual((left.grooves?.at.length ?? 0) + through.length);
    for (const part of parts)
      for (const { from, to } of part.marks?.grooves ?? []) {
        // sheets stand up, so an upright groove runs along the part
        expect(from[1]).toBeCloseTo(to[1], 6);
        expect(Math.min(from[0], to[0])).toBeGreaterThan(-0.1);
      }
    const [panel] = parts;
    if (!panel) throw new Error('no panel');
    expect(partDxf(panel)).toContain('GROOVE');
    expect(partSvg(panel).match(/stroke-dasharray="1 2"/g)).toHaveLength(panel.marks?.grooves?.length ?? -1);
    const plain = on(grooved(['left'], { spacing: 0 }), 'left').parts.find((part) => part.role === 'panel');
    expect(plain && partDxf(plain)).not.toContain('GROOVE');
  });

  it('too deep or too wide are named', () => {
    const said = (groove: Partial<Groove>): string =>
      on(grooved(['left'], groove), 'left')
        .problems.map((problem) => say(problem))
        .join(' ');
    expect(said({ depth: 1.6 })).toBe('');
    expect(said({ depth: 2 })).toContain('A groove 2 deep splits the face');
    expect(said({ spacing: 10, width: 12 })).toContain('leave nothing between them');
  });

  it('never leave a sliver, whatever their spacing', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 60, max: 400 }),
        fc.constantFrom('level' as const, 'upright' as const),
        (spacing, direction) => {
          const { grooves } = on(grooved(['left'], { spacing, direction }, { sliver: 60 }), 'left');
          expect(Math.min(grooves?.first ?? 0, grooves?.last ?? 0)).toBeGreaterThanOrEqual(
            Math.min(60, 0.4 * spacing) - 1e-6,
          );
        },
      ),
      { numRuns: 25, seed: 11 },
    );
  });
});

describe('packers', () => {
  const { inner } = derive(wren.project, wren.priceBook);
  if (!inner) throw new Error('no room');
  const at = (u: number, name: string) => ({ name, u, width: 45, kind: 'rib' as const, lean: 0, v0: 0, v1: 9999 });

  it('fill what a support lies back behind the line from one neighbour to the other', () => {
    // Wren’s left wall bulges 7 mm into the room at 1900: that support stands before the line, and is let in
    const packers = packersOf(inner, 'left', [at(1400, 'a'), at(1900, 'b'), at(2400, 'c')]);
    expect(packers.map((packer) => packer.support)).toEqual(['b']);
    expect(packers[0]?.thickness).toBeLessThan(-4);
    expect(packers[0]?.thickness).toBeGreaterThan(-9);
    // and a support nobody could see the difference of is left as it is
    expect(packersOf(inner, 'left', [at(1000, 'a'), at(1100, 'b'), at(1200, 'c')])).toEqual([]);
  });

  it('are none in a box whose walls are straight', () => {
    const box = derive(thimble.project, thimble.priceBook);
    if (!box.inner) throw new Error('no room');
    expect(packersOf(box.inner, 'right', [at(500, 'a'), at(1500, 'b'), at(2500, 'c')])).toEqual([]);
  });
});
