import { baysOf, endOf } from '../document/body.js';
import type { Unit } from '../document/unit-schema.js';
import type { PriceItem } from '../document/schema.js';
import { placesAlong } from '../numeric/adaptive.js';
import { boxOf, rectangle, spread, type Outline, type Point, type Ring } from '../numeric/plane.js';
import { cutOut } from '../numeric/shapes.js';
import { boardAcross, CHORD_MM, leftOnAlong, runsAlong, type ScribedLine } from '../parts/along-shell.js';
import { leansUp } from '../parts/scribe.js';
import { archFace, archFootprint, archSpan, type ArchShape } from '../shell/arch.js';
import { halfWidth, roofHeight } from '../shell/shell.js';
import type { Surroundings } from './family.js';
import type { Board, BoardEdge } from './skeleton.js';

/** Gap round doors, mm. */
export const REVEAL_MM = 3;
/** Hidden inner boards stop this short of the wall so that air passes behind them, mm. */
export const BACK_GAP_MM = 5;
export const TOE_KICK_DEPTH_MM = 50;
export const RAIL_WIDTH_MM = 80;
/** Kept between a notch and the arch it is for, mm. */
const ARCH_CLEARANCE_MM = 10;
/** A carcass less deep than this cannot be made, mm. */
export const LEAST_DEPTH_MM = 60;

/** A carcass with its back to a side wall, as its family wants it: lengths in mm, heights above the bare floor. */
export interface Carcass {
  readonly unit: Unit;
  readonly room: Surroundings;
  readonly side: 'left' | 'right';
  readonly sign: 1 | -1;
  /** From the centre line to the face of its fronts. */
  readonly front: number;
  /** Where its ends stand, where its bottom board lies, where its boards end at the top, and where it ends. */
  readonly foot: number;
  readonly bottom: number;
  readonly carcassTop: number;
  readonly board: PriceItem;
  readonly facing: PriceItem;
  /** What lies on it from end to end. */
  readonly top: { readonly material: PriceItem; readonly overhang: number; readonly lids: boolean } | null;
  /** Its boards are closed at the top by rails that carry what lies on it, by a board between the ends, or by nothing. */
  readonly head: 'rails' | 'board' | 'open';
  /** Its bottom is seen from below, and cut to the wall. */
  readonly seenBelow: boolean;
  /** Arches it is notched round. */
  readonly notched: readonly ArchShape[];
  /** From where to where along it something else of the unit is put to its face: no front goes there. */
  readonly covered?: readonly { readonly from: number; readonly to: number }[];
}

/** What the boards of a carcass are set out from, mm. */
export interface Frame extends Carcass {
  readonly thick: number;
  /** From the centre line to the front edges of its boards; what is hung or screwed on them lies before it by its own thickness. */
  readonly carcassFront: number;
  readonly insideFrom: number;
  readonly insideTo: number;
}

/** Two panels that slide past each other keep so far apart, and the inner one off the carcass, mm. */
export const SLIDING_PLAY_MM = 1;
/** What lies before the boards of a carcass: one facing, or where panels slide past each other two and their play, mm. */
export const beforeCarcass = ({ division }: Unit, facing: PriceItem): number =>
  baysOf(division).some(({ front }) => front.kind === 'sliding')
    ? 2 * (facing.thickness + SLIDING_PLAY_MM)
    : facing.thickness;

export const frameOf = (carcass: Carcass): Frame => ({
  ...carcass,
  thick: carcass.board.thickness,
  carcassFront: carcass.front + beforeCarcass(carcass.unit, carcass.facing),
  insideFrom: carcass.unit.body.x + carcass.board.thickness,
  insideTo: endOf(carcass.unit) - carcass.board.thickness,
});

export const VISIBLE_FRONT: BoardEdge = {
  kind: 'visible',
  at: 'front',
  line: [],
  allowance: 0,
  most: 0,
  leans: [],
};
const allowanceOf = (unit: Unit): number => (unit.meets.back?.how === 'scribed' ? unit.meets.back.allowance : 0);

