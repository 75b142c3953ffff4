import { describe, expect, it } from 'vitest';
import bulrushText from '../../../../demo/bulrush.json?raw';
import thimbleText from '../../../../demo/thimble.json?raw';
import wrenText from '../../../../demo/wren.json?raw';
import type { Project } from '../document/schema.js';
import { LINED } from '../lining/linings.js';
import { liningOn } from '../document/create.js';
import { readProjectFile } from '../formats/read.js';
import { packersUnder } from '../lining/fixing/batten-packers.js';
import type { WallBatten } from '../lining/fixing/wall-battens.js';
import { outlineArea, type Ring } from '../numeric/plane.js';
import { clipTo } from '../numeric/shapes.js';
import { materialOf } from '../materials/material.js';
import { derive } from './again.fixture.js';

/** A batten on the unrolled surface, as wide as it is. */
function ringOf({ u0, u1, v0, v1 }: WallBatten, width: number): Ring {
  const long = Math.hypot(u1 - u0, v1 - v0);
  const [a, b] = [((v1 - v0) / long) * (width / 2), ((u1 - u0) / long) * (width / 2)];
  return [
    [u0 - a, v0 + b],
    [u1 - a, v1 + b],
    [u1 + a, v1 - b],
    [u0 + a, v0 - b],
  ];
}

const withUndersize = (project: Project, undersize: number): Project => ({
  ...project,
  linings: Object.fromEntries(
    LINED.map((surface) => [surface, { ...liningOn(project.linings, surface), undersize }]),
  ) as Project['linings'],
});

describe.each([
  ['wren', wrenText],
  ['bulrush', bulrushText],
  ['thimble', thimbleText],
])('what stands behind the linings of %s', (_name, text) => {
  const { project, priceBook } = readProjectFile(text);
  it.each([0, 10, 40, 100])('stands in no opening, with %i left on', (undersize) => {
    const {
      lined: { linings },
    } = derive(withUndersize(project, undersize), priceBook);
    let looked = 0;
    for (const { surface, battens, ground, parts } of linings) {
      const stick = parts.find(({ role }) => role === 'noggin' || role === 'wall-batten');
      const width = materialOf(priceBook, stick?.material ?? '')?.width ?? 0;
      for (const batten of battens)
        for (const opening of ground.openings) {
          looked += 1;
          const met = clipTo({ outer: opening.real, holes: [] }, ringOf(batten, width));
          expect(
            met.reduce((sum, piece) => sum + outlineArea(piece), 0),
            `${surface}: ${batten.kind} at ${batten.u0} ${batten.v0} in ${opening.name}`,
          ).toBeLessThan(1);
        }
    }
    expect(looked).toBeGreaterThan(0);
  });
  it('stands on ribs, on packers that are parts, or on the skin', () => {
    const {
      lined: { linings },
      depths,
    } = derive(project, priceBook);
    for (const { surface, battens, parts, problems } of linings) {
      const depth = depths[surface];
      const floating = battens.filter(({ onRib }) => !onRib);
      const packers = parts.filter(({ role }) => role === 'packer');
      if (floating.length === 0 || (depth?.ribDepth ?? 0) <= 0) continue;
      const wanted = floating.reduce((sum, batten) => sum + packersUnder(batten).length, 0);
      // every place has its packer, unless the battens lie in the ribs' depth and touch the skin as they are
      const thick = parts.find(({ role }) => role === 'noggin' || role === 'wall-batten')?.thickness ?? 0;
      const laid = (depth?.layers ?? []).some(({ layer }) => layer.place === 'battens');
      expect(packers.length % Math.max(1, wanted), surface).toBe(0);
      expect(packers.length > 0, surface).toBe(laid || thick < (depth?.ribDepth ?? 0) - 3);
      expect(problems.map(({ key }) => key)).not.toContain('lining.packing');
    }
  });
});
