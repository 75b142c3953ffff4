import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { Operation } from '../../document/operation.js';
import type { Project, Thing } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { applyOperation } from '../../furniture/kit.js';
import { boardBox } from '../../furniture/skeleton.js';
import { litresIn, slidOutOf } from '../../furniture/slid-inside.js';
import { say } from '../../words/say.js';

const { project, priceBook } = readProjectFile(wrenFile);
const box = project.things?.find(({ id }) => id === 'cold-chest-20');
/** Wren with a cold box of another size in the tray that slides out of its kitchen. */
function withBox(changes: Partial<Thing>): Project {
  if (!box) throw new Error('Wren has a cold box');
  return applyOperation(project, { name: 'putThing', payload: { thing: { ...box, ...changes } } }).project;
}
const noteIn = (of: Project) => derive(of, priceBook).checks.find(({ id }) => id === 'thing-fits:kitchen:cold');
const mended = (of: Project): Project =>
  (noteIn(of)?.mends[0]?.operations ?? []).reduce<Project>(
    (p, operation: Operation) => applyOperation(p, operation).project,
    of,
  );

describe('a thing in a tray that slides out, and what it passes', () => {
  const skeleton = derive(project, priceBook).made.find(({ unit }) => unit === 'kitchen')?.skeleton;
  const part = (name: string) => {
    const board = skeleton?.boards.find((one) => one.name === `cold.pull-out.${name}`);
    if (!board) throw new Error(`the tray has a ${name}`);
    return boardBox(board);
  };

  it('has the inside of the tray: the bay less its slides and sides, the slides less its ends', () => {
    const bay = skeleton?.bays?.find((one) => one.bay.name === 'cold')?.room;
    if (!bay) throw new Error('there is a bay');
    const wide = bay.x1 - bay.x0 - 2 * (12.7 + 15);
    expect(part('front').high[0] - part('front').low[0]).toBeCloseTo(wide, 6);
    expect(noteIn(withBox({ width: Math.floor(wide) }))?.grade).toBe('good');
    expect(noteIn(withBox({ width: Math.ceil(wide) }))).toMatchObject({ grade: 'fails' });
    // slides of 450 with two ends of 15
    expect(noteIn(withBox({ depth: 420 }))?.grade).toBe('good');
    const deep = noteIn(withBox({ depth: 421 }));
    expect(deep).toMatchObject({ grade: 'fails', spare: expect.closeTo(-1, 6) as number });
    expect(deep && say(deep.said)).toContain('too shallow');
  });

  it('stands on its bottom, and passes under the rail at the head of the carcass', () => {
    const rail = skeleton?.boards.find(({ name }) => name === 'rail-front');
    const high = (rail?.at ?? 0) - part('bottom').high[2];
    expect(high).toBeGreaterThan(600);
    expect(noteIn(withBox({ height: Math.floor(high) }))?.grade).toBe('good');
    expect(noteIn(withBox({ height: Math.ceil(high) + 1 }))).toMatchObject({ grade: 'fails' });
  });

  it('is mended by slides that are as long as it needs, a wider bay, a higher unit', () => {
    for (const changes of [{ depth: 440 }, { width: 330 }, { height: 760 }]) {
      const set = withBox(changes);
      expect(noteIn(set)?.grade, JSON.stringify(changes)).toBe('fails');
      expect(noteIn(mended(set))?.grade, JSON.stringify(changes)).toBe('good');
    }
  });

  it('takes the width that its tray needs where its bay is as wide as needed', () => {
    const unit = project.layout.units.find(({ id }) => id === 'kitchen');
    if (!unit || !('cut' in unit.division) || !box) throw new Error('the kitchen is divided');
    const own = derive(
      applyOperation(project, {
        name: 'replaceUnit',
        payload: {
          unit: { ...unit, division: { ...unit.division, sizes: [{ share: 1 }, 'as needed', 'as needed'] } },
        },
      }).project,
      priceBook,
    );
    const bay = own.made
      .find((one) => one.unit === 'kitchen')
      ?.skeleton?.bays?.find((one) => one.bay.name === 'cold')?.room;
    expect((bay?.x1 ?? 0) - (bay?.x0 ?? 0)).toBeCloseTo(box.width + 2 * (15 + 12.7), 6);
    expect(own.checks.find(({ id }) => id === 'thing-fits:kitchen:cold')?.grade).toBe('good');
  });

  it('counts for goods too: a drawer holds what goes between its sides, and as many litres', () => {
    const bay = skeleton?.bays?.find((one) => one.bay.name === 'under-cooker');
    if (!bay || !skeleton) throw new Error('there are drawers under the cooker');
    const [low, high] = slidOutOf(bay, skeleton.boards);
    const wide = bay.room.x1 - bay.room.x0 - 2 * (12.7 + 15);
    expect([low?.wide, high?.wide]).toEqual([expect.closeTo(wide, 6), expect.closeTo(wide, 6)]);
    // slides of 450 below and 500 above, two ends of 15
    expect([low?.deep, high?.deep]).toEqual([expect.closeTo(420, 6), expect.closeTo(470, 6)]);
    const inside = [low, high].reduce((sum, one) => sum + (one ? one.wide * one.deep * one.high : 0), 0) / 1e6;
    expect(litresIn(bay, skeleton.boards)).toBeCloseTo(inside, 9);
    const whole =
      ((bay.room.x1 - bay.room.x0) * ((bay.deepLow + bay.deepHigh) / 2) * (bay.room.z1 - bay.room.z0)) / 1e6;
    expect(inside).toBeLessThan(0.9 * whole);
    const kept = (length: number) =>
      derive(
        applyOperation(project, {
          name: 'putStored',
          payload: {
            stored: {
              id: 'tins',
              name: 'Tins',
              length,
              width: 300,
              height: 120,
              mass: 4,
              count: 1,
              turns: false,
              kept: { unit: 'kitchen', bay: 'under-cooker' },
            },
          },
        }).project,
        priceBook,
      ).checks.find(({ id }) => id === 'stored:tins');
    expect(kept(Math.floor(wide) - 5)?.grade ?? 'good').toBe('good');
    expect(kept(480)).toMatchObject({ grade: 'fails', spare: expect.closeTo(wide - 480 - 5, 6) as number });
  });
  it('of a bay is reached under the rail, and through half of it where panels slide before it', () => {
    const through = (front: 'none' | 'sliding') =>
      derive(
        applyOperation(project, {
          name: 'changeBay',
          payload: {
            id: 'bench',
            bay: 'bay-1',
            front: front === 'none' ? { kind: 'none' } : { kind: 'sliding', latch: true },
          },
        }).project,
        priceBook,
      ).made.find(({ unit }) => unit === 'bench')?.skeleton?.bays?.[0];
    const [open, slides] = [through('none'), through('sliding')];
    if (!open?.through || !slides?.through) throw new Error('the bench has a rail');
    const { x0, x1, z0, z1 } = open.room;
    expect(open.through).toEqual([x1 - x0, z1 - z0 - 15]);
    expect(slides.through).toEqual([(x1 - x0) / 2, z1 - z0 - 15]);
  });
});