/** What a board across the vehicle reaches from the front to the wall. */
interface Upright {
  readonly name: string;
  readonly role: string;
  readonly x: number;
  readonly from: number;
  readonly to: number;
  /** Cut to the wall with an allowance, or kept off it. */
  readonly scribed: boolean;
  readonly good: 1 | -1;
  /** How far behind the face of the carcass it begins and ends, mm; from the face to the wall where that is left out. */
  readonly reach?: Reach;
  /** A large opening is cut in it. */
  readonly open?: boolean;
}
/** From where to where something reaches behind the face of a carcass, mm; `far` is null at the wall. */
export interface Reach {
  readonly near: number;
  readonly far: number | null;
}
const WHOLE: Reach = { near: 0, far: null };

/** Left round a large opening in a divider, and the least that one is wide, mm. */
export const FRAME_MM = 60;
export const LEAST_OPENING_MM = 60;
/** The opening in a divider that is a frame, between two places across and two along it; none where nothing would be left of it. */
export function openingIn(a0: number, b0: number, a1: number, b1: number): Ring[] {
  const [low, high] = [Math.min(a0, a1) + FRAME_MM, Math.max(a0, a1) - FRAME_MM];
  return high - low < LEAST_OPENING_MM || b1 - b0 - 2 * FRAME_MM < LEAST_OPENING_MM
    ? []
    : [rectangle(low, b0 + FRAME_MM, high, b1 - FRAME_MM)];
}

/** Along the sheet's trimmed edges so much is lost of its width, mm. */
const TRIMMED_MM = 20;
/** The way the grain of a standing board runs: the wanted one where a sheet gives it so, else the other where a sheet does. */
export function grainIn(
  { stocks }: PriceItem,
  { along, up }: { readonly along: number; readonly up: number },
  wanted: 'x' | 'z',
): 'x' | 'z' {
  const gives = (way: 'x' | 'z'): boolean => {
    const [long, wide] = way === 'x' ? [along, up] : [up, along];
    return stocks.some(({ length, width }) => long <= length - TRIMMED_MM && wide <= width - TRIMMED_MM);
  };
  const other = wanted === 'x' ? 'z' : 'x';
  return gives(wanted) || !gives(other) ? wanted : other;
}

/** The least of the distances to a wall. */
const nearestOf = (back: readonly Point[]): number => Math.min(...back.map(([distance]) => distance));

/** Everything is nearer than this, mm. */
const FAR_MM = 100_000;

/** The edges of a board that follow the vehicle. */
export const scribedEdges = (edges: readonly ScribedLine[], at?: BoardEdge['at']): BoardEdge[] =>
  edges.map(({ side, ...edge }) => ({ kind: 'scribe', at: at ?? side, ...edge }));

/**
 * An upright across the vehicle: front edge on the line, from there to the wall and, where that is lower than its head, along
 * the roof. Hidden ones stay off both.
 */
export function upright(frame: Frame, wanted: Upright): Board[] {
  const { unit, sign, thick, carcassFront } = frame;
  const { inner } = frame.room;
  const under = Math.min(
    roofHeight(inner, wanted.x, sign * carcassFront),
    roofHeight(inner, wanted.x + thick, sign * carcassFront),
  );
  const to = Math.min(wanted.to, under);
  if (to - wanted.from < LEAST_DEPTH_MM) return [];
  const { near, far } = wanted.reach ?? WHOLE;
  const start = carcassFront + near;
  const across = (from: number, until: number, low: number, high: number): Ring =>
    rectangle(Math.min(sign * from, sign * until), low, Math.max(sign * from, sign * until), high);
  const kick =
    wanted.from < frame.bottom && frame.bottom > frame.foot
      ? [across(carcassFront - 1, carcassFront + TOE_KICK_DEPTH_MM, frame.foot - 1, frame.bottom)]
      : [];
  const arches = frame.notched.flatMap((arch): Ring[] => {
    const span = archSpan(arch, Math.max(inner.floor, arch.bottom));
    const here = span && span[0] - ARCH_CLEARANCE_MM < wanted.x + thick && span[1] + ARCH_CLEARANCE_MM > wanted.x;
    return here
      ? [
          across(
            archFace(arch, inner.floor) - ARCH_CLEARANCE_MM,
            5000,
            inner.floor - 1,
            arch.height + ARCH_CLEARANCE_MM,
          ),
        ]
      : [];
  });
  const board = boardAcross(inner, {
    x: wanted.x,
    thick,
    free: across(start, far === null ? FAR_MM : carcassFront + far, wanted.from, to),
    cuts: [...kick, ...arches],
    allowance: () => allowanceOf(unit),
    ...(wanted.scribed ? {} : { off: BACK_GAP_MM }),
  });
  if (!board) return [];
  const opening = wanted.open ? openingIn(sign * start, wanted.from, sign * nearestBack(board.outline, sign), to) : [];
  const [shape = board.outline] = cutOut(board.outline, opening);
  return [
    {
      name: wanted.name,
      role: wanted.role,
      material: frame.board.id,
      normal: 'x',
      at: wanted.x,
      thickness: thick,
      outline: shape,
      grain: 'z',
      good: wanted.good,
      edges: [VISIBLE_FRONT, ...scribedEdges(board.edges, 'back')],
      held: 'fixed',
    },
  ];
}

