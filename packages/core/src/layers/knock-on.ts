import type { Fastener, Opening, PriceBook, Survey } from '../document/schema.js';
import { FRAME_CORNERS, valueAt } from '../document/address.js';
import { GOOD_BITE_MM, HIDDEN_LEFT_MM, pickBrad, pickFastener, WEAK_BITE_MM } from '../rules/fasteners.js';
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
  /**
   * What a ring that was made or bought lacks (positive) or stands out by along each of its sides whose ends are known, from
   * one end to the other; null without a ring.
   */
  readonly packers: readonly Pick<RevealBoard, 'side' | 'from' | 'to'>[] | null;
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
    .map(({ opening, from, to, fromHead, toHead, sill, head }): Reveal => {
      const face = faceBefore(opening, depths);
      const corner = (which: Corner): number | null => {
        const frame = valueAt(survey, `opening/${opening.id}/${which}`);
        return frame === null ? null : frame + face;
      };
      const corners = Object.fromEntries(FRAME_CORNERS.map((which) => [which, corner(which)])) as Reveal['corners'];
      const known = FRAME_CORNERS.flatMap((which) => corners[which] ?? []);
      const boards = PAIRS.flatMap(([side, a, b]): RevealBoard[] => {
        const [start, end] = [corners[a], corners[b]];
        const length = {
          sill: to - from,
          head: toHead - fromHead,
          front: Math.hypot(fromHead - from, head - sill),
          rear: Math.hypot(toHead - to, head - sill),
        }[side];
        return start === null || end === null
          ? []
          : [{ side, length, from: start, to: end, taper: (Math.atan2(end - start, length) * 180) / Math.PI }];
      });
      const { ring } = opening;
      const most = known.length > 0 ? Math.max(...known) : null;
      return {
        opening,
        corners,
        least: known.length > 0 ? Math.min(...known) : null,
        most,
        boards,
        packers:
          ring === null ? null : boards.map(({ side, from: a, to: b }) => ({ side, from: a - ring, to: b - ring })),
      };
    });
}

/** A face no thicker than this is pinned with brads where they bite well, mm. */
const THIN_FACE_MM = 6.5;

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
    readonly kind: Fastener['kind'];
    readonly length: number;
    /** How deep it bites, and what is left before it comes out, mm. */
    readonly bite: number;
    readonly left: number;
    /** Hole it is drilled first, and how near an edge it may go without one and with one, mm. */
    readonly pilot: number;
    readonly undrilled: number;
    readonly drilled: number;
  } | null;
}

/**
 * What a fastener whose head lies on a layer goes through, and what it bites into: the layer itself, whatever takes room
 * between it and what carries it (foil, foam, what stands proud of the ribs), and then the battens next below, or the ribs.
 * Every fixing of every build-up is worked out by this.
 * @param head the layer that its head lies on, counted from the metal
 * @returns null where nothing that holds is known
 */
export function carrierUnder(depth: BuildUpDepth, head: number): Carrier | null {
  let passed = depth.layers[head]?.thickness ?? 0;
  for (const { layer, thickness, takes } of depth.layers.slice(0, head).reverse()) {
    if (layer.place === 'battens' || layer.place === 'rib-battens') return { passed, into: 'wood', depth: thickness };
    passed += takes;
  }
  return depth.ribDepth > 0 ? { passed, into: 'steel', depth: depth.ribDepth } : null;
}

/** What a face is fixed to; null where nothing lies on the last battens or on the ribs. */
function carriedBy(depth: BuildUpDepth): Carrier | null {
  const last = depth.layers.findLastIndex(({ layer }) => layer.place === 'battens' || layer.place === 'rib-battens');
  // what lies on the lowest board of a floor, another board too, is laid after that is screwed down
  const board = depth.layers.findIndex(({ layer }) => layer.board);
  const head = depth.layers.findLastIndex(
    ({ layer }, i) => i > last && (board < 0 || i <= board) && layer.place === 'continuous',
  );
  return head < 0 ? null : carrierUnder(depth, head);
}

/** What a fastener of a face goes through and bites into, mm. */
export interface Carrier {
  readonly passed: number;
  readonly into: 'wood' | 'steel';
  readonly depth: number;
}

/** The fastener of a surface's face that goes through `passed` and bites into what is given; null without one of the kind. */
export function fixingInto(surface: string, carrier: Carrier, book: PriceBook, removable = false): FaceFixing | null {
  const brad = removable || carrier.into === 'steel' ? null : pickBrad(book, carrier);
  const roomy = pickFastener(book, { ...carrier, gap: 0 });
  // timber behind a lining is hidden, and its screws may go nearly through; under the floor's is the vehicle's skin
  const hidden = carrier.into === 'wood' && surface !== 'floor' && !roomy?.item && brad === null;
  const screw = hidden ? pickFastener(book, { ...carrier, gap: 0, spare: HIDDEN_LEFT_MM }) : roomy;
  // a thin face is pinned: a screw's head would pull through it; a thicker one where no screw fits
  const pinned = brad !== null && (carrier.passed <= THIN_FACE_MM ? brad.bite >= GOOD_BITE_MM : !screw?.item);
  if (!pinned && !screw) return null;
  const item = pinned ? brad.item : (screw?.item ?? null);
  const fastener = item?.fastener ?? null;
  const bite = fastener ? fastener.length - carrier.passed : 0;
  return {
    surface,
    ...carrier,
    least: pinned ? carrier.passed + WEAK_BITE_MM : (screw?.least ?? 0),
    most: pinned ? carrier.passed + carrier.depth - HIDDEN_LEFT_MM : (screw?.most ?? 0),
    pick:
      item && fastener
        ? {
            id: item.id,
            name: item.name,
            kind: fastener.kind,
            length: fastener.length,
            bite,
            left: carrier.depth - bite,
            ...pilotRule.run({ kind: fastener.kind, diameter: fastener.diameter }),
          }
        : null,
  };
}

/** The same for what lies on a surface; null where nothing is fixed. */
export function faceFixing(depth: BuildUpDepth, book: PriceBook, removable = false): FaceFixing | null {
  const carried = carriedBy(depth);
  return carried && fixingInto(depth.surface, carried, book, removable);
}

/**
 * For each surface whose face is fixed to battens or ribs: which length of fastener it takes, and what the shop stocks.
 * @param removable whether a surface's lining comes off again: it is screwed then
 */
export const faceFixings = (
  depths: BuildUpDepths,
  book: PriceBook,
  removable: (surface: string) => boolean,
  surfaces: readonly SurfaceTraits[] = SURFACE_LIST,
): FaceFixing[] =>
  surfaces.flatMap(({ id, inset }): FaceFixing[] => {
    const depth = inset ? depths[id] : undefined;
    // a floor is walked on: it is screwed
    const fixing = depth && faceFixing(depth, book, id === 'floor' || removable(id));
    return fixing ? [fixing] : [];
  });
