import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { sceneOf } from '../derive/scene-of.js';
import type { Operation } from '../document/operation.js';
import type { Person, Project, ProjectFile } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { FAMILIES } from '../furniture/families/index.js';
import { seatHeight } from '../furniture/families/seat.js';
import { freeUnitId } from '../furniture/family.js';
import { applyOperation } from '../furniture/kit.js';
import { walkThrough } from '../practice/accuracy.js';
import { sleepersAcross } from '../furniture/sleepers.js';
import { say } from '../words/say.js';
import { offeredIn } from './gap-offers.js';
import { gapsOf } from './gaps.js';

const wren = readProjectFile(wrenFile);
const bulrush = readProjectFile(bulrushFile);
const thimble = readProjectFile(thimbleFile);

/** A demo with nothing in it but what is offered best, one after the other. */
function furnished({ project: first, priceBook: book }: ProjectFile, ...families: string[]): Project {
  const bare = first.layout.units.reduce<Project>(
    (project, { id }) => applyOperation(project, { name: 'removeUnit', payload: { id } }, book).project,
    // an animal is laid somewhere else when its place is wanted
    { ...first, layout: { ...first.layout, dens: [] } },
  );
  return families.reduce((project, id) => {
    const family = FAMILIES.find((one) => one.id === id);
    const scene = sceneOf(project, derive(project, book), book, FAMILIES);
    if (!family || !scene) throw new Error(`there is no ${id}`);
    const free = freeUnitId(project.layout.units, family.words.noun);
    const start = {
      id: free.id,
      name: family.words.start,
      layout: project.layout,
      people: project.people,
      room: scene.inner,
      book,
    };
    const [best] = gapsOf(scene)
      .flatMap((gap) => offeredIn(family, gap, start, scene) ?? [])
      .sort((a, b) => b.fits - a.fits);
    if (!best) throw new Error(`no ${id} is offered`);
    return applyOperation(project, { name: 'placeUnit', payload: { unit: best.unit } }, book).project;
  }, bare);
}
const failing = (project: Project, { priceBook }: ProjectFile): string[] => {
  const { checks, problems } = derive(project, priceBook);
  const own = problems.filter(({ place }) => project.layout.units.some(({ id }) => place === id));
  return [
    // half a layout may lean to one side
    ...checks
      .filter(({ grade, id }) => grade === 'fails' && id !== 'balance')
      .map(({ id, said }) => `${id}: ${say(said)}`),
    ...own.map(({ place, said }) => `${place}: ${say(said)}`),
  ];
};

describe('what is offered one after the other', () => {
  it.each([
    ['Wren', wren, ['bed-platform', 'base-run', 'seat', 'table', 'high-cupboard']],
    ['Wren', wren, ['bed-along', 'seat', 'table', 'base-run', 'high-cupboard']],
    ['Wren', wren, ['wash-room', 'bed-platform', 'base-run', 'leaf-table']],
    ['Wren', wren, ['corner-seat', 'table', 'base-run', 'bed-on-rails']],
    ['Wren', wren, ['tilting-board', 'seat', 'base-run', 'high-cupboard', 'rack']],
    ['Wren', wren, ['slide-out-bed', 'base-run', 'tall-cupboard']],
    ['Bulrush', bulrush, ['bed-platform', 'wash-room', 'base-run', 'seat', 'table', 'high-cupboard', 'rack']],
    ['Bulrush', bulrush, ['partition', 'bed-along', 'base-run', 'seat', 'table']],
    ['Thimble', thimble, ['slide-out-bed', 'base-run', 'high-cupboard']],
  ] as const)('stands in %s without anything failing: %#', (_name, file, families) => {
    expect(failing(furnished(file, ...families), file)).toEqual([]);
  });
});

