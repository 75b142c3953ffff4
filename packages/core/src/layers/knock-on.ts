import type { Opening, PriceBook, Survey } from '../document/schema.js';
import { FRAME_CORNERS, valueAt } from '../document/address.js';
import { pickFastener } from '../rules/fasteners.js';
import { pilotRule } from '../rules/fixings.js';
import { placedOpenings } from '../shell/openings.js';
import { SURFACE_LIST, type SurfaceTraits } from '../document/surfaces.js';
import { type BuildUpDepth, type BuildUpDepths } from './buildup.js';

type Corner = (typeof FRAME_CORNERS)[number];

/** One board of a window box: how deep at its two ends, and the angle between. */
export interface RevealBoard {
  readonly side: 'sill' | 'head' | 'front' | 'rear';
  readonly length: number;
  readonly from: number;
  readonly to: number;
  /** Angle of the tapered edge, degrees. */
  readonly taper: number;
}

/** How deep the reveal of one opening is, from the finished face to the frame, mm. */
export interface Reveal {
  readonly opening: Opening;
  readonly corners: Readonly<Record<Corner, number | null>>;
  readonly least: number | null;
  readonly most: number | null;
  /** Boards whose both ends are known. */
  readonly boards: readonly RevealBoard[];
  /** What a ring that was made or bought lacks (positive) or stands out by; null without a ring. */
  readonly packer: number | null;
}

const PAIRS: readonly (readonly [RevealBoard['side'], Corner, Corner])[] = [
  ['sill', 'frame-front-low', 'frame-rear-low'],
  ['head', 'frame-front-high', 'frame-rear-high'],
  ['front', 'frame-front-low', 'frame-front-high'],
  ['rear', 'frame-rear-low', 'frame-rear-high'],
];

/** What the layers of the surface an opening is in add to its frame's depth. */
function faceBefore(opening: Opening, depths: BuildUpDepths): number {
  if (opening.surface === 'rear') return depths.doors.total;
  return depths[opening.surface === 'roof' ? 'ceiling' : opening.surface].total;
}

/**
 * Reveal depths: at each corner the frame's depth behind the rib faces and what the layers take off the room. They differ
 * from corner to corner because the skin bellies behind straight ribs, so the boards are tapered.
 */
export function revealsOf(survey: Survey, depths: BuildUpDepths): Reveal[] {
  return placedOpenings(survey)
    .filter(({ opening }) => opening.framed)
    .map(({ opening, from, to, sill, head }): Reveal => {
      const face = faceBefore(opening, depths);
      const corner = (which: Corner): number | null => {
        const frame = valueAt(survey, `opening/${opening.id}/${which}`);
        return frame === null ? null : frame + face;
      };
      const corners = Object.fromEntries(FRAME_CORNERS.map((which) => [which, corner(which)])) as Reveal['corners'];
      const known = FRAME_CORNERS.flatMap((which) => corners[which] ?? []);
      const boards = PAIRS.flatMap(([side, a, b]): RevealBoard[] => {
        const [start, end] = [corners[a], corners[b]];
        const length = side === 'sill' || side === 'head' ? to - from : head - sill;
        return start === null || end === null
          ? []
          : [{ side, length, from: start, to: end, taper: (Math.atan2(end - start, length) * 180) / Math.PI }];
      });
      const most = known.length > 0 ? Math.max(...known) : null;
      return {
        opening,
        corners,
        least: known.length > 0 ? Math.min(...known) : null,
        most,
        boards,
        packer: opening.ring === null || most === null ? null : most - opening.ring,
      };
    });
}

/** The fastener that goes through the face of a surface into what carries it. */
export interface FaceFixing {
  readonly surface: string;
  readonly into: 'wood' | 'steel';
  /** Thickness it passes before it bites, mm. */
  readonly passed: number;
  /** What it bites into, mm deep. */
  readonly depth: number;
  readonly least: number;
  readonly most: number;
  /** The stocked fastener that fits, or null. */
  readonly pick: {
    readonly id: string;
    readonly name: string;
    readonly length: number;
    /** Hole it is drilled first, and how near an edge it may go without one and with one, mm. */
    readonly pilot: number;
    readonly undrilled: number;
    readonly drilled: number;
  } | null;
}

/** What lies on the last battens, or on the ribs where there are none; the foil and foam between are passed too. */
function carriedBy(
  depth: BuildUpDepth,
): { readonly passed: number; readonly into: 'wood' | 'steel'; readonly depth: number } | null {
  const last = depth.layers.findLastIndex(({ layer }) => layer.place === 'battens' || layer.place === 'rib-battens');
  // what lies on the board of a floor is laid after it is screwed down
  const board = depth.layers.findLastIndex(({ layer }) => layer.board);
  const above = depth.layers
    .slice(last + 1, board >= 0 ? board + 1 : undefined)
    .filter(({ layer }) => layer.place === 'continuous')
    .reduce((sum, layer) => sum + layer.thickness, 0);
  if (above <= 0) return null;
  const batten = depth.layers[last];
  if (batten) return { passed: above, into: 'wood', depth: batten.thickness };
  return depth.ribDepth > 0 ? { passed: above, into: 'steel', depth: depth.ribDepth } : null;
}

/** For each surface whose face is fixed to battens or ribs: which length of fastener it takes, and what the shop stocks. */
export function faceFixings(
  depths: BuildUpDepths,
  book: PriceBook,
  surfaces: readonly SurfaceTraits[] = SURFACE_LIST,
): FaceFixing[] {
  return surfaces.flatMap(({ id: surface, inset }): FaceFixing[] => {
    const depth = inset ? depths[surface] : undefined;
    const carried = depth ? carriedBy(depth) : null;
    if (!carried) return [];
    const picked = pickFastener(book, { ...carried, gap: 0 });
    if (!picked) return [];
    const fastener = picked.item?.fastener ?? null;
    return [
      {
        surface,
        ...carried,
        least: picked.least,
        most: picked.most,
        pick:
          picked.item && fastener
            ? {
                id: picked.item.id,
                name: picked.item.name,
                length: fastener.length,
                ...pilotRule.run({ kind: fastener.kind, diameter: fastener.diameter }),
              }
            : null,
      },
    ];
  });
}
