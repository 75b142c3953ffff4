import * as THREE from 'three';
import { TessellateModifier } from 'three/examples/jsm/modifiers/TessellateModifier.js';
import type { DerivedShape } from '@nestplank/core/derive';
import { bendingIn, type Bent } from '@nestplank/core/lining';
import { boxOf, type Point } from '@nestplank/core/numeric';
import type { Part } from '@nestplank/core/parts';
import { liningIn } from './drawn.js';
import { boardGeometry } from './shapes.js';

/** A bent board is drawn by flat faces that lie no farther from it than this, mm. */
const OFF_MM = 1.5;
/** Places it is read at in each direction. */
const READ = 9;
/** An edge is halved no more often than this; places are told apart down to this, mm. */
const MOST_HALVES = 40;
const GRAIN_MM = 1e-3;

/** How long an edge may be where a board bends, mm: a chord of twice the length stands off four times as far. */
function longestEdge(outline: readonly Point[], bent: Bent): number {
  const { minX, maxX, minY, maxY } = boxOf(outline);
  const share = (i: number): number => i / (READ - 1);
  const lines = [0, 0.5, 1].flatMap((beside) => [
    {
      long: maxX - minX,
      at: (s: number): Point => [minX + s * (maxX - minX), minY + beside * (maxY - minY)],
    },
    {
      long: maxY - minY,
      at: (s: number): Point => [minX + beside * (maxX - minX), minY + s * (maxY - minY)],
    },
  ]);
  return Math.min(
    ...lines.map(({ long, at }) => {
      const places = Array.from({ length: READ }, (_, i) => new THREE.Vector3(...bent(at(share(i)), 0)));
      const [first, last] = [places[0], places.at(-1)];
      if (!first || !last) return Infinity;
      const off = Math.max(...places.map((place, i) => place.distanceTo(first.clone().lerp(last, share(i)))));
      return off <= OFF_MM ? Infinity : long * Math.sqrt(OFF_MM / off);
    }),
  );
}

/** A board of the lining as it lies in the vehicle, bent with its surface: a closed body, mm. */
export function bentGeometry(part: Pick<Part, 'outline' | 'thickness'>, bent: Bent): THREE.BufferGeometry {
  const flat = boardGeometry(part);
  const longest = longestEdge(part.outline.outer, bent);
  const fine = Number.isFinite(longest)
    ? new TessellateModifier(longest, MOST_HALVES).modify(flat.index ? flat.toNonIndexed() : flat)
    : flat;
  const places = fine.getAttribute('position');
  const whole = (value: number): number => Math.round(value / GRAIN_MM) * GRAIN_MM;
  for (let i = 0; i < places.count; i += 1)
    places.setXYZ(i, ...bent([whole(places.getX(i)), whole(places.getY(i))], -whole(places.getZ(i))));
  fine.computeVertexNormals();
  return fine;
}

/** A part of the lining with its body. */
export interface LiningBody {
  readonly part: Part;
  readonly body: THREE.BufferGeometry;
}

/** Every board of the lining as it lies in the vehicle; none while there is no room. */
export function liningBodies(shape: DerivedShape): readonly LiningBody[] {
  const { shell, inner, depths } = shape;
  if (!shell || !inner) return [];
  const bending = bendingIn(shell, depths, inner);
  return liningIn(shape).map((part) => ({ part, body: bentGeometry(part, bending(part)) }));
}