describe('where it is offered', () => {
  it('is in one line with its neighbour, and before no window where there is another place', () => {
    const project = furnished(wren, 'base-run', 'tall-cupboard', 'seat');
    const { checks } = derive(project, wren.priceBook);
    expect(checks.filter(({ rule, grade }) => rule === 'in-one-line' && grade !== 'good')).toEqual([]);
    expect(checks.filter(({ rule, grade }) => rule === 'glass-free' && grade !== 'good')).toEqual([]);
    // the seat stands beside the kitchen, and would have come out 8 before it
    const [kitchen, seat] = ['base-run', 'seat'].map((id) => project.layout.units.find(({ family }) => family === id));
    expect(seat && 'front' in seat.body && kitchen && 'front' in kitchen.body && seat.body.front).toBe(
      kitchen && 'front' in kitchen.body ? kitchen.body.front : null,
    );
  });
  it('is a bench whose front comes out of a sheet: along the grain where it is longer than a sheet is wide', () => {
    const begun = furnished(bulrush, 'corner-seat');
    const seat = begun.layout.units.find(({ family }) => family === 'corner-seat');
    if (!seat || seat.body.length < 1500) throw new Error('it is as long as it is usually made');
    // beside its wing of 520
    const length = 2100;
    const project = applyOperation(begun, {
      name: 'changeUnit',
      payload: { id: seat.id, changes: { length } },
    }).project;
    const { parts, problems } = derive(project, bulrush.priceBook);
    expect(problems.filter(({ place }) => place.startsWith(`${seat.id}.`))).toEqual([]);
    const panels = parts.filter(({ unit, role }) => unit === seat.id && role === 'panel-front');
    const widest = Math.max(...panels.map((part) => part.outline.outer.reduce((most, [x]) => Math.max(most, x), 0)));
    // its long side is along the sheet
    expect(widest).toBeGreaterThan(1500);
  });
  it('is a table that leaves the way free beside a wheel arch too', () => {
    const people = [
      { id: 'a', name: 'Ann', stature: 1650 },
      { id: 'b', name: 'Bo', stature: 1760 },
    ];
    const drawn = { ...walkThrough({ vehicle: 'van', seed: 6 }, 1, 0).project, people };
    const file = { ...wren, project: drawn };
    const project = furnished(file, 'bed-platform', 'base-run', 'seat', 'table');
    expect(derive(project, wren.priceBook).checks.find(({ id }) => id === 'way')?.grade).not.toBe('fails');
  });
  it('is opposite of nothing that stands free in the way, and its head can be made under a roof that falls away', () => {
    const people = [{ id: 'b', name: 'Bo', stature: 1760 }];
    const drawn = (vehicle: 'van' | 'trailer', seed: number) => ({
      ...wren,
      project: { ...walkThrough({ vehicle, seed }, 1, 0).project, people },
    });
    const trailer = drawn('trailer', 12);
    const opposite = derive(furnished(trailer, 'seat', 'seat', 'table', 'tall-cupboard'), wren.priceBook);
    expect(opposite.checks.find(({ id }) => id === 'way')?.grade).not.toBe('fails');
    const van = drawn('van', 18);
    const hung = derive(furnished(van, 'base-run', 'high-cupboard'), wren.priceBook);
    expect(hung.problems.filter(({ place }) => place.startsWith('high-cupboard'))).toEqual([]);
  });
  it('keeps off what is drawn out and opened, where there is another place', () => {
    const project = furnished(bulrush, 'slide-out-bed', 'leaf-table', 'stool');
    const { checks } = derive(project, bulrush.priceBook);
    expect(checks.filter(({ rule, grade }) => rule === 'room-to-move' && grade === 'fails')).toEqual([]);
  });
  it('is a partition whose door opens onto the way, past the wing of a seat', () => {
    const project = furnished(wren, 'corner-seat', 'table', 'partition');
    const { checks } = derive(project, wren.priceBook);
    expect(checks.find(({ id }) => id === 'way')?.grade).toBe('good');
    const across = project.layout.units.find(({ family }) => family === 'partition');
    if (!across) throw new Error('it was offered');
    // nobody stands in its door, which is lower than the room
    const standing = (at: Project) =>
      derive(at, wren.priceBook)
        .checks.filter(({ rule }) => rule === 'standing-height')
        .map(({ spare }) => spare);
    expect(standing(project)).toEqual(
      standing(applyOperation(project, { name: 'removeUnit', payload: { id: across.id } }, wren.priceBook).project),
    );
    // put back to the middle it is told, and opened again by one press
    const shut = applyOperation(
      project,
      { name: 'changeUnit', payload: { id: across.id, changes: { doorAt: -300, doorWidth: 600 } } },
      wren.priceBook,
    ).project;
    const note = derive(shut, wren.priceBook).checks.find(({ id }) => id === 'way');
    expect(note?.grade).toBe('fails');
    const [mend] = note?.mends ?? [];
    if (!mend) throw new Error('it can be mended');
    const opened = mend.operations.reduce((at, one) => applyOperation(at, one, wren.priceBook).project, shut);
    expect(derive(opened, wren.priceBook).checks.find(({ id }) => id === 'way')?.grade).toBe('good');
  });
});

