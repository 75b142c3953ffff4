import * as THREE from 'three';
import { GLTFExporter } from 'three/examples/jsm/exporters/GLTFExporter.js';
import { movesOf, rigidIn } from '@nestplank/core/furniture';
import { materialOf } from '@nestplank/core/materials';
import { placedOpenings, revealsOf, skinsOf } from '@nestplank/core/shell';
import { softAt } from '@nestplank/core/layout';
import { liningBodies } from './bent.js';
import { furnitureIn, hangersOf, softsOf, type Shown } from './drawn.js';
import { tubeGeometry } from './tubes.js';
import { blockGeometry, matrixOf, partGeometry, revealGeometry, skinGeometry } from './shapes.js';

const MM_PER_M = 1000;
/** What materials look like in a file, by their hatch. */
const PAINTS: Readonly<Record<string, string>> = {
  birch: '#E3CDA4',
  poplar: '#E3CDA4',
  pine: '#D2B07B',
  foam: '#E4E8DC',
  wool: '#EBE3D3',
};
const OTHERS = '#CBD1CF';

/** A body of a file: places and faces that look somewhere. */
function meshOf(body: THREE.BufferGeometry, paint: THREE.Material): THREE.Mesh {
  body.deleteAttribute('uv');
  const normals = body.getAttribute('normal');
  // a triangle that is no more than a line looks nowhere
  for (let i = 0; i < normals.count; i += 1)
    if (Math.hypot(normals.getX(i), normals.getY(i), normals.getZ(i)) < 0.5) normals.setXYZ(i, 0, 0, 1);
  return new THREE.Mesh(body, paint);
}

/**
 * The room as a scene for other programs: metres, y up, one mesh for each part under its unit, moved as they are in what is
 * shown; the vehicle's surfaces with their openings cut out.
 */
export function sceneToSave(scene: Shown, states: Readonly<Record<string, number>>): THREE.Group {
  const { room, shape, book, project } = scene;
  const root = new THREE.Group();
  root.name = project.name;
  root.scale.setScalar(1 / MM_PER_M);
  // z is up in the vehicle, y in the file
  root.rotation.x = -Math.PI / 2;
  const paints = new Map<string, THREE.MeshStandardMaterial>();
  const paint = (name: string, hatch: string | undefined): THREE.MeshStandardMaterial => {
    const known = paints.get(name);
    if (known) return known;
    const fresh = new THREE.MeshStandardMaterial({ color: PAINTS[hatch ?? ''] ?? OTHERS, roughness: 1, metalness: 0 });
    fresh.name = name;
    paints.set(name, fresh);
    return fresh;
  };
  const moving = movesOf(shape.made);
  const groups = new Map<string, THREE.Group>();
  const groupOf = (unit: string): THREE.Group => {
    const known = groups.get(unit);
    if (known) return known;
    const fresh = new THREE.Group();
    fresh.name = project.layout.units.find(({ id }) => id === unit)?.name ?? unit;
    groups.set(unit, fresh);
    root.add(fresh);
    return fresh;
  };
  for (const part of furnitureIn(shape)) {
    const rigid = rigidIn(moving.get(part.id) ?? [], states);
    // taken off, or stowed out of the room
    if (rigid === null) continue;
    const body = partGeometry(part);
    body.applyMatrix4(matrixOf(rigid));
    const material = materialOf(book, part.material);
    const mesh = meshOf(body, paint(material?.name ?? part.material, material?.hatch));
    mesh.name = part.id;
    (part.unit === null ? root : groupOf(part.unit)).add(mesh);
  }
  const lining = new THREE.Group();
  lining.name = 'lining';
  root.add(lining);
  for (const { part, body } of liningBodies(shape)) {
    const material = materialOf(book, part.material);
    const mesh = meshOf(body, paint(material?.name ?? part.material, material?.hatch));
    mesh.name = part.id;
    lining.add(mesh);
  }
  for (const { unit, at } of hangersOf(shape))
    for (const [i, box] of at.entries()) {
      const body = blockGeometry(box);
      const mesh = meshOf(body, paint('rail', 'grey'));
      mesh.name = `${unit}.hanger-${i + 1}`;
      groupOf(unit).add(mesh);
    }
  for (const soft of softsOf(scene))
    for (const [i, box] of softAt(soft, states).entries()) {
      const body = blockGeometry(box);
      const mesh = meshOf(body, paint('cushion', 'wool'));
      mesh.name = i === 0 ? soft.id : `${soft.id}.out`;
      groupOf(soft.unit).add(mesh);
    }
  for (const placed of shape.runs.placed) {
    const body = tubeGeometry(placed);
    if (!body) continue;
    const mesh = meshOf(body, paint(placed.run.name, 'grey'));
    mesh.name = placed.run.id;
    root.add(mesh);
  }
  if (room) {
    const middle = (x: number): THREE.Vector3 => new THREE.Vector3(x, 0, room.floor + 900);
    const openings = placedOpenings(project.survey);
    if (shape.shell && shape.shell !== room)
      for (const reveal of revealsOf(room, shape.shell, openings)) {
        const mesh = meshOf(revealGeometry(reveal), paint('lining', undefined));
        mesh.name = `${reveal.opening.id}.reveal`;
        root.add(mesh);
      }
    for (const { surface, closed } of skinsOf(room, openings)) {
      const mesh = meshOf(skinGeometry(closed, middle), paint('lining', undefined));
      mesh.name = surface;
      root.add(mesh);
    }
  }
  return root;
}

/** The same in the open binary form of glTF. */
export async function savedRoom(scene: Shown, states: Readonly<Record<string, number>>): Promise<Blob> {
  const root = sceneToSave(scene, states);
  const written = await new GLTFExporter().parseAsync(root, { binary: true });
  if (!(written instanceof ArrayBuffer)) throw new Error('no binary was written');
  return new Blob([written], { type: 'model/gltf-binary' });
}
