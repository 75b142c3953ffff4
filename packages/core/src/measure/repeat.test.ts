import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import type { Operation } from '../document/operation.js';
import type { Project } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { applyOperation } from '../furniture/kit.js';
import { placedOpenings } from '../shell/openings.js';
import { roofClashes } from '../shell/on-roof.js';
import { holeClearances } from './cover-gate.js';
import { repeatOpening } from './repeat.js';

const { project: bulrush, priceBook } = readProjectFile(bulrushFile);
const { project: wren, priceBook: wrenBook } = readProjectFile(wrenFile);
const AT = '2026-10-02T08:00:00.000Z';
const after = (project: Project, operations: readonly Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation, priceBook).project, project);

describe('a row of equal windows', () => {
  const window = placedOpenings(bulrush.survey).find(
    ({ opening }) => opening.kind === 'window' && (opening.surface === 'left' || opening.surface === 'right'),
  );
  const id = window?.opening.id ?? '';
  const row = after(bulrush, repeatOpening(bulrush.survey, id, 3, 900, AT));

  it('has each one spacing farther on, at the same height and of the same kind', () => {
    const made = placedOpenings(row.survey).slice(-3);
    expect(made.map(({ from }) => from - (window?.from ?? 0))).toEqual([900, 1800, 2700]);
    for (const own of made) {
      expect(own.to - own.from).toBeCloseTo((window?.to ?? 0) - (window?.from ?? 0), 9);
      expect([own.sill, own.head]).toEqual([window?.sill, window?.head]);
      expect({ ...own.opening, id: '', name: '' }).toEqual({ ...window?.opening, id: '', name: '' });
    }
    expect(new Set(row.survey.openings.map(({ name }) => name)).size).toBe(row.survey.openings.length);
  });

  it('is told as an estimate, and its glass is no wall', () => {
    const own = row.survey.openings.at(-1)?.id ?? '';
    expect(row.survey.readings[`opening/${own}/from`]?.at(-1)?.method).toBe('estimate');
    const glass = (project: Project): number => derive(project, priceBook).areas?.['glass'] ?? 0;
    const one = ((window?.to ?? 0) - (window?.from ?? 0)) * ((window?.head ?? 0) - (window?.sill ?? 0));
    expect(glass(row) - glass(bulrush)).toBeCloseTo((3 * one) / 1e6, 1);
  });

  it('is not made of what has no place, and does not run off', () => {
    expect(repeatOpening(bulrush.survey, 'none', 2, 900, AT)).toEqual([]);
    expect(repeatOpening(bulrush.survey, id, 60, 900, AT)).toEqual([]);
    expect(repeatOpening(bulrush.survey, id, 0, 900, AT)).toEqual([]);
  });
});

describe('what is on the roof', () => {
  const hatch = placedOpenings(wren.survey).find(({ opening }) => opening.surface === 'roof');
  if (!hatch) throw new Error('the demo has something in its roof');
  const rack = (from: number, on: 'floor' | 'roof' = 'roof'): Project =>
    after(wren, [
      { name: 'putKeepOut', payload: { keepOut: { id: 'rack', name: 'Rack foot', reason: 'beam', note: '', on } } },
      {
        name: 'takeReadings',
        payload: {
          stations: [],
          readings: Object.entries({ from, to: from + 60, left: hatch.sill, right: hatch.head }).map(
            ([what, value]) => ({
              address: `keepout/rack/${what}`,
              reading: { value, method: 'tape', at: AT },
            }),
          ),
        },
      },
    ]);

  it('is named where a hatch would be cut into it, and nowhere else', () => {
    expect(roofClashes(rack(hatch.to - 20).survey)).toEqual([
      { opening: hatch.opening.id, name: hatch.opening.name, against: 'Rack foot', over: 20 },
    ]);
    expect(roofClashes(rack(hatch.to + 1).survey)).toEqual([]);
    // what is under the floor is not on the roof
    expect(roofClashes(rack(hatch.to - 20, 'floor').survey)).toEqual([]);
    const { problems } = derive(rack(hatch.to - 20), wrenBook);
    expect(problems.find(({ said }) => said.key === 'opening.onRoof')?.place).toBe(`opening/${hatch.opening.id}/from`);
  });

  it('keeps holes through the ceiling off it, and not those through the floor', () => {
    const drilled = after(rack(2000), [
      {
        name: 'putPenetration',
        payload: {
          penetration: { id: 'vent', name: 'Vent', surface: 'ceiling', purpose: 'air', decided: true, sealing: 'ring' },
        },
      },
      {
        name: 'takeReadings',
        payload: {
          stations: [],
          readings: Object.entries({ x: 2100, along: (hatch.sill + hatch.head) / 2, size: 40 }).map(
            ([what, value]) => ({
              address: `hole/vent/${what}`,
              reading: { value, method: 'tape', at: AT },
            }),
          ),
        },
      },
    ]);
    // 2100 is 40 past the foot that ends at 2060; the hole is 20 about its middle
    expect(holeClearances(drilled.survey).find(({ hole }) => hole === 'vent')).toMatchObject({
      clear: 20,
      against: 'Rack foot',
    });
  });
});