/** How far from the centre line a board reaches at least at its back, mm. */
function nearestBack({ outer }: Outline, sign: 1 | -1): number {
  const box = boxOf(outer);
  const middle = (box.minX + box.maxX) / 2;
  return Math.min(...outer.filter(([y]) => sign * (y - middle) > 0).map(([y]) => sign * y));
}

interface Level {
  readonly name: string;
  readonly role: string;
  readonly material: PriceItem;
  readonly z: number;
  readonly from: number;
  readonly to: number;
  readonly front: number;
  /** How far behind the face of the carcass it ends, mm; at the wall where that is null or left out. */
  readonly far?: number | null;
  /** A large opening is cut in it. */
  readonly open?: boolean;
  readonly scribed: boolean;
  readonly held?: Board['held'];
  readonly moves?: string;
  /** Openings in it. */
  readonly holes?: readonly Ring[];
}

/** A ring with its axes changed. */
const turned = (ring: Ring): Ring => ring.map(([a, b]): Point => [b, a]);

/** A level board: front edge straight, back edge along the wall at its own height. */
export function level(frame: Frame, wanted: Level): Board {
  const { unit, side, sign } = frame;
  const { inner } = frame.room;
  const { z: low, from, to } = wanted;
  const { thickness } = wanted.material;
  // where the roof closes it there is no depth, and none before the front either
  const wall = (x: number): number =>
    Math.max(
      wanted.front,
      Math.min(
        frame.carcassFront + (wanted.far ?? Infinity),
        Math.min(halfWidth(inner, side, x, low), halfWidth(inner, side, x, low + thickness)) -
          (wanted.scribed ? 0 : BACK_GAP_MM),
      ),
    );
  const xs = placesAlong(wall, { from, to, tolerance: CHORD_MM, least: 25 });
  // how far it is to the wall at each place along it
  const back = xs.map((x): Point => [wall(x), x]);
  const left = wanted.scribed ? allowanceOf(unit) : 0;
  const at = (x: number, distance: number): Point => [x, sign * distance];
  const line = back.map(([distance, x]) => at(x, distance));
  const trueShape: Outline = {
    outer: [at(from, wanted.front), at(to, wanted.front), ...[...line].reverse()],
    holes: [],
  };
  const bites = frame.notched.flatMap((arch): Ring[] => {
    const ring = archFootprint(arch, inner, low, ARCH_CLEARANCE_MM);
    return ring ? [ring] : [];
  });
  const opening = wanted.open ? openingIn(sign * wanted.front, from, sign * nearestOf(back), to) : [];
  const [notched = trueShape] = bites.length > 0 ? cutOut(trueShape, bites) : [trueShape];
  const lines = !wanted.scribed ? [] : bites.length > 0 ? runsAlong(notched.outer, [line]) : [line];
  const { outline: drawn, most } = leftOnAlong(
    notched,
    lines.map((run) => ({ line: run, allowance: left })),
    rectangle(from, Math.min(sign * wanted.front, sign * FAR_MM), to, Math.max(sign * wanted.front, sign * FAR_MM)),
    bites,
  );
  const holes = [...(wanted.holes ?? []), ...opening.map(turned)];
  const [shape] = holes.length > 0 ? cutOut(drawn, holes) : [drawn];
  return {
    name: wanted.name,
    role: wanted.role,
    material: wanted.material.id,
    normal: 'z',
    at: low,
    thickness,
    outline: shape ?? drawn,
    grain: 'x',
    good: 1,
    edges: [
      VISIBLE_FRONT,
      ...scribedEdges(
        lines.map((run, i) => ({
          side,
          line: run,
          allowance: left,
          most: most[i] ?? left,
          leans: leansUp(
            inner,
            side,
            low,
            run.map(([x]) => x),
          ),
        })),
        'back',
      ),
    ],
    held: wanted.held ?? 'fixed',
    ...(wanted.moves === undefined ? {} : { moves: wanted.moves }),
  };
}

