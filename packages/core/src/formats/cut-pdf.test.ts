import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { likeBars } from './cut-pdf.js';
import { readProjectFile } from './read.js';

describe('bars that are cut alike', () => {
  it('are drawn once with their count: every bar in one group, the same lengths in each', () => {
    let saved = 0;
    for (const { project, priceBook } of [wrenFile, bulrushFile].map(readProjectFile))
      for (const plan of derive(project, priceBook).plans.filter(({ job }) => job.kind === 'bar')) {
        const groups = likeBars(plan.sheets);
        const letters = groups.flatMap(({ bars }) => bars.map(({ letter }) => letter));
        expect(new Set(letters).size).toBe(plan.sheets.length);
        expect(letters).toHaveLength(plan.sheets.length);
        for (const { bars } of groups) {
          const cut = bars.map(({ sheet }) => [
            sheet.length,
            ...[...sheet.placements].sort((a, b) => a.x - b.x).map(({ length }) => Math.round(length * 10)),
          ]);
          for (const own of cut) expect(own).toEqual(cut[0]);
        }
        // and no two groups could have been one
        const keys = groups.map(({ bars }) =>
          JSON.stringify(
            [...(bars[0]?.sheet.placements ?? [])]
              .sort((a, b) => a.x - b.x)
              .map(({ length, ends, turned, flipped }) => [Math.round(length * 10), ends, turned, flipped]),
          ),
        );
        expect(new Set(keys.map((key, i) => `${groups[i]?.bars[0]?.sheet.length} ${key}`)).size).toBe(groups.length);
        saved += plan.sheets.length - groups.length;
      }
    expect(saved).toBeGreaterThan(40);
  });
});
