// @vitest-environment jsdom
import { cleanup, configure, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import * as THREE from 'three';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import type { ProjectFile } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { FAMILIES } from '@nestplank/core/furniture';
import type { Part } from '@nestplank/core/parts';
import {
  blockGeometry,
  furnitureIn,
  hangersOf,
  liningBodies,
  matrixOf,
  partGeometry,
  revealGeometry,
  skinGeometry,
  softsOf,
  tubeGeometry,
} from '@nestplank/solids';
import { sceneToSave } from '@nestplank/solids/room-file';
import type { Scene } from '../state/scene.js';
import { look, useView } from '../state/view.js';
import wrenFile from '../../../../demo/wren.json?raw';
import { animalLimbs, somebodyLimbs, type Limb } from './bodies.js';
import { eyesFrom, facesEye, lookOf, walked, type Eyes } from './eyes.js';
import { liningPiecesOf, piecesOf } from './pieces.js';
import type { RoomView } from './RoomDrawing.js';

// what is loaded when it is asked for takes its time on a busy machine
configure({ asyncUtilTimeout: 20_000 });

let drawn: RoomView | null = null;
vi.mock('./RoomDrawing.js', () => ({
  // there is nothing to draw on here: what it is given is looked at instead
  default: (view: RoomView) => {
    drawn = view;
    return <p>drawn</p>;
  },
}));
const { default: Room } = await import('./Room.js');

const wren: ProjectFile = readProjectFile(wrenFile);
function sceneOf({ project, priceBook: book }: ProjectFile): Scene {
  const derived = createDeriver().derive(project, book);
  return { project, book, shape: derived, derived, room: derived.inner, previewing: false };
}
const scene = sceneOf(wren);
const boxOf = (geometry: THREE.BufferGeometry): THREE.Box3 =>
  new THREE.Box3().setFromBufferAttribute(geometry.getAttribute('position') as THREE.BufferAttribute);
const ringArea = (ring: readonly (readonly [number, number])[]): number =>
  Math.abs(THREE.ShapeUtils.area(ring.map(([x, y]) => new THREE.Vector2(x, y))));
const outlineArea = ({ outer, holes }: Part['outline']): number =>
  ringArea(outer) - holes.reduce((sum, hole) => sum + ringArea(hole), 0);
/** Volume of a closed body, from the tetrahedra of its triangles to the origin: positive where its faces look outward. */
function volume(geometry: THREE.BufferGeometry): number {
  const flat = geometry.index ? geometry.toNonIndexed() : geometry;
  const at = flat.getAttribute('position');
  const corner = (i: number) => new THREE.Vector3().fromBufferAttribute(at, i);
  let sum = 0;
  for (let i = 0; i < at.count; i += 3) sum += corner(i).dot(corner(i + 1).cross(corner(i + 2))) / 6;
  return sum;
}

describe('a run in the round', () => {
  it('is as thick as it is from corner to corner, and nothing while it lies nowhere', () => {
    const run = { id: 'r', name: 'R', kind: 'water' as const, diameter: 20, from: null, to: null, via: [] };
    const body = tubeGeometry({
      run,
      points: [
        [0, 0, 100],
        [500, 0, 100],
        [500, 300, 100],
      ],
      length: 800,
      bends: 1,
      things: [],
    });
    if (!body) throw new Error('it lies');
    const { min, max } = boxOf(body);
    expect([min.x, max.y, min.z, max.z].map((value) => Math.round(value))).toEqual([0, 300, 90, 110]);
    expect(tubeGeometry({ run, points: [], length: 0, bends: 0, things: [] })).toBeNull();
  });
});

describe('what is drawn in the round', () => {
  const board: Pick<Part, 'outline' | 'place' | 'thickness'> = {
    outline: {
      outer: [
        [0, 0],
        [600, 0],
        [600, 400],
        [0, 400],
      ],
      holes: [
        [
          [100, 100],
          [100, 200],
          [200, 200],
          [200, 100],
        ],
      ],
    },
    thickness: 12,
    // lies level at 900, its good face up
    place: { origin: [1000, -300, 900], along: [1, 0, 0], across: [0, 1, 0], thick: [0, 0, -1] },
  };
  it('is a part where it is, as thick as it is, with its holes', () => {
    const body = partGeometry(board);
    const { min, max } = boxOf(body);
    expect([min.x, max.x, min.y, max.y, min.z, max.z].map(Math.round)).toEqual([1000, 1600, -300, 100, 888, 900]);
    expect(volume(body)).toBeCloseTo((600 * 400 - 100 * 100) * 12, 0);
  });
  it.each([
    [
      'two slots over each other',
      [
        [40, 40],
        [40, 240],
      ],
      [320, 30],
    ],
    [
      'two slots beside each other',
      [
        [40, 40],
        [340, 40],
      ],
      [120, 30],
    ],
    [
      'four in a row and a column',
      [
        [40, 40],
        [40, 140],
        [40, 240],
        [340, 40],
      ],
      [90, 40],
    ],
  ])('is a closed body with %s', (_what, corners, [wide = 0, high = 0]) => {
    const holes = corners.map(([x = 0, y = 0]): readonly (readonly [number, number])[] => [
      [x, y],
      [x + wide, y],
      [x + wide, y + high],
      [x, y + high],
    ]);
    const body = partGeometry({ ...board, outline: { outer: board.outline.outer, holes } });
    // every edge of a triangle is met once by another that runs the other way
    const places = body.getAttribute('position');
    const name = (i: number): string =>
      [places.getX(i), places.getY(i), places.getZ(i)].map((value) => Math.round(value * 100)).join(' ');
    const edges = new Map<string, number>();
    for (let i = 0; i < places.count; i += 3)
      for (const [a, b] of [
        [i, i + 1],
        [i + 1, i + 2],
        [i + 2, i],
      ] as const) {
        const [from, to] = [name(a), name(b)];
        if (from === to) continue;
        const [key, by] = from < to ? [`${from}|${to}`, 1] : [`${to}|${from}`, -1];
        edges.set(key, (edges.get(key) ?? 0) + by);
      }
    expect([...edges.values()].filter((count) => count !== 0)).toEqual([]);
  });
  it('is every part of the furniture, no more and no less: the same volume as the parts have', () => {
    const parts = furnitureIn(scene.shape);
    const wanted = parts.reduce((sum, part) => sum + outlineArea(part.outline) * part.thickness, 0);
    for (const apart of [null, 'kitchen']) {
      const found = piecesOf(scene.shape, scene.book, apart).reduce((sum, { body }) => sum + volume(body), 0);
      expect(found / wanted).toBeCloseTo(1, 4);
    }
    expect(parts.filter(({ unit }) => unit !== null)).toHaveLength(
      scene.shape.parts.filter(({ unit }) => unit !== null).length,
    );
  });
  it('is what boards hang on too, where it stands, and is written with its unit', () => {
    const family = FAMILIES.find(({ id }) => id === 'bed-on-rails');
    const { inner } = scene.derived;
    if (!family || !inner) throw new Error('there is no bed on rails');
    const { project, priceBook } = wren;
    const bed = family.start({
      id: 'cot',
      name: 'Cot',
      layout: { units: [] },
      people: [],
      room: inner,
      book: priceBook,
    });
    const hung = sceneOf({ ...wren, project: { ...project, layout: { units: [bed] } } });
    const [{ unit, at } = { unit: '', at: [] }, ...none] = hangersOf(hung.shape);
    expect([unit, at.length, none]).toEqual(['cot', 8, []]);
    const drawnOnes = piecesOf(hung.shape, hung.book, null).find(({ id }) => id === 'cot|hangers');
    const wanted = at.reduce((sum, { x0, x1, y0, y1, z0, z1 }) => sum + (x1 - x0) * (y1 - y0) * (z1 - z0), 0);
    expect(volume(drawnOnes?.body ?? new THREE.BufferGeometry()) / wanted).toBeCloseTo(1, 4);
    const cot = sceneToSave(hung, {}).getObjectByName('Cot');
    expect(cot?.children.filter(({ name }) => name.startsWith('cot.hanger-'))).toHaveLength(8);
    expect(hangersOf(scene.shape)).toEqual([]);
  });
  it('turns faces of the vehicle inward, whichever way round they were given', () => {
    const facet = [
      [0, -900, 0],
      [1000, -900, 0],
      [1000, -900, 500],
      [0, -900, 500],
    ] as const;
    for (const given of [facet, [...facet].reverse()]) {
      const normals = skinGeometry([given], (x) => new THREE.Vector3(x, 0, 250)).getAttribute('normal');
      expect(normals.getY(0)).toBeCloseTo(1, 6);
    }
  });
  it('moves as the core says: a quarter turn about an upright axis at 500, 300', () => {
    const moved = new THREE.Vector3(900, 300, 50).applyMatrix4(
      matrixOf({ axis: 'z', about: [500, 300, 0], turn: Math.PI / 2, by: [0, 0, 10] }),
    );
    expect(moved.toArray().map(Math.round)).toEqual([500, 700, 60]);
  });
});

describe('the boards of a lining', () => {
  it('are drawn all, in as few bodies as can be hidden apart', () => {
    const boards = liningBodies(scene.shape).reduce((sum, { body }) => sum + volume(body), 0);
    const pieces = liningPiecesOf(scene.shape, scene.book);
    expect(pieces.reduce((sum, { body }) => sum + volume(body), 0) / boards).toBeCloseTo(1, 6);
    expect(new Set(pieces.map(({ surface }) => surface))).toEqual(new Set(['left', 'right', 'ceiling', 'rear', null]));
    expect(pieces.length).toBeLessThan(20);
  });
});

describe('the joints of a lining', () => {
  const { room } = scene;
  if (!room) throw new Error('there is a room');
  const seen = (x: number, y: number, z: number) =>
    (['left', 'right', 'ceiling', 'front', 'rear'] as const).filter((surface) => facesEye(surface, { x, y, z }, room));
  it('are all seen from within', () => {
    expect(seen(1500, 0, room.floor + 1500)).toEqual(['left', 'right', 'ceiling', 'front', 'rear']);
  });
  it('are not seen from behind: not those of the wall, the roof or the end one stands beyond', () => {
    expect(seen(1500, -3000, room.floor + 1000)).toEqual(['right', 'ceiling', 'front', 'rear']);
    expect(seen(1500, 3000, room.floor + 1000)).toEqual(['left', 'ceiling', 'front', 'rear']);
    expect(seen(-2500, -3000, room.floor + 4000)).toEqual(['right', 'rear']);
    expect(seen(room.length + 2500, 0, room.floor + 1000)).toEqual(['left', 'right', 'ceiling', 'front']);
  });
});

describe('walking', () => {
  const eyes: Eyes = { at: [1000, 0, 1550], turn: 0, nod: 0 };
  it('goes to the rear with the rear ahead, and aside to the right hand', () => {
    expect(walked(eyes, 'ArrowUp').to).toEqual([1100, 0]);
    expect(walked(eyes, 'ArrowDown').to).toEqual([900, 0]);
    // who looks to the rear has the vehicle's left at the right hand
    expect(walked(eyes, '.').to[1]).toBeCloseTo(-100, 6);
    expect(walked(eyes, ',').to[1]).toBeCloseTo(100, 6);
  });
  it('turns to the right hand, nods no further than a neck does', () => {
    const turned = { ...eyes, turn: walked(eyes, 'ArrowRight').turn };
    expect(lookOf(turned)[1]).toBeLessThan(0);
    expect(walked({ ...eyes, nod: 1.39 }, 'PageUp').nod).toBe(1.4);
  });
  it('begins to look the way a seat looks', () => {
    const from = eyesFrom({ posture: 'sits', unit: 's', eyes: [1, 2, 3], looks: [0, -1, 0] });
    expect(lookOf(from).map((v) => Math.round(v))).toEqual([0, -1, 0]);
  });
});

describe('the file for other programs', () => {
  it('has every part under its unit, in metres with y up, as it is moved', () => {
    const root = sceneToSave(scene, {});
    root.updateMatrixWorld(true);
    const names: string[] = [];
    root.traverse((node) => names.push(node.name));
    for (const unit of scene.project.layout.units) expect(names).toContain(unit.name);
    for (const part of scene.shape.parts.filter(({ unit }) => unit !== null)) expect(names).toContain(part.id);
    for (const surface of ['left', 'right', 'roof', 'floor', 'front', 'rear']) expect(names).toContain(surface);
    const size = new THREE.Box3().setFromObject(root).getSize(new THREE.Vector3());
    const room = scene.room;
    if (!room) throw new Error('Wren has a room');
    expect(size.x).toBeCloseTo((room.length - room.start) / 1000, 1);
    expect(size.y).toBeGreaterThan(1.5);
    expect(size.y).toBeLessThan(2.2);
    const door = scene.shape.made
      .flatMap(({ skeleton }) => skeleton?.motions ?? [])
      .find(({ kind }) => kind === 'hinge');
    if (!door) throw new Error('Wren has a door');
    const where = (states: Record<string, number>) => {
      const saved = sceneToSave(scene, states);
      saved.updateMatrixWorld(true);
      const node = saved.getObjectByName(door.of);
      if (!node) throw new Error('the door is in it');
      return new THREE.Box3().setFromObject(node).getCenter(new THREE.Vector3());
    };
    expect(where({ [door.of]: 1 }).distanceTo(where({}))).toBeGreaterThan(0.1);
  });
});

describe('what is soft, and what a lining is thick', () => {
  const seat = FAMILIES.find(({ id }) => id === 'seat');
  const { inner } = scene.derived;
  if (!seat || !inner) throw new Error('there is no seat');
  const { project, priceBook: book } = wren;
  const unit = seat.start({
    id: 'sofa',
    name: 'Sofa',
    layout: project.layout,
    people: project.people,
    room: inner,
    book,
  });
  const seated = sceneOf({ ...wren, project: { ...project, layout: { units: [unit] } } });
  const named = (of: Scene, states: Record<string, number> = {}): string[] => {
    const names: string[] = [];
    sceneToSave(of, states).traverse((node) => names.push(node.name));
    return names;
  };
  it('lies in the file under its unit, and an edge of the lining in every opening that is measured', () => {
    const names = named(scene);
    expect(names).toContain('bed.mattress');
    const reveals = names.filter((name) => name.endsWith('.reveal'));
    expect(reveals.length).toBeGreaterThan(2);
    for (const name of reveals) expect(scene.project.survey.openings.map(({ id }) => `${id}.reveal`)).toContain(name);
  });
  it('is taken off what is lifted under it, and lies there again once that is shut', () => {
    const lidded = softsOf(seated).find(({ under }) => under.length > 0);
    const [lid] = lidded?.under ?? [];
    if (!lidded || lid === undefined) throw new Error('the seat has a lid');
    expect(named(seated)).toContain(lidded.id);
    expect(named(seated, { [lid]: 0.5 })).not.toContain(lidded.id);
    expect(named(seated, { [lid]: 0 })).toContain(lidded.id);
  });
  it('is a block as large as it is', () => {
    const box = { x0: 10, x1: 110, y0: -40, y1: 20, z0: 5, z1: 15 };
    const body = blockGeometry(box);
    expect(volume(body)).toBeCloseTo(100 * 60 * 10, 3);
    expect(boxOf(body).min.toArray()).toEqual([10, -40, 5]);
  });
  it('an edge looks into its opening', () => {
    const middle = [50, 0, 50] as const;
    const ring: readonly (readonly [number, number])[] = [
      [0, 0],
      [100, 0],
      [100, 100],
      [0, 100],
    ];
    const facets = ring.map(([x, z], i) => {
      const [nextX, nextZ] = ring[(i + 1) % 4] ?? [0, 0];
      return [
        [x, 0, z],
        [nextX, 0, nextZ],
        [nextX, 20, nextZ],
        [x, 20, z],
      ] as const;
    });
    const geometry = revealGeometry({ facets, middle });
    const [at, normal] = ['position', 'normal'].map((name) => geometry.getAttribute(name)) as [
      THREE.BufferAttribute,
      THREE.BufferAttribute,
    ];
    for (let i = 0; i < at.count; i += 1) {
      const inward = new THREE.Vector3(...middle).sub(new THREE.Vector3().fromBufferAttribute(at, i));
      expect(new THREE.Vector3().fromBufferAttribute(normal, i).dot(inward)).toBeGreaterThan(0);
    }
  });
});

describe('the panel', () => {
  const user = userEvent.setup();
  beforeEach(() => {
    drawn = null;
    look({ unit: null, mode: null, room: 'full' });
    window.matchMedia ??= () => ({ matches: false }) as MediaQueryList;
  });
  afterEach(cleanup);
  const see = async (option: RegExp): Promise<void> => {
    await user.click(screen.getByRole('combobox', { name: 'Seen' }));
    await user.click(screen.getByRole('option', { name: option }));
  };

  it('is seen from outside first, then with the eyes of one who stands in it and walks by the keys', async () => {
    render(<Room scene={scene} />);
    await screen.findByText('drawn');
    expect(drawn?.eyes).toBeNull();
    await see(/standing/);
    const first = drawn?.eyes?.at;
    const tall = scene.project.people[0]?.stature ?? 0;
    expect(first?.[2]).toBeCloseTo((scene.room?.floor ?? 0) + 0.936 * tall, 3);
    expect(screen.getByText(/above the head/)).toBeTruthy();
    const place = screen.getByRole('application');
    fireEvent.keyDown(place, { key: 'ArrowUp' });
    expect((drawn?.eyes?.at[0] ?? 0) - (first?.[0] ?? 0)).toBeCloseTo(100, 6);
    // towards the rear stands the bed: one does not walk through it
    for (let step = 0; step < 40; step += 1) fireEvent.keyDown(place, { key: 'ArrowUp' });
    expect(screen.getByText(/in the way there/)).toBeTruthy();
    expect(drawn?.eyes?.at[0]).toBeLessThan(scene.room?.length ?? 0);
  });
  it('opens what moves of the chosen unit, by name, over the mode that is shown', async () => {
    const unit = scene.project.layout.units.find(({ id }) =>
      scene.shape.made.some((made) => made.unit === id && (made.skeleton?.motions ?? []).length > 1),
    );
    if (!unit) throw new Error('something moves');
    look({ unit: unit.id });
    render(<Room scene={scene} />);
    await screen.findByText('drawn');
    const buttons = within(screen.getByRole('group', { name: `Open and shut: ${unit.name}` })).getAllByRole('button');
    // no two of them are called the same
    expect(new Set(buttons.map(({ textContent }) => textContent)).size).toBe(buttons.length);
    const [button] = buttons;
    if (!button) throw new Error('it has a button');
    await user.click(button);
    expect(Object.values(drawn?.states ?? {}).filter((share) => share === 1)).toHaveLength(1);
    await user.click(button);
    expect(Object.values(drawn?.states ?? {}).every((share) => share === 0)).toBe(true);
  });
  it('draws the boards of the lining when they are asked for', async () => {
    render(<Room scene={scene} />);
    await screen.findByText('drawn');
    expect(drawn?.lined).toBe(false);
    await user.click(screen.getByRole('button', { name: 'Linings' }));
    expect(drawn?.lined).toBe(true);
  });
  it('is cut away at the slice, and takes the chosen unit apart', async () => {
    look({ unit: 'kitchen', sliceX: 1500 });
    render(<Room scene={scene} />);
    await screen.findByText('drawn');
    await user.click(screen.getByRole('button', { name: 'cut: rear stays' }));
    expect(drawn?.cut).toEqual({ x: 1500, keeps: 'rear' });
    fireEvent.change(screen.getByRole('slider', { name: 'taken apart' }), { target: { value: 0.5 } });
    expect(drawn?.apart).toBe(0.5);
    drawn?.onUnit('bed');
    expect(useView.getState().unit).toBe('bed');
  });
});

describe('bodies in the round', () => {
  const extent = (limbs: readonly Limb[], axis: 0 | 1 | 2): readonly [number, number] => [
    Math.min(...limbs.map(({ from, to, radius }) => Math.min(from[axis], to[axis]) - radius)),
    Math.max(...limbs.map(({ from, to, radius }) => Math.max(from[axis], to[axis]) + radius)),
  ];
  const pet = { id: 'wool', name: 'Wool', length: 650, width: 200, height: 560 };

  it('stand on the floor, as tall as they are', () => {
    const limbs = somebodyLimbs({ id: 'a', name: 'A', stature: 1800 }, [1000, -200, 40]);
    const [low, high] = extent(limbs, 2);
    expect([low, high].map(Math.round)).toEqual([40, 1840]);
    const [left, right] = extent(limbs, 1);
    expect((left + right) / 2).toBeCloseTo(-200, 6);
  });
  it('lie on what they lie on, the nose to the front or to the left, with no limb under it', () => {
    const along = animalLimbs({ pet, room: { x: 2000, y: 100, foot: 55, turned: false } });
    const across = animalLimbs({ pet, room: { x: 2000, y: 100, foot: 55, turned: true } });
    for (const limbs of [along, across]) expect(extent(limbs, 2)[0]).toBeCloseTo(55, 6);
    // the nose is half of its length before the middle
    expect(extent(along, 0)[0]).toBeLessThan(2000 - 325 + 40);
    expect(extent(across, 1)[0]).toBeLessThan(100 - 325 + 40);
    // the trunk is as broad as it is
    const [near, far] = extent([along[along.length - 2] as Limb], 1);
    expect(far - near).toBeCloseTo(200, 6);
  });
});