/** A rectangle standing along the vehicle, its front face at a distance from the centre line. */
export function facingBoard(
  frame: Frame,
  wanted: Pick<Board, 'name' | 'role' | 'grain' | 'held' | 'edges' | 'moves'> & {
    readonly material: PriceItem;
    readonly front: number;
    readonly outline: Outline;
  },
): Board {
  const { front, material, ...rest } = wanted;
  return {
    ...rest,
    material: material.id,
    thickness: material.thickness,
    normal: 'y',
    at: frame.sign > 0 ? front : -front - material.thickness,
    good: frame.sign > 0 ? -1 : 1,
  };
}

/** A rail lying flat under what lies on top, its front edge at a distance from the centre line. */
export function rail(frame: Frame, name: string, front: number): Board {
  const [a, b] = [frame.sign * front, frame.sign * (front + RAIL_WIDTH_MM)];
  return {
    name,
    role: 'rail',
    material: frame.board.id,
    normal: 'z',
    at: frame.carcassTop - frame.thick,
    thickness: frame.thick,
    outline: { outer: rectangle(frame.insideFrom, Math.min(a, b), frame.insideTo, Math.max(a, b)), holes: [] },
    grain: 'x',
    good: 1,
    edges: [],
    held: 'fixed',
  };
}

/** A rail with less than this left beside what hangs in the top is sawn through there, mm. */
const LEAST_RAIL_MM = 20;
/** A shorter end of a rail holds nothing, mm. */
const LEAST_END_MM = 60;
/** What hangs in an opening passes a rail with this to spare, mm. */
const PAST_MM = 3;
/**
 * A rail notched where something hangs in an opening of the top over it, or sawn into several where too little of it would
 * be left. The first keeps its name.
 */
export function notchedFor(board: Board, bodies: readonly Ring[]): Board[] {
  const own = boxOf(board.outline.outer);
  const notches = bodies.flatMap((body): Ring[] => {
    const { minX, maxX, minY, maxY } = boxOf(body);
    const [x0, x1, y0, y1] = [minX - PAST_MM, maxX + PAST_MM, minY - PAST_MM, maxY + PAST_MM];
    if (x0 >= own.maxX || x1 <= own.minX || y0 >= own.maxY || y1 <= own.minY) return [];
    const through = Math.max(y0 - own.minY, own.maxY - y1) < LEAST_RAIL_MM;
    return [through ? rectangle(x0, own.minY - 1, x1, own.maxY + 1) : rectangle(x0, y0, x1, y1)];
  });
  if (notches.length === 0) return [board];
  const lengthOf = ({ outer }: Outline): number => boxOf(outer).maxX - boxOf(outer).minX;
  return cutOut(board.outline, notches)
    .filter((piece) => lengthOf(piece) >= LEAST_END_MM)
    .sort((a, b) => boxOf(a.outer).minX - boxOf(b.outer).minX)
    .map((outline, i) => ({ ...board, name: i === 0 ? board.name : `${board.name}-${i + 1}`, outline }));
}

/** How deep a bay is in the free depth there is, mm. */
export const deepIn = ({ near, far }: Reach, free: number): number =>
  Math.max(0, Math.min(far ?? Infinity, free) - near);

/** How far one side is free behind a front, the least over a stretch and between two heights, mm; arches it is notched round stand in it. */
export function deepBehind(frame: Frame, x0: number, x1: number, z0: number, z1: number): number {
  let least = Infinity;
  for (const x of spread(x0, x1, 5))
    for (const z of spread(z0, z1, 5)) {
      least = Math.min(least, halfWidth(frame.room.inner, frame.side, x, z));
      for (const arch of frame.notched) {
        const span = archSpan(arch, z);
        if (span && x >= span[0] && x <= span[1]) least = Math.min(least, archFace(arch, z) - ARCH_CLEARANCE_MM);
      }
    }
  return least - frame.carcassFront - BACK_GAP_MM;
}
