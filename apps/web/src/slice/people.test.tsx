// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { createDeriver, sceneOf as rulesScene } from '@nestplank/core/derive';
import type { Operation, Project, Unit } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation, type Check, FAMILIES } from '@nestplank/core/furniture';
import { SITTING_SHARE } from '@nestplank/core/rules';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { foldOutFrame } from '../foldout/geometry.js';
import { FreeWidth } from '../stages/layout/FreeWidth.js';
import type { Scene } from '../state/scene.js';
import { look } from '../state/view.js';
import { speechFor } from '../words/speech.js';
import { People } from './People.js';

afterEach(cleanup);

const view = { scale: 1, at: (y: number, z: number): [number, number] => [y, -z] };
const plain = (text: string | null | undefined): number => Number((text ?? '').replace(/[^\d.-]/g, ''));

/** A length that a check names in its sentence, mm. */
const figure = (check: Check | undefined, name: string): number => {
  const value = check?.said.params[name];
  return typeof value === 'object' && 'mm' in value ? value.mm : NaN;
};

/** A demo after operations, as it is derived and as the rules see it. */
function demo(text: string, ...operations: Operation[]) {
  const { project: first, priceBook: book } = readProjectFile(text);
  const project = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, {
    ...first,
    settings: { ...first.settings, units: 'mm' },
  });
  const derived = createDeriver().derive(project, book);
  const scene: Scene = { project, book, shape: derived, derived, room: derived.inner, previewing: false };
  const world = rulesScene(project, derived, book, FAMILIES);
  if (!world) throw new Error('there is no room');
  return {
    project,
    book,
    derived,
    scene,
    world,
    speech: speechFor(project.settings, (id) => project.layout.units.find((unit) => unit.id === id)?.name ?? null),
  };
}
/** What is said over the head of who is drawn in the slice at x. */
function saidAt(x: number, { derived, world, speech }: ReturnType<typeof demo>): { who: string; spare: number } | null {
  const { unmount } = render(
    <svg>
      <People scene={world} lying={derived.lying} x={x} view={view} speech={speech} />
    </svg>,
  );
  const label = screen.queryByRole('img', { name: /: / })?.getAttribute('aria-label') ?? null;
  unmount();
  const [, who = '', rest = ''] = /^(.*): (.*)$/.exec(label ?? '') ?? [];
  return label === null ? null : { who, spare: plain(rest.replace('\u2212', '-')) };
}
const box = (more: Partial<Unit['body']>): Operation => ({
  name: 'placeUnit',
  payload: {
    unit: {
      id: 'box',
      family: 'plain-box',
      name: 'Box',
      body: { stands: 'free', x: 0, length: 400, y: -300, width: 600, from: 1400, to: 1600, ...more } as Unit['body'],
      meets: {},
      division: { name: 'inside', holds: { kind: 'open' }, front: { kind: 'none' } },
      school: 'plywood',
      materials: {},
      options: {},
    },
  },
});

describe('who sits up in bed at the slice', () => {
  it.each([
    ['Wren', wrenFile],
    ['Bulrush', bulrushFile],
    ['Thimble', thimbleFile],
  ])('%s: has over the head what the rule judges by', (_name, text) => {
    const own = demo(text);
    let seen = 0;
    for (const { unit, sleepers, along } of own.derived.lying) {
      // the slice shows the first bed it goes through
      sleepers.forEach((id, i) => {
        const x = unit.body.x + ((i + 0.5) * unit.body.length) / sleepers.length;
        if (along === 'x' && i > 0) return;
        const first = own.derived.lying.find(
          (place) =>
            place.sleepers.length > 0 && x >= place.unit.body.x && x <= place.unit.body.x + place.unit.body.length,
        );
        const check = own.derived.checks.find((one) => one.id === `sitting-up:${unit.id}:${id}`);
        const person = own.project.people.find((one) => one.id === id);
        if (first?.unit.id !== unit.id || !check || !person) return;
        const sitting = person.sittingHeight ?? SITTING_SHARE * person.stature;
        const said = saidAt(x, own);
        expect(said?.who).toBe(person.name);
        expect(said?.spare).toBe(Math.round(figure(check, 'clear') - sitting));
        seen += 1;
      });
    }
    expect(seen).toBeGreaterThan(0);
  });

  it('has less where a box hangs over all of the bed, by what it hangs lower than the roof', () => {
    const bare = demo(wrenFile);
    const bed = bare.project.layout.units.find(({ id }) => id === 'bed');
    if (!bed) throw new Error('there is no bed');
    const over = box({ x: bed.body.x, length: bed.body.length, y: -1000, width: 2000, from: 1500, to: 1600 } as never);
    const own = demo(wrenFile, over);
    const x = bed.body.x + bed.body.length * 0.75;
    const sleeper = own.project.people.find(({ name }) => name === saidAt(x, own)?.who);
    const sitting = sleeper?.sittingHeight ?? SITTING_SHARE * (sleeper?.stature ?? NaN);
    const mattress = Number(bed.options['mattress']);
    expect(saidAt(x, own)?.spare).toBe(Math.round(1500 - bed.body.to - 0.85 * mattress - sitting));
    expect(saidAt(x, bare)?.spare).toBeGreaterThan(saidAt(x, own)?.spare ?? NaN);
  });
});

