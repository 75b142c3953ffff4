import type { Layer, PriceBook } from '../document/schema.js';
import { plainLayer } from './buildup.js';
import { materialOf } from '../materials/material.js';

/** Ways of building up floors and walls between which builders differ. Each gives layers that can then be changed. */
export const FLOOR_SCHOOLS = ['framed', 'glued', 'floating'] as const;
export const WALL_SCHOOLS = ['barrier', 'open'] as const;
export const LINING_SCHOOLS = ['battens', 'ribs', 'removable'] as const;
export type FloorSchool = (typeof FLOOR_SCHOOLS)[number];
export type WallSchool = (typeof WALL_SCHOOLS)[number];
export type LiningSchool = (typeof LINING_SCHOOLS)[number];

/** Layers whose material the price book has, as thick as it is there. */
function layersFrom(
  prefix: string,
  book: PriceBook,
  list: readonly (readonly [material: string, place: Layer['place'], board?: boolean])[],
): Layer[] {
  return list.flatMap(([material, place, board], i) => {
    const item = materialOf(book, material);
    return item ? [plainLayer(`${prefix}-${i + 1}`, material, item.thickness, place, board)] : [];
  });
}

/**
 * Floor layers by school: framed (battens with insulation between and the board on them), glued (rigid foam with the board
 * glued on it), floating (the board loose on foam, held by what stands on it). From the metal up.
 */
export function floorSchool(school: FloorSchool, book: PriceBook): Layer[] {
  if (school === 'framed')
    return layersFrom('floor', book, [
      ['batten-30', 'battens'],
      ['foam-30', 'between-battens'],
      ['birch-12', 'continuous', true],
      ['planks-5', 'continuous'],
    ]);
  if (school === 'glued')
    return layersFrom('floor', book, [
      ['foam-30', 'continuous'],
      ['birch-12', 'continuous', true],
      ['planks-5', 'continuous'],
    ]);
  return layersFrom('floor', book, [
    ['closed-foam-10', 'continuous'],
    ['birch-12', 'continuous', true],
    ['planks-5', 'continuous'],
  ]);
}

/**
 * Wall or ceiling layers by how vapour is treated and what the lining fixes to. Barrier: sealed insulation and a foil on
 * the warm side. Open: insulation that takes up vapour and gives it off, no foil. Removable panels stand on battens with
 * their screws in sight, like those on battens.
 */
export function wallSchool(
  surface: 'left' | 'right' | 'ceiling',
  moisture: WallSchool,
  lining: LiningSchool,
  book: PriceBook,
): Layer[] {
  const insulation: readonly (readonly [string, Layer['place']])[] =
    moisture === 'barrier'
      ? [
          ['foam-30', 'in-ribs'],
          ['foam-20', 'in-ribs'],
          ['vapour-foil', 'continuous'],
        ]
      : [['wool-50', 'in-ribs']];
  const support: readonly (readonly [string, Layer['place']])[] = lining === 'ribs' ? [] : [['batten-18', 'battens']];
  const face = lining === 'removable' ? 'poplar-5' : 'boards-9';
  return layersFrom(surface, book, [...insulation, ...support, [face, 'continuous']]);
}

/** A whole vehicle started at once: how its walls and ceiling are kept dry and lined, and how its floor is built. */
export interface WholeSchool {
  readonly moisture: WallSchool;
  readonly lining: LiningSchool;
  readonly floor: FloorSchool;
}

/** Layers of floor, walls, ceiling and doors from one school, by surface: what each would have been started with alone. */
export function wholeSchool(
  { moisture, lining, floor }: WholeSchool,
  book: PriceBook,
): Readonly<Record<string, Layer[]>> {
  return {
    floor: floorSchool(floor, book),
    left: wallSchool('left', moisture, lining, book),
    right: wallSchool('right', moisture, lining, book),
    ceiling: wallSchool('ceiling', moisture, lining, book),
    // doors are opened again: thin foam and a face that comes off
    doors: layersFrom('doors', book, [
      ['closed-foam-10', 'continuous'],
      ['poplar-5', 'continuous'],
    ]),
  };
}
