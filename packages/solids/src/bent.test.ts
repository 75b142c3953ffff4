import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { derive } from '@nestplank/core/derive';
import { readProjectFile } from '@nestplank/core/formats';
import type { Part } from '@nestplank/core/parts';
import { halfWidth, roofHeight, type Shell } from '@nestplank/core/shell';
import bulrush from '../../../demo/bulrush.json?raw';
import thimble from '../../../demo/thimble.json?raw';
import wren from '../../../demo/wren.json?raw';
import { liningBodies } from './bent.js';
import { liningIn } from './drawn.js';

const FACES: ReadonlySet<string> = new Set(['panel', 'board', 'strip']);
const BEHIND: ReadonlySet<string> = new Set(['wall-batten', 'noggin', 'packer', 'backing']);

/** What a body holds, from the tetrahedra of its triangles; and how many edges of them are met by no other. */
function measured(body: THREE.BufferGeometry): { readonly volume: number; readonly open: number } {
  const flat = body.index ? body.toNonIndexed() : body;
  const at = flat.getAttribute('position');
  const corner = (i: number) => new THREE.Vector3().fromBufferAttribute(at, i);
  const name = (i: number): string => [at.getX(i), at.getY(i), at.getZ(i)].map((n) => Math.round(n * 20)).join(' ');
  const edges = new Map<string, number>();
  let volume = 0;
  for (let i = 0; i < at.count; i += 3) {
    volume += corner(i).dot(corner(i + 1).cross(corner(i + 2))) / 6;
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
  }
  return { volume, open: [...edges.values()].filter((count) => count !== 0).length };
}
const ringArea = (ring: readonly (readonly [number, number])[]): number =>
  Math.abs(THREE.ShapeUtils.area(ring.map(([x, y]) => new THREE.Vector2(x, y))));
const areaOf = ({ outline }: Part): number =>
  ringArea(outline.outer) - outline.holes.reduce((sum, hole) => sum + ringArea(hole), 0);

/** How far a place lies out of the room through one of its surfaces, mm, roughly: straight across, or straight up. */
function outOf(room: Shell, surface: string, [x, y, z]: readonly [number, number, number]): number {
  if (surface === 'ceiling') return z - roofHeight(room, x, y);
  if (surface === 'front') return room.start - x;
  if (surface === 'rear') return x - room.length;
  return Math.abs(y) - halfWidth(room, surface === 'left' ? 'left' : 'right', x, z);
}

describe.each([
  ['Wren', wren],
  ['Bulrush', bulrush],
  ['Thimble', thimble],
])('the lining of %s in the round', (_name, file) => {
  const { project, priceBook } = readProjectFile(file);
  const derived = derive(project, priceBook);
  const { inner } = derived;
  if (!inner) throw new Error('it has a room');
  const bodies = liningBodies(derived);
  it('is every board of it, closed and as large as it is cut', () => {
    expect(bodies.map(({ part }) => part.id)).toEqual(liningIn(derived).map(({ id }) => id));
    for (const { part, body } of bodies) {
      const { volume, open } = measured(body);
      expect([part.id, open]).toEqual([part.id, 0]);
      expect([part.id, Math.abs(volume / (areaOf(part) * part.thickness) - 1) < 0.05]).toEqual([part.id, true]);
    }
  });
  it('has its faces where the room ends, and what carries them behind', () => {
    for (const { part, body } of bodies) {
      const { surface = 'floor' } = part;
      if (surface === 'floor') continue;
      if (!FACES.has(part.role) && !BEHIND.has(part.role) && part.role !== 'cover-strip') continue;
      const at = body.getAttribute('position');
      const far: number[] = [];
      for (let i = 0; i < at.count; i += 1) far.push(outOf(inner, surface, [at.getX(i), at.getY(i), at.getZ(i)]));
      const [least, most] = [Math.min(...far), Math.max(...far)];
      const wanted = FACES.has(part.role)
        ? [-2, part.thickness + 4]
        : part.role === 'cover-strip'
          ? [-part.thickness - 3, 2]
          : [1, 140];
      expect([part.id, least >= (wanted[0] ?? 0), most <= (wanted[1] ?? 0), least, most]).toEqual([
        part.id,
        true,
        true,
        least,
        most,
      ]);
    }
  });
});