describe('who stands at the slice', () => {
  it('has over the head what hangs there, not only the roof', () => {
    const free = demo(wrenFile);
    const own = demo(wrenFile, box({ x: 1000, length: 400, y: -400, width: 1200, from: 1650, to: 1750 } as never));
    const tallest = Math.max(...own.project.people.map(({ stature }) => stature));
    expect(saidAt(1200, own)?.spare).toBe(Math.round(1650 - tallest));
    expect(saidAt(1200, free)?.spare).toBeGreaterThan(0);
    // and is judged by it
    const lowest = (of: typeof own) =>
      figure(
        of.derived.checks.find(({ rule }) => rule === 'standing-height'),
        'height',
      );
    expect(lowest(own)).toBeCloseTo(1650, 6);
    expect(lowest(free)).toBeGreaterThan(1700);
  });
});

describe('the free width at the slice', () => {
  const widthAt = (x: number, { scene, derived }: ReturnType<typeof demo>): number => {
    if (!derived.inner) throw new Error('there is no room');
    look({ sliceX: x });
    const { container, unmount } = render(
      <svg>
        <FreeWidth frame={foldOutFrame(derived.inner, 900, 500)} scene={scene} />
      </svg>,
    );
    const text = container.querySelector('text')?.textContent;
    unmount();
    return plain(text);
  };
  it('is the way that is judged where it is narrowest', () => {
    for (const text of [wrenFile, bulrushFile]) {
      const own = demo(text);
      const way = own.derived.checks.find(({ id }) => id === 'way');
      expect(figure(way, 'width')).toBeGreaterThan(0);
      expect(widthAt(way?.x ?? NaN, own)).toBe(Math.round(figure(way, 'width')));
    }
  });
  it('ends at a table that stands in the way, and not at what hangs over it', () => {
    const free = demo(wrenFile);
    const between = widthAt(1845, free);
    const table = box({ x: 1700, length: 300, y: -150, width: 200, from: 0, to: 700 } as never);
    const own = demo(wrenFile, table);
    expect(widthAt(1845, own)).toBeLessThan(between - 200);
    const high = demo(wrenFile, box({ x: 1700, length: 300, y: -150, width: 200, from: 1600, to: 1700 } as never));
    expect(widthAt(1845, high)).toBe(between);
  });
  it('is narrower beside a wheel arch that stands free, on the drawing as in the check', () => {
    const { project } = demo(wrenFile);
    const away = project.layout.units.map(({ id }): Operation => ({ name: 'removeUnit', payload: { id } }));
    const kitchen = project.layout.units.find(({ id }) => id === 'kitchen');
    const arch = demo(wrenFile).derived.arches.find(({ side }) => side === 'right');
    if (!kitchen || !arch || kitchen.body.stands !== 'left') throw new Error('Wren has a kitchen and arches');
    const x = Math.round(arch.from) + 50;
    const own = demo(wrenFile, ...away, {
      name: 'placeUnit',
      payload: { unit: { ...kitchen, body: { ...kitchen.body, x, length: 500, front: 100 } } },
    });
    const before = -100 + Number(kitchen.options['overhang']);
    const way = own.derived.checks.find(({ id }) => id === 'way');
    expect(figure(way, 'width')).toBeCloseTo(arch.face - before, 6);
    expect(widthAt(x + 200, own)).toBe(Math.round(arch.face - before));
  });
});
