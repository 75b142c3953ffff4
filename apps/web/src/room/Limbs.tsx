import { useMemo } from 'react';
import * as THREE from 'three';
import type { Limb } from './bodies.js';
import type { Inks } from './inks.js';

/** So much further out lies the ink round a limb, mm. */
const INK_MM = 9;

/** A body as on the other drawings: limbs in paper with an outline in ink. */
export function Limbs({ limbs, inks }: { readonly limbs: readonly Limb[]; readonly inks: Inks }) {
  const placed = useMemo(
    () =>
      limbs.map(({ from, to, radius }) => {
        const [a, b] = [new THREE.Vector3(...from), new THREE.Vector3(...to)];
        const way = b.clone().sub(a);
        const turn = new THREE.Quaternion().setFromUnitVectors(
          new THREE.Vector3(0, 1, 0),
          way.length() > 0 ? way.clone().normalize() : new THREE.Vector3(0, 0, 1),
        );
        return { middle: a.add(b).multiplyScalar(0.5), turn, length: way.length(), radius };
      }),
    [limbs],
  );
  return placed.map(({ middle, turn, length, radius }, i) => (
    <group key={i} position={middle} quaternion={turn}>
      <mesh material={inks.bodyPaper}>
        <capsuleGeometry args={[radius, length, 4, 10]} />
      </mesh>
      <mesh material={inks.bodyInk}>
        <capsuleGeometry args={[radius + INK_MM, length, 4, 10]} />
      </mesh>
    </group>
  ));
}