describe('what suits the people from the start', () => {
  const grown: Person = { id: 'a', name: 'A', stature: 1800 };
  const child: Person = { id: 'b', name: 'B', stature: 1100 };
  it('is a seat for those who are grown, and for children where there is nobody else', () => {
    // 0.245 x 1800 + 25 less three quarters of 80
    expect(seatHeight([grown, child], 80)).toBe(406);
    expect(seatHeight([child], 80)).toBe(Math.round(0.245 * 1100 + 25 - 60));
  });
  it('is a bed across for those who fit there, and none where nobody does', () => {
    const { inner } = derive(wren.project, wren.priceBook);
    if (!inner) throw new Error('there is a room');
    const across = (...people: Person[]) => sleepersAcross(people, inner, 2400, 3600, 700, 100);
    expect(across(grown, { ...grown, id: 'c', stature: 2000 }, child)).toEqual(['b']);
    const some: Person = { ...grown, id: 'd', stature: 1700 };
    // two at most, in their order, without those who are too tall
    expect(across({ ...grown, stature: 2000 }, some, child, { ...some, id: 'e' })).toEqual(['d', 'b']);
    const offersOf = (project: Project) => {
      const scene = sceneOf(project, derive(project, thimble.priceBook), thimble.priceBook, FAMILIES);
      const bed = FAMILIES.find(({ id }) => id === 'bed-platform');
      if (!scene || !bed) throw new Error('there is a room');
      const start = {
        id: 'x',
        name: 'X',
        layout: project.layout,
        people: project.people,
        room: inner,
        book: thimble.priceBook,
      };
      return gapsOf(scene).flatMap((gap) => offeredIn(bed, gap, { ...start, room: scene.inner }, scene) ?? []);
    };
    const empty: Project = { ...thimble.project, layout: { units: [] } };
    expect(offersOf(empty)).toEqual([]);
    expect(offersOf({ ...empty, people: [child] }).length).toBeGreaterThan(0);
  });
  it('is as usual where nobody is entered yet, or children only', () => {
    for (const people of [[], [child]]) {
      const scene = sceneOf(wren.project, derive(wren.project, wren.priceBook), wren.priceBook, FAMILIES);
      if (!scene) throw new Error('there is a room');
      for (const family of FAMILIES) {
        const start = { id: 'x', name: 'X', layout: { units: [] }, people, room: scene.inner, book: wren.priceBook };
        const units = [
          family.start(start),
          ...gapsOf({ ...scene, units: [] }).flatMap((gap) => family.inGap?.(gap, start)?.unit ?? []),
        ];
        for (const { body } of units)
          for (const figure of Object.values(body))
            expect(figure, `${family.id} ${JSON.stringify(body)}`).not.toBeNaN();
        const [run] = units.filter((unit) => unit.family === 'base-run');
        expect(run?.body.to ?? 900).toBe(900);
      }
    }
  });
  it('is a worktop as high as the mend would put it', () => {
    const project = furnished(wren, 'base-run');
    const [unit] = project.layout.units;
    const { checks } = derive(project, wren.priceBook);
    const offers = checks.filter(({ rule }) => rule === 'worktop-height').flatMap(({ mends }) => mends);
    expect(checks.some(({ id }) => id.startsWith(`worktop:${unit?.id}`))).toBe(true);
    expect(offers.flatMap(({ operations }): Operation[] => [...operations])).toEqual([]);
  });
});
