import type { BufferGeometry } from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import type { DerivedShape } from '@nestplank/core/derive';
import type { Lined, PriceBook } from '@nestplank/core/document';
import { materialOf } from '@nestplank/core/materials';
import { movesOf, type Goes } from '@nestplank/core/furniture';
import type { Part } from '@nestplank/core/parts';
import { blockGeometry, furnitureIn, hangersOf, inkedEdges, liningBodies, partGeometry } from '@nestplank/solids';

const LINED: readonly Lined[] = ['left', 'right', 'ceiling', 'front', 'rear'];
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

/** Everything that is made, in as few bodies as can be drawn apart; a unit that is taken apart gives each of its parts. */
export function piecesOf(shape: DerivedShape, book: PriceBook, apart: string | null): readonly Piece[] {
  const moves = movesOf(shape.made);
  const groups = new Map<
    string,
    { readonly first: Part; readonly bodies: BufferGeometry[]; readonly moves: readonly Goes[] }
  >();
  for (const part of furnitureIn(shape)) {
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

/** Boards of the lining that are drawn as one body: of one surface and one material. */
export interface LiningPiece {
  readonly id: string;
  /** The surface they lie on; null for the floor. */
  readonly surface: Lined | null;
  readonly hatch: string | undefined;
  readonly body: BufferGeometry;
  readonly edges: BufferGeometry;
}

/** Everything the vehicle is lined with, bent as it lies there. */
export function liningPiecesOf(shape: DerivedShape, book: PriceBook): readonly LiningPiece[] {
  const groups = new Map<string, { readonly part: Part; readonly bodies: BufferGeometry[] }>();
  const surfaceOf = ({ bends, surface }: Part): Lined | null =>
    bends?.surface ?? LINED.find((own) => own === surface) ?? null;
  for (const { part, body } of liningBodies(shape)) {
    const key = `${surfaceOf(part) ?? 'floor'}|${part.material}`;
    const group = groups.get(key) ?? { part, bodies: [] };
    group.bodies.push(body.index ? body.toNonIndexed() : body);
    groups.set(key, group);
  }
  return [...groups].map(([id, { part, bodies }]) => ({
    id,
    surface: surfaceOf(part),
    hatch: materialOf(book, part.material)?.hatch,
    ...asOne(bodies),
  }));
}

/** Bodies that are drawn as one, and the edges that are inked. */
function asOne(bodies: readonly BufferGeometry[]): Pick<Piece, 'body' | 'edges'> {
  const one = { body: mergeGeometries([...bodies]), edges: mergeGeometries(bodies.map(inkedEdges)) };
  for (const own of bodies) own.dispose();
  return one;
}
