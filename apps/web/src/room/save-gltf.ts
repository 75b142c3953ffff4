import * as THREE from 'three';
import { GLTFExporter } from 'three/examples/jsm/exporters/GLTFExporter.js';
import { movesOf, rigidIn } from '@nestplank/core/furniture';
import { materialOf } from '@nestplank/core/materials';
import { placedOpenings, revealsOf, skinsOf } from '@nestplank/core/shell';
import { unitName, type Scene } from '../state/scene.js';
import { COLOURS } from '../theme.js';
import { tubeGeometry } from './tubes.js';
import { softAt } from '@nestplank/core/layout';
import { drawnParts, hangersOf, softsOf } from './pieces.js';
import { blockGeometry, matrixOf, partGeometry, revealGeometry, skinGeometry } from './shapes.js';

const MM_PER_M = 1000;

/**
 * The room as a scene for other programs: metres, y up, one mesh for each part under its unit, moved as they are in what is
 * shown; the vehicle's surfaces with their openings cut out.
 */
export function sceneToSave(scene: Scene, states: Readonly<Record<string, number>>): THREE.Group {
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
    const light = COLOURS.light;
    const color = { birch: light.birch, poplar: light.birch, pine: light.pine, foam: light.foam, wool: light.wool }[
      hatch ?? 'none'
    ];
    const fresh = new THREE.MeshStandardMaterial({ color: color ?? light.grey, roughness: 1, metalness: 0 });
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
    fresh.name = unitName(scene, unit);
    groups.set(unit, fresh);
    root.add(fresh);
    return fresh;
  };
  for (const part of drawnParts(shape)) {
    const rigid = rigidIn(moving.get(part.id) ?? [], states);
    // taken off, or stowed out of the room
    if (rigid === null) continue;
    const body = partGeometry(part);
    body.deleteAttribute('uv');
    body.applyMatrix4(matrixOf(rigid));
    const material = materialOf(book, part.material);
    const mesh = new THREE.Mesh(body, paint(material?.name ?? part.material, material?.hatch));
    mesh.name = part.id;
    (part.unit === null ? root : groupOf(part.unit)).add(mesh);
  }
  for (const { unit, at } of hangersOf(shape))
    for (const [i, box] of at.entries()) {
      const body = blockGeometry(box);
      body.deleteAttribute('uv');
      const mesh = new THREE.Mesh(body, paint('rail', 'grey'));
      mesh.name = `${unit}.hanger-${i + 1}`;
      groupOf(unit).add(mesh);
    }
  for (const soft of softsOf(scene))
    for (const [i, box] of softAt(soft, states).entries()) {
      const body = blockGeometry(box);
      body.deleteAttribute('uv');
      const mesh = new THREE.Mesh(body, paint('cushion', 'wool'));
      mesh.name = i === 0 ? soft.id : `${soft.id}.out`;
      groupOf(soft.unit).add(mesh);
    }
  for (const placed of shape.runs.placed) {
    const body = tubeGeometry(placed);
    if (!body) continue;
    body.deleteAttribute('uv');
    const mesh = new THREE.Mesh(body, paint(placed.run.name, 'grey'));
    mesh.name = placed.run.id;
    root.add(mesh);
  }
  if (room) {
    const middle = (x: number): THREE.Vector3 => new THREE.Vector3(x, 0, room.floor + 900);
    const openings = placedOpenings(project.survey);
    if (shape.shell && shape.shell !== room)
      for (const reveal of revealsOf(room, shape.shell, openings)) {
        const mesh = new THREE.Mesh(revealGeometry(reveal), paint('lining', undefined));
        mesh.name = `${reveal.opening.id}.reveal`;
        root.add(mesh);
      }
    for (const { surface, closed } of skinsOf(room, openings)) {
      const mesh = new THREE.Mesh(skinGeometry(closed, middle), paint('lining', undefined));
      mesh.name = surface;
      root.add(mesh);
    }
  }
  return root;
}

/** The same in the open binary form of glTF. */
export async function savedRoom(scene: Scene, states: Readonly<Record<string, number>>): Promise<Blob> {
  const root = sceneToSave(scene, states);
  const written = await new GLTFExporter().parseAsync(root, { binary: true });
  if (!(written instanceof ArrayBuffer)) throw new Error('no binary was written');
  return new Blob([written], { type: 'model/gltf-binary' });
}
