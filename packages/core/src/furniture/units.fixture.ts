import type { Unit } from '../document/schema.js';

/** A run as tests write it down: its figures by the names of its fields. */
export const runWith = (fields: {
  readonly id: string;
  readonly side: 'left' | 'right';
  readonly x: number;
  readonly length: number;
  readonly front: number;
  readonly height: number;
  readonly name?: string;
  readonly toeKick?: number;
  readonly shelves?: number;
  readonly doors?: number;
  readonly carcass?: string;
  readonly facing?: string;
  readonly top?: string;
  readonly overhang?: number;
  readonly scribe?: number;
}): Unit => {
  const { shelves = 0, doors = 0, carcass = 'birch-15' } = fields;
  return {
    id: fields.id,
    family: 'base-run',
    name: fields.name ?? fields.id,
    body: {
      stands: fields.side,
      x: fields.x,
      length: fields.length,
      front: fields.front,
      from: 0,
      to: fields.height,
    },
    meets: { back: { how: 'scribed', allowance: fields.scribe ?? 20 }, foot: { how: 'square' } },
    division: {
      name: 'bay-1',
      holds: shelves > 0 ? { kind: 'shelves', count: shelves } : { kind: 'open' },
      front: doors > 0 ? { kind: 'doors', count: doors } : { kind: 'none' },
    },
    school: 'plywood',
    materials: { carcass, facing: fields.facing ?? carcass, top: fields.top ?? carcass },
    options: { toeKick: fields.toeKick ?? 0, overhang: fields.overhang ?? 0 },
  };
};

/** A bed from wall to wall, likewise. */
export const bedWith = (fields: {
  readonly id: string;
  readonly x: number;
  readonly length: number;
  readonly height: number;
  readonly mattress?: number;
  readonly sleepers?: string[];
  readonly board?: string;
  readonly support?: string;
  readonly boardWidth?: number;
  readonly span?: number;
  readonly scribe?: number;
}): Unit => ({
  id: fields.id,
  family: 'bed-platform',
  name: fields.id,
  body: { stands: 'across', x: fields.x, length: fields.length, from: 0, to: fields.height },
  meets: {
    left: { how: 'scribed', allowance: fields.scribe ?? 20 },
    right: { how: 'scribed', allowance: fields.scribe ?? 20 },
    foot: { how: 'open' },
  },
  division: { name: 'hold', holds: { kind: 'open' }, front: { kind: 'none' } },
  school: 'plywood',
  materials: { board: fields.board ?? 'birch-12', support: fields.support ?? 'birch-15' },
  options: {
    mattress: fields.mattress ?? 100,
    sleepers: fields.sleepers ?? [],
    boardWidth: fields.boardWidth ?? 620,
    span: fields.span ?? 650,
  },
});
