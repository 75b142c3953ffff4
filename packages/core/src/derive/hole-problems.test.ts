import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import type { Operation } from '../document/operation.js';
import type { Project } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { applyOperation } from '../furniture/kit.js';
import { derive } from './again.fixture.js';

const { project: wren, priceBook } = readProjectFile(wrenText);
const at = '2026-06-01T10:00:00.000Z';

/** A decided hole with its place and size read. */
const hole = (
  id: string,
  surface: Project['survey']['penetrations'][number]['surface'],
  x: number,
  along: number,
  size = 60,
): Operation[] => [
  {
    name: 'putPenetration',
    payload: { penetration: { id, name: id, surface, purpose: 'other', decided: true, sealing: 'sleeve' } },
  },
  ...(
    [
      ['x', x],
      ['along', along],
      ['size', size],
    ] as const
  ).map(([what, value]): Operation => ({
    name: 'takeReading',
    payload: { address: `hole/${id}/${what}`, reading: { value, method: 'tape', at } },
  })),
];
const told = (...operations: Operation[]): string[] => {
  const project = operations.reduce((before, operation) => applyOperation(before, operation).project, wren);
  return derive(project, priceBook)
    .problems.filter(({ place }) => /^hole\/(a|b)\//.test(place))
    .map(({ said }) => said.key);
};
const { ribs, subfloor, shell } = derive(wren, priceBook);
if (!subfloor || !shell) throw new Error('a floor');
const rib = ribs.on.left.ribs[1];
const between = ribs.on.left.gaps[0];
if (!rib || !between) throw new Error('ribs');
const free = (between.from + between.to) / 2;

describe('a hole', () => {
  it('between the ribs of a wall says nothing; on one of them it does, and on the roof too', () => {
    expect(told(...hole('a', 'left', free, 350))).toEqual([]);
    expect(told(...hole('a', 'left', rib.x + 40, 1000))).toContain('penetration.rib');
    expect(told(...hole('a', 'ceiling', rib.x, 300))).toContain('penetration.rib');
    expect(told(...hole('a', 'ceiling', free, 300))).not.toContain('penetration.rib');
  });
  it('of the floor is held against its own ribs', () => {
    const beam: Operation[] = [
      { name: 'putRib', payload: { rib: { id: 'f1', name: 'Cross beam', on: 'floor', flat: true } } },
      ...(['x', 'width'] as const).map((what): Operation => ({
        name: 'takeReading',
        payload: {
          address: `rib/f1/${what}`,
          reading: { value: what === 'x' ? 3300 : 60, method: 'tape', at },
        },
      })),
    ];
    expect(told(...beam, ...hole('a', 'floor', 3300 + 55, 0))).toContain('penetration.rib');
    expect(told(...beam, ...hole('a', 'floor', 3300 + 65, 0))).not.toContain('penetration.rib');
  });
  it('past the end of its surface is said', () => {
    expect(told(...hole('a', 'floor', 1000, 1200))).toContain('penetration.outside');
    expect(told(...hole('a', 'left', shell.length + 50, 500))).toContain('penetration.outside');
    expect(told(...hole('a', 'right', 1100, 2500))).toContain('penetration.outside');
  });
  it('too near to another, or to the edge of the board, is said with what is left', () => {
    expect(told(...hole('a', 'floor', 1500, 0), ...hole('b', 'floor', 1500, 95))).toContain('penetration.near');
    expect(told(...hole('a', 'floor', 1500, 0), ...hole('b', 'floor', 1500, 101))).not.toContain('penetration.near');
    // the same place on another surface is no neighbour
    expect(told(...hole('a', 'floor', 1500, 0), ...hole('b', 'ceiling', 1500, 0))).not.toContain('penetration.near');
    const edge = Math.min(...subfloor.outline.outer.filter(([x]) => Math.abs(x - 1500) < 100).map(([, y]) => y));
    expect(told(...hole('a', 'floor', 1500, edge + 50))).toContain('penetration.edge');
  });
  it('in a window is said', () => {
    const window = wren.survey.openings.find(({ kind, surface }) => kind === 'window' && surface === 'left');
    const read = (what: string): number =>
      wren.survey.readings[`opening/${window?.id ?? ''}/${what}`]?.at(-1)?.value ?? 0;
    const [x, z] = [(read('from') + read('to')) / 2, (read('sill') + read('head')) / 2];
    expect(told(...hole('a', 'left', x, z))).toContain('penetration.opening');
  });
  it('under a board of a unit is said, and beside it is not', () => {
    const kitchen = wren.layout.units.find(({ id }) => id === 'kitchen');
    if (!kitchen) throw new Error('a kitchen');
    expect(told(...hole('a', 'floor', kitchen.body.x + 7, -600))).toContain('penetration.board');
    expect(told(...hole('a', 'floor', kitchen.body.x + 150, -600))).not.toContain('penetration.board');
  });
  it('that is decided has no seam and no timber of the floor in it, in whatever way the board is cut', () => {
    const [seam] = subfloor.seams;
    if (!seam) throw new Error('a seam');
    const place: readonly [number, number] = seam.direction === 'across' ? [seam.at, 30] : [1500, seam.at];
    // in equal pieces no way misses it, and that is said; with whole ones and a rest there is one
    expect(told(...hole('a', 'floor', place[0], place[1]))).toContain('penetration.seam');
    const cheapest: Operation = { name: 'changeFloor', payload: { changes: { cut: 'cheapest' } } };
    const project = [cheapest, ...hole('a', 'floor', place[0], place[1])].reduce(
      (now, operation) => applyOperation(now, operation).project,
      wren,
    );
    const after = derive(project, priceBook);
    const seams = after.subfloor?.seams ?? [];
    const across = seam.direction === 'across' ? place[0] : place[1];
    expect(seams.filter((own) => own.direction === seam.direction && Math.abs(own.at - across) < 32)).toEqual([]);
    for (const { x0, x1, y0, y1 } of after.floor.noggins)
      expect(x1 <= place[0] - 30 || x0 >= place[0] + 30 || y1 <= place[1] - 30 || y0 >= place[1] + 30).toBe(true);
  });
});
