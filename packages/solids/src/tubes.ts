import * as THREE from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import type { PlacedRun } from '@nestplank/core/furniture';

/** Round enough for a pipe among boards. */
const SIDES = 10;
const ALONG = new THREE.Vector3(0, 1, 0);

/** A run as a body: a cylinder from corner to corner and a ball at each, mm; null while it lies nowhere. */
export function tubeGeometry({ run, points }: PlacedRun): THREE.BufferGeometry | null {
  const radius = run.diameter / 2;
  const at = points.map(([x, y, z]) => new THREE.Vector3(x, y, z));
  const bodies = at.slice(1).flatMap((to, i): THREE.BufferGeometry[] => {
    const from = at[i];
    if (!from) return [];
    const by = to.clone().sub(from);
    const length = by.length();
    if (length < 1) return [];
    const middle = from.clone().addScaledVector(by, 0.5);
    const turn = new THREE.Quaternion().setFromUnitVectors(ALONG, by.normalize());
    return [
      new THREE.CylinderGeometry(radius, radius, length, SIDES, 1).applyMatrix4(
        new THREE.Matrix4().compose(middle, turn, new THREE.Vector3(1, 1, 1)),
      ),
    ];
  });
  if (bodies.length === 0) return null;
  const corners = at
    .slice(1, -1)
    .map((corner) => new THREE.SphereGeometry(radius, SIDES, SIDES / 2).translate(corner.x, corner.y, corner.z));
  const all = [...bodies, ...corners];
  const merged = mergeGeometries(all);
  for (const one of all) one.dispose();
  return merged;
}
