import type { BufferGeometry } from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import { sceneOf, type DerivedShape } from '@nestplank/core/derive';
import type { PriceBook } from '@nestplank/core/document';
import { materialOf } from '@nestplank/core/materials';
import { FAMILIES, movesOf, type Goes } from '@nestplank/core/furniture';
import { type Soft, softIn } from '@nestplank/core/layout';
import type { Part } from '@nestplank/core/parts';
import type { Scene } from '../state/scene.js';
import { blockGeometry, inkedEdges, partGeometry } from './shapes.js';

const STILL: readonly Goes[] = [];

/** Parts that are drawn as one body: they are of one unit and one material, and stand still or move together. */
export interface Piece {
  readonly id: string;
  /** The unit it belongs to; null for boxes of the vehicle's lining. */
  readonly unit: string | null;
  readonly hatch: string | undefined;
  /** What it moves with; nothing where it stands still. */
  readonly moves: readonly Goes[];
  readonly body: BufferGeometry;
  readonly edges: BufferGeometry;
}

/** Boxes over arches, beside headers and round windows are flat and stand where they are made; other linings follow the wall. */
const BOXES: ReadonlySet<string> = new Set(['arch-top', 'arch-side', 'arch-end', 'header', 'reveal']);

/** Mattresses and cushions, as the plan has them now. */
export function softsOf({ project, derived, book }: Pick<Scene, 'project' | 'derived' | 'book'>): readonly Soft[] {
  const world = sceneOf(project, derived, book, FAMILIES);
  return world ? softIn(world) : [];
}

/** The parts that are drawn, in the round. */
export const drawnParts = (shape: DerivedShape): readonly Part[] =>
  shape.parts.filter(({ unit, role }) => unit !== null || BOXES.has(role));

/** What is bought that boards hang on, where it stands. */
export const hangersOf = ({ made }: Pick<DerivedShape, 'made'>) =>
  made.flatMap(({ unit, skeleton }) => {
    const at = (skeleton?.hangsOn ?? []).flatMap(({ at: boxes = [] }) => boxes);
    return at.length === 0 ? [] : [{ unit, at }];
  });

/** Everything that is made, in as few bodies as can be drawn apart; a unit that is taken apart gives each of its parts. */
export function piecesOf(shape: DerivedShape, book: PriceBook, apart: string | null): readonly Piece[] {
  const moves = movesOf(shape.made);
  const groups = new Map<
    string,
    { readonly first: Part; readonly bodies: BufferGeometry[]; readonly moves: readonly Goes[] }
  >();
  for (const part of drawnParts(shape)) {
    const moving = moves.get(part.id) ?? STILL;
    const own = apart !== null && part.unit === apart;
    const key = own
      ? part.id
      : [part.unit ?? '', part.material, ...moving.map(({ motion, off }) => `${motion.of}${off ? '-' : ''}`)].join('|');
    const group = groups.get(key) ?? { first: part, bodies: [], moves: moving };
    group.bodies.push(partGeometry(part));
    groups.set(key, group);
  }
  return [
    ...[...groups].map(([id, { first, bodies, moves: moving }]): Piece => ({
      id,
      unit: first.unit,
      hatch: materialOf(book, first.material)?.hatch,
      moves: moving,
      ...asOne(bodies),
    })),
    ...hangersOf(shape).map(({ unit, at }): Piece => ({
      id: `${unit}|hangers`,
      unit,
      hatch: 'grey',
      moves: STILL,
      ...asOne(at.map(blockGeometry)),
    })),
  ];
}

/** Bodies that are drawn as one, and the edges that are inked. */
function asOne(bodies: readonly BufferGeometry[]): Pick<Piece, 'body' | 'edges'> {
  const one = { body: mergeGeometries([...bodies]), edges: mergeGeometries(bodies.map(inkedEdges)) };
  for (const own of bodies) own.dispose();
  return one;
}
