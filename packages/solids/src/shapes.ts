import * as THREE from 'three';
import type { Part } from '@nestplank/core/parts';
import type { Outline, Point } from '@nestplank/core/numeric';
import type { Rigid } from '@nestplank/core/furniture';
import type { Facet, Reveal } from '@nestplank/core/shell';

/** Faces that turn by more than this against each other have an inked edge between them, degrees. */
const INKED_EDGE = 25;

/**
 * Shapes are divided into triangles turned by this: the divider joins a hole to what lies straight beside it, and where two
 * holes begin at one place along it leaves an edge out, so that a body made of it would not be closed. Radians.
 */
const TILT = 0.3717;
const [COS, SIN] = [Math.cos(TILT), Math.sin(TILT)];

const shapeOf = ({ outer, holes }: Outline): THREE.Shape => {
  const points = (ring: readonly Point[]) =>
    ring.map(([x, y]) => new THREE.Vector2(x * COS - y * SIN, x * SIN + y * COS));
  const shape = new THREE.Shape(points(outer));
  shape.holes = holes.map((hole) => new THREE.Path(points(hole)));
  return shape;
};

/** A flat shape, to be put where it belongs by a matrix. */
export const flatGeometry = (outlines: readonly Outline[]): THREE.BufferGeometry =>
  straightened(new THREE.ShapeGeometry(outlines.map(shapeOf)));

/** A body of a turned shape, turned back, with the places of its texture. */
function straightened(body: THREE.BufferGeometry): THREE.BufferGeometry {
  body.rotateZ(-TILT);
  const places = body.getAttribute('position');
  const texture = body.getAttribute('uv');
  const normals = body.getAttribute('normal');
  for (let i = 0; i < places.count; i += 1)
    // on its faces a texture runs with the shape; along its edges as it was
    if (Math.abs(normals.getZ(i)) > 0.5) texture.setXY(i, places.getX(i), places.getY(i));
  return body;
}

/** From a part's own axes to the vehicle: along, across, and out of the face one looks at. */
function placeOf({ origin, along, across, thick }: Part['place']): THREE.Matrix4 {
  const axis = (v: readonly [number, number, number]) => new THREE.Vector3(...v);
  return new THREE.Matrix4()
    .makeBasis(axis(along), axis(across), axis(thick).negate())
    .setPosition(...(origin as [number, number, number]));
}

/** A part on its own axes, mm: its drawn face at 0, its thickness below. Its grain runs along the first of its texture's axes. */
export function boardGeometry({ outline, thickness }: Pick<Part, 'outline' | 'thickness'>): THREE.BufferGeometry {
  const body = new THREE.ExtrudeGeometry(shapeOf(outline), { depth: thickness, bevelEnabled: false });
  return straightened(body).translate(0, 0, -thickness);
}

/** A part as it stands in the vehicle, mm: its outline as thick as it is. */
export const partGeometry = (part: Pick<Part, 'outline' | 'place' | 'thickness'>): THREE.BufferGeometry =>
  boardGeometry(part).applyMatrix4(placeOf(part.place));

/** The edges of a body that are drawn in ink. */
export const inkedEdges = (body: THREE.BufferGeometry): THREE.BufferGeometry =>
  new THREE.EdgesGeometry(body, INKED_EDGE);

/** Where a part's middle is in the vehicle, mm. */
export function middleOf(body: THREE.BufferGeometry): THREE.Vector3 {
  body.computeBoundingBox();
  return body.boundingBox?.getCenter(new THREE.Vector3()) ?? new THREE.Vector3();
}

/** A surface of small facets as one body whose faces look toward a place inside: from outside one sees through it. */
export function skinGeometry(facets: readonly Facet[], inside: (x: number) => THREE.Vector3): THREE.BufferGeometry {
  const positions: number[] = [];
  const [a, b, normal, middle] = [0, 1, 2, 3].map(() => new THREE.Vector3()) as [
    THREE.Vector3,
    THREE.Vector3,
    THREE.Vector3,
    THREE.Vector3,
  ];
  for (const facet of facets) {
    const places = facet.map((place) => new THREE.Vector3(...place));
    const [first] = places;
    if (!first || places.length < 3) continue;
    normal.set(0, 0, 0);
    middle.set(0, 0, 0);
    places.forEach((place, i) => {
      const next = places[(i + 1) % places.length] ?? first;
      normal.add(a.copy(place).sub(first).cross(b.copy(next).sub(first)));
      middle.addScaledVector(place, 1 / places.length);
    });
    const inward = normal.dot(inside(middle.x).sub(middle)) > 0;
    // the facet's own plane, to divide what is not four-cornered into triangles
    const across = a
      .copy(places[1] ?? first)
      .sub(first)
      .normalize();
    const up = b.copy(normal).normalize().cross(across);
    const flat = places.map((place) => {
      const from = place.clone().sub(first);
      return new THREE.Vector2(from.dot(across), from.dot(up));
    });
    for (const triangle of THREE.ShapeUtils.triangulateShape(flat, []))
      for (const index of inward ? triangle : [...triangle].reverse()) {
        const place = places[index];
        if (place) positions.push(place.x, place.y, place.z);
      }
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.Float32BufferAttribute(positions, 3));
  geometry.computeVertexNormals();
  return geometry;
}

/** A block of so much along, across and up, mm. */
export const blockGeometry = ({ x0, x1, y0, y1, z0, z1 }: Block): THREE.BufferGeometry =>
  new THREE.BoxGeometry(x1 - x0, y1 - y0, z1 - z0).translate((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2);
interface Block {
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
  readonly z0: number;
  readonly z1: number;
}

/** The edge of a lining at an opening, looking into the opening. */
export const revealGeometry = ({ facets, middle }: Pick<Reveal, 'facets' | 'middle'>): THREE.BufferGeometry =>
  skinGeometry(facets, () => new THREE.Vector3(...middle));

/** Lines through places, as pairs of their ends. */
export function lineGeometry(lines: readonly Facet[]): THREE.BufferGeometry {
  const positions = lines.flatMap((line) =>
    line.slice(0, -1).flatMap((from, i) => [...from, ...(line[i + 1] ?? from)]),
  );
  return new THREE.BufferGeometry().setAttribute('position', new THREE.Float32BufferAttribute(positions, 3));
}

/** A move of the core as a matrix. */
export function matrixOf({ axis, about, turn, by }: Rigid): THREE.Matrix4 {
  const [x, y, z] = about;
  const turned = new THREE.Matrix4();
  if (axis === 'x') turned.makeRotationX(turn);
  else if (axis === 'y') turned.makeRotationY(turn);
  else turned.makeRotationZ(turn);
  return new THREE.Matrix4()
    .makeTranslation(x + by[0], y + by[1], z + by[2])
    .multiply(turned)
    .multiply(new THREE.Matrix4().makeTranslation(-x, -y, -z));
}
