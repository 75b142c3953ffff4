import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { Project } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { cross } from '../../parts/lay-flat.js';
import { blankOf, type Part, type Vector } from '../../parts/part.js';

const files = [wrenFile, bulrushFile, thimbleFile].map(readProjectFile);
/** Everything that can be boxed and trimmed. */
const full = (project: Project): Project => ({
  ...project,
  boxes: { ...project.boxes, arches: project.survey.arches.map(({ id }) => id), access: 'fixed' },
  floor: { ...project.floor, doorTrims: true, keepBack: 30 },
});
const all = files.map(({ project, priceBook }) => ({ project, derived: derive(full(project), priceBook) }));
const good = (part: Part): Vector => {
  const [x, y, z] = part.place.thick;
  return [0 - x, 0 - y, 0 - z];
};
const middle = (part: Part): Vector => {
  const { length, width } = blankOf(part);
  const { origin, along, across, thick } = part.place;
  return [0, 1, 2].map(
    (i) =>
      (origin[i] ?? 0) +
      (length / 2) * (along[i] ?? 0) +
      (width / 2) * (across[i] ?? 0) +
      (part.thickness / 2) * (thick[i] ?? 0),
  ) as unknown as Vector;
};

describe('the drawn face of a board', () => {
  it('is the one that is seen, for every part there is', () => {
    for (const { derived } of all)
      for (const part of derived.parts) {
        const { along, across, thick } = part.place;
        const seen = cross(along, across).map((value, i) => value + (thick[i] ?? 0));
        expect(Math.hypot(...seen)).toBeLessThan(1e-9);
      }
  });

  it('looks into a window from its four boards, and the boards lie inside its frame', () => {
    for (const { project, derived } of all)
      for (const box of derived.lined.windowBoxes) {
        const boards = box.parts.filter(({ role }) => role === 'reveal');
        const surface = project.survey.openings.find(({ id }) => id === box.opening)?.surface;
        const centre = boards
          .map(middle)
          .reduce<readonly number[]>(
            (sum, point) => sum.map((value, i) => value + (point[i] ?? 0) / boards.length),
            [0, 0, 0],
          );
        for (const board of boards) {
          const toCentre = centre.map((value, i) => value - (middle(board)[i] ?? 0));
          const looks = good(board).reduce((sum, value, i) => sum + value * (toCentre[i] ?? 0), 0);
          expect([board.id, looks > 0]).toEqual([board.id, true]);
        }
        // a sill's underside lies on the box's lower edge, the head's top on its upper one, and neither out of the frame
        const read = (what: string): number =>
          project.survey.readings[`opening/${box.opening}/${what}`]?.at(-1)?.value ?? NaN;
        expect(box.outside.sill).toBeGreaterThanOrEqual(read('sill'));
        expect(box.outside.head).toBeLessThanOrEqual(read('head'));
        const axis = surface === 'roof' ? 1 : 2;
        const sill = boards.find(({ number }) => number === 1);
        const head = boards.find(({ number }) => number === 2);
        if (sill) expect((sill.place.origin[axis] ?? 0) - sill.thickness).toBeCloseTo(box.outside.sill, 6);
        if (head) expect((head.place.origin[axis] ?? 0) + head.thickness).toBeCloseTo(box.outside.head, 6);
      }
  });

  it('looks into the room from trims, headers and arch boxes', () => {
    let count = 0;
    for (const { derived } of all)
      for (const part of derived.parts) {
        const [x, y, z] = good(part);
        const [, py] = middle(part);
        const floor = part.surface === 'floor' && part.role === 'trim';
        if (floor) expect([part.id, z]).toEqual([part.id, 1]);
        if (part.role === 'arch-top') expect([part.id, z]).toEqual([part.id, 1]);
        if (part.role === 'arch-side') expect([part.id, y * Math.sign(py) < 0]).toEqual([part.id, true]);
        if (part.role === 'arch-end') expect([part.id, Math.abs(x)]).toEqual([part.id, 1]);
        if (part.role === 'header') expect([part.id, z - y * -Math.sign(py) < 0]).toEqual([part.id, true]);
        if (floor || part.role.startsWith('arch') || part.role === 'header') count += 1;
      }
    expect(count).toBeGreaterThan(20);
  });
});
