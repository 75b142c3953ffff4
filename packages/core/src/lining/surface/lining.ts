import { createNames, placed } from '../../parts/part-name.js';
import { isEnd } from './unrolled.js';
import type { Lined, LiningChoice, PriceBook, PriceItem, Settings } from '../../document/schema.js';
import { barStocks, isBar } from '../../materials/bars.js';
import type { Part } from '../../parts/part.js';
import type { BuildUpDepth, LayerDepth } from '../../layers/buildup.js';
import { boxOf, rectangle, type Outline, type Point } from '../../numeric/plane.js';

import { curvatureRadius, roofHeight, wallTop, type Shell } from '../../shell/shell.js';
import { message, mm, type Message } from '../../words/message.js';
import { leastRadius, standOff, widestStrip } from './bending.js';
import { carrierUnder } from '../../layers/knock-on.js';
import { MADE_UP_MM, makesUp, packedHigh, PACKER_LONG_MM, packingFor } from '../fixing/batten-packers.js';
import { faceLayer } from './face.js';
import { behindPiece, caulkOf, fittingOrder, type Caulk, type FittingStep } from './fitting-order.js';
import { unheldOf, type Unheld } from '../fixing/unheld.js';
import { fixingPoints, holdLines, type FixingPoint, type HoldLine } from '../fixing/fixing-map.js';
import {
  battensHeld,
  coversHeld,
  heldByNothing,
  heldCounts,
  heldWith,
  togetherHeld,
  type Held,
} from '../fixing/held.js';
import { grooveLines, groovePitch, groovesOf, type Grooves } from './grooves.js';
import { leanNotes, NARROWEST_BAY_MM, widestBay } from '../fixing/knocks.js';
import { addedNotes, closeNotes, lampNotes, reservedNotes, ribNotes } from './lining-notes.js';
import { marksOf, packerParts, partOf, stickParts, type PartMaker } from './lining-part.js';
import { linedSurface, type LinedSurface, type LinedSurfaceInput } from './lined-surface.js';
import { packersOf, type Packer } from '../fixing/packers.js';
import { edgeRanges, rowPieces, sheetPieces, solidAlong, withFittings, type PieceSet } from './pieces.js';
import { cutOut, roundInsideCorners } from '../../numeric/shapes.js';
import { scribeEdges } from './scribe-edges.js';
import { setOutFrom, setOutRows, type SetOut } from './set-out.js';

import { wallBattens, type LooseEdge, type WallBatten } from '../fixing/wall-battens.js';
import { HAIR_MM } from '../../numeric/tolerance.js';

/** A piece with the part it is cut as, and what is to be known of it. */
export interface LiningPiece {
  readonly part: string;
  readonly row: number;
  readonly outline: Outline;
  /** Fittings whose cable is connected: they get a slot. */
  readonly slots: readonly string[];
  /** Share of it that units will hide. */
  readonly hidden: number;
  /** It comes off again: the whole surface does, or something behind it must stay within reach. */
  readonly removable: boolean;
}
/** What bending asks of the lining, mm. */
export interface BendCheck {
  /** The tightest radius of the section; null where it is flat. */
  readonly tightest: number | null;
  /** What the material can take; null when its stiffness is not known. */
  readonly least: number | null;
  readonly fits: boolean | null;
  /** Strips and boards lie flat: how far they stand off at their middle, and the widest that stands off a millimetre. */
  readonly standOff: number | null;
  readonly widestStrip: number | null;
}
/** One surface, lined. */
export interface Lining {
  readonly surface: Lined;
  readonly school: LiningChoice['school'];
  readonly material: PriceItem;
  readonly ground: LinedSurface;
  readonly pieces: readonly LiningPiece[];
  readonly seams: PieceSet['seams'];
  readonly setOut: SetOut | null;
  readonly grooves: Grooves | null;
  /** What lies behind or stands before the supports beside it. */
  readonly packers: readonly Packer[];
  readonly unbacked: PieceSet['unbacked'];
  readonly battens: readonly WallBatten[];
  /** Edges of openings that no support carries; backed by noggins where battens are laid. */
  readonly loose: readonly LooseEdge[];
  readonly fixings: readonly FixingPoint[];
  /** With what it is fixed to each of what carries it, and how many. */
  readonly held: readonly Held[];
  /** Adhesive under battens that lie on no rib. */
  readonly glue: { readonly metres: number; readonly millilitres: number };
  readonly lines: readonly HoldLine[];
  /** Where a piece hangs on nothing. */
  readonly unheld: readonly (Unheld & { readonly part: string })[];
  /** The widest panel that a sheet gives; null for strips and boards. */
  readonly widest: number | null;
  readonly bend: BendCheck;
  readonly problems: readonly Message[];
  /** The order in which it goes up. */
  readonly order: readonly FittingStep[];
  readonly caulk: Caulk;
  /** What to know that is no fault, such as an opening that is not here yet. */
  readonly notes: readonly Message[];
  readonly parts: readonly Part[];
}

/** A strip over a joint is cut longer by so much, and trimmed in its place, mm. */
const OVER_LENGTH_MM = 20;

export interface LiningInput extends Omit<LinedSurfaceInput, 'widest' | 'floor'> {
  readonly surface: Lined;
  /** The shell of the lining's middle. */
  readonly shell: Shell;
  readonly depth: BuildUpDepth;
  readonly settings: Settings;
  readonly book: PriceBook;
  /** Profile that joints are covered with, where they are. */
  readonly trim: PriceItem | null;
  /** Every surface that is lined. */
  readonly lined: readonly Lined[];
  /** Rows for the whole room; null when this surface is set out alone. */
  readonly rows: SetOut | null;
}

const BACKING_WIDTH_MM = 80;
const STRIP_OFF_MM = 1;
const NEAR_HALF = 0.4;
/** A block that is glued in where no battens are laid is at least so thick, mm. */
const BLOCK_MM = 18;

/** How a surface is really lined: what is sold by the length can only be boards, what is sold in sheets cannot. */
export function schoolOf(choice: LiningChoice, material: PriceItem): LiningChoice['school'] {
  if (isBar(material)) return 'boards';
  return choice.school === 'boards' ? 'sheets' : choice.school;
}

/** The widest upright panel that a sheet gives for a surface so high, and how the sheet stands; the cheapest way. */
function widestPanel(
  material: PriceItem,
  high: number,
  length: number,
  trim: number,
): { readonly widest: number; readonly standing: boolean } | null {
  const ways = material.stocks.flatMap((stock) => {
    const [long, wide] = [stock.length - 2 * trim, stock.width - 2 * trim];
    const cost = (widest: number): number => Math.ceil(length / widest) * stock.price;
    return [
      ...(high <= long ? [{ widest: wide, standing: true, cost: cost(wide) }] : []),
      ...(high <= wide ? [{ widest: long, standing: false, cost: cost(long) }] : []),
    ];
  });
  return ways.sort((a, b) => a.cost - b.cost)[0] ?? null;
}

/** A first or last row is no narrower than this: what was asked, or near half a row. */
export const leastRow = (choice: LiningChoice, row: number): number => Math.min(choice.sliver, NEAR_HALF * row);

/** The width a row takes on the surface: what a board covers, what a strip is ripped to. */
export const rowWidth = (choice: LiningChoice, material: PriceItem): number =>
  isBar(material) ? material.width : choice.strip;

/** Rows for both walls together, so that they meet round the room; null unless both are boards or strips of one width. */
export function sharedRows(
  walls: readonly { readonly ground: LinedSurface; readonly choice: LiningChoice; readonly material: PriceItem }[],
): SetOut | null {
  const [a, b] = walls;
  if (!a || !b) return null;
  const datum = a.choice.datum ?? null;
  if ((b.choice.datum ?? null) !== datum) return null;
  // grooves of both walls meet round the room when they are as far apart
  if (walls.every(({ choice, material }) => schoolOf(choice, material) === 'sheets')) {
    const pitch = groovePitch(a.choice);
    if (pitch <= 0 || Math.abs(groovePitch(b.choice) - pitch) > 0.1) return null;
    const { low, high } = bothEdges(walls);
    return grooveLines(low, high, pitch, Math.min(a.choice.sliver, b.choice.sliver), datum);
  }
  const width = rowWidth(a.choice, a.material);
  const rows = walls.every(
    ({ choice, material }) =>
      schoolOf(choice, material) !== 'sheets' && Math.abs(rowWidth(choice, material) - width) < 0.1,
  );
  if (!rows) return null;
  const { low, high } = bothEdges(walls);
  const least = leastRow(a.choice, width);
  return datum === null
    ? setOutRows(low, high, width, a.choice.gap, least)
    : setOutFrom(low, high, width, a.choice.gap, least, datum);
}

/** Least and greatest v of the low and the high edge over both walls. */
function bothEdges(
  walls: readonly { readonly ground: LinedSurface; readonly choice: LiningChoice }[],
): ReturnType<typeof edgeRanges> {
  const ranges = walls.map(({ ground, choice }) => edgeRanges(ground, choice.edge));
  const over = (pick: (range: (typeof ranges)[number]) => { readonly min: number; readonly max: number }) => ({
    min: Math.min(...ranges.map((range) => pick(range).min)),
    max: Math.max(...ranges.map((range) => pick(range).max)),
  });
  return { low: over((range) => range.low), high: over((range) => range.high) };
}

/** How far apart supports of a face may be, mm. Sheets may be stood up: their weaker way counts. */
const bearsOver = (material: PriceItem, thickness: number, school: LiningChoice['school']): number =>
  Math.min(...(school === 'sheets' ? [true, false] : [true]).map((along) => widestBay(material, thickness, along)));

/** The ground of a lining, without its pieces. */
export function groundOf(
  input: Omit<LiningInput, 'rows' | 'settings' | 'shell' | 'surface' | 'book' | 'trim' | 'lined'> & {
    readonly floor: number;
  },
): LinedSurface {
  const face = faceLayer(input.depth);
  const bears = face ? bearsOver(face.material, face.thickness, schoolOf(input.choice, face.material)) : Infinity;
  // a face too thin to bear a hand is said, and not held up every few millimetres
  return linedSurface({ ...input, widest: Math.max(NARROWEST_BAY_MM, bears) });
}

/** The tightest radius of the section of a surface, mm; null where it is flat. */
function tightestRadius(shell: Shell, surface: Lined): number | null {
  let least = Infinity;
  if (isEnd(surface)) return null;
  for (const x of shell.at) {
    if (surface === 'ceiling') {
      for (let y = -400; y <= 400; y += 50) {
        const bend = roofHeight(shell, x, y - 40) - 2 * roofHeight(shell, x, y) + roofHeight(shell, x, y + 40);
        if (Math.abs(bend) > HAIR_MM) least = Math.min(least, (40 * 40) / Math.abs(bend));
      }
    } else
      for (let z = shell.floor + 60; z < wallTop(shell, surface, x) - 60; z += 60)
        least = Math.min(least, curvatureRadius(shell, surface, x, z));
  }
  return Number.isFinite(least) ? least : null;
}

/** Share of a piece that units will hide, by its box. */
function hiddenShare(ground: LinedSurface, outline: Outline): number {
  const box = boxOf(outline.outer);
  const over = (zone: LinedSurface['hidden'][number]): number =>
    Math.max(0, Math.min(box.maxX, zone.u1) - Math.max(box.minX, zone.u0)) *
    Math.max(0, Math.min(box.maxY, zone.v1) - Math.max(box.minY, zone.v0));
  const covered = ground.hidden.reduce((sum, zone) => sum + over(zone), 0);
  return Math.min(1, covered / Math.max(1, (box.maxX - box.minX) * (box.maxY - box.minY)));
}

/** A seam lies on a rib when it is this near to its middle, mm. */
const ON_RIB_MM = 60;

/**
 * Where a piece begins, for its name: at the surface's start, at a rib by the rib's own name, so that it stays the same
 * piece when the rib is read again, else by its place.
 */
function startOf({ supports }: LinedSurface, u: number): string {
  if (u < ON_RIB_MM) return 'from-start';
  const rib = supports.find((support) => support.kind === 'rib' && Math.abs(support.u - u) <= ON_RIB_MM);
  return rib ? `from-${rib.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}` : placed(u);
}

/** Pieces that hang on nothing, the worst place of each. */
function unheldProblems(
  unheld: readonly { readonly part: string; readonly at: Point; readonly free: number }[],
  surface: { readonly word: `surface.${Lined}` },
): Message[] {
  const [worst] = [...unheld].sort((a, b) => b.free - a.free);
  return worst
    ? [
        message('lining.unheld', {
          surface,
          count: new Set(unheld.map(({ part }) => part)).size,
          part: worst.part,
          at: mm(worst.at[0]),
          free: mm(worst.free),
        }),
      ]
    : [];
}

/**
 * What lies between the back of the face and the battens, or what stands in the ribs' depth where none are laid, mm.
 * @param thickness of the face
 */
function betweenFaceAnd({ layers, total }: BuildUpDepth, battens: LayerDepth | null, thickness: number): number {
  const taken = (from: number): number => layers.slice(from).reduce((sum, { takes }) => sum + takes, 0);
  return Math.max(0, (battens ? taken(layers.indexOf(battens) + 1) : total) - thickness);
}

/** A strip over every upright joint between panels, where something is lined, longer than the joint. */
function coverStrips(
  maker: PartMaker,
  names: (what: string, where: string) => string,
  { seams }: PieceSet,
  ground: LinedSurface,
  trim: PriceItem,
  thickness: number,
): readonly Part[] {
  if (!isBar(trim)) return [];
  // it lies on the panels' faces
  const behind = -thickness / 2 - trim.thickness;
  return seams.flatMap(({ at }, i) =>
    solidAlong(ground.solid, at).map(([v0, v1]): Part => {
      const half = trim.width / 2;
      const ring = rectangle(at - half, v0 - OVER_LENGTH_MM / 2, at + half, v1 + OVER_LENGTH_MM / 2);
      const id = names('cover-strip', placed(at, v0));
      return partOf(maker, id, 'cover-strip', i + 1, { outer: ring, holes: [] }, true, trim, trim.thickness, behind)
        .part;
    }),
  );
}

/** A piece whose inside corners have a radius, but for those at an arch: nothing is to come nearer to that. */
function notched({ openings }: LinedSurface, outline: Outline, radius: number): readonly Outline[] {
  if (radius <= 0) return [outline];
  const rounded = { ...outline, outer: roundInsideCorners(outline.outer, radius) };
  const box = boxOf(outline.outer);
  const near = openings.filter(({ kind, ring }) => {
    const own = boxOf(ring);
    return kind === 'arch' && own.maxX > box.minX && own.minX < box.maxX && own.maxY > box.minY && own.minY < box.maxY;
  });
  return near.length > 0
    ? cutOut(
        rounded,
        near.map(({ ring }) => ring),
      )
    : [rounded];
}

/** Pieces that were to come off again and are no more: nobody should take another one for them. */
const goneNotes = (
  { comesOff = [] }: LiningChoice,
  made: readonly { readonly part: Part }[],
  surface: { readonly word: `surface.${Lined}` },
): Message[] => {
  const gone = comesOff.filter((id) => made.every(({ part }) => part.id !== id));
  return gone.length > 0 ? [message('lining.offGone', { surface, count: gone.length })] : [];
};

/** Lines one surface, or returns null when its layers end in nothing that is sold in sheets or lengths. */
export function liningOf(input: LiningInput): Lining | null {
  const { surface, shell, unrolled, depth, choice, settings } = input;
  const face = faceLayer(depth);
  if (!face) return null;
  const { material, thickness } = face;
  const school = schoolOf(choice, material);
  const ground = groundOf({ ...input, floor: shell.floor });
  const problems: Message[] = [];
  const named = { word: `surface.${surface}` } as const;
  const { low, high } = edgeRanges(ground, choice.edge);
  // what is left on to scribe is cut from the sheet too
  const tall = high.max - low.min + 2 * choice.scribe;
  const panel = school === 'sheets' ? widestPanel(material, tall, unrolled.length, settings.cutting.trim) : null;
  if (bearsOver(material, thickness, school) < NARROWEST_BAY_MM)
    problems.push(message('lining.film', { surface: named, material: material.name, thickness: mm(thickness) }));
  if (school === 'sheets' && !panel) problems.push(message('lining.tooHigh', { surface: named, high: mm(tall) }));
  const bars = barStocks(material);
  const longest = Math.max(
    ...bars.map((stock) => stock.length),
    ...material.stocks.map((stock) => stock.length - 2 * settings.cutting.trim),
  );
  const row = rowWidth(choice, material);
  const kind = school === 'boards' ? 'board' : 'strip';
  const set: PieceSet =
    school === 'sheets'
      ? panel
        ? sheetPieces(ground, choice, panel.widest)
        : { pieces: [], seams: [], setOut: null, unbacked: [], close: 0, legal: true }
      : rowPieces(ground, choice, kind, row, longest, leastRow(choice, row), input.rows);
  if (!set.legal)
    problems.push(
      message(`lining.sliver.${school}`, {
        surface: named,
        sliver: mm(school === 'sheets' ? choice.sliver : leastRow(choice, row)),
      }),
    );
  const up = school === 'sheets' && (panel?.standing ?? false);
  const maker: PartMaker = { shell, unrolled, surface };
  const grooves =
    school === 'sheets' ? groovesOf(ground, choice, material, thickness, up, set.seams.length, input.rows) : null;
  problems.push(...(grooves?.problems ?? []));
  const cut = set.pieces.flatMap((piece) => {
    const [outline] = notched(ground, piece.outline, choice.notch ?? 0);
    const { outlines, slots } = withFittings(ground, { ...piece, outline: outline ?? piece.outline });
    return outlines.map((outline) => ({ ...piece, outline, slots }));
  });
  const backed = set.unbacked.filter(({ v0, v1 }) => v1 - v0 > 30);
  const battenLayer = depth.layers.find(({ layer }) => layer.place === 'battens');
  const laid = battenLayer?.material && isBar(battenLayer.material) ? battenLayer.material : null;
  // without battens of its own, edges that float are backed by blocks of the thinnest timber that holds a screw
  const timber = input.book.items
    .filter((item) => item.group === 'timber' && isBar(item) && item.thickness >= BLOCK_MM)
    .sort((a, b) => a.thickness - b.thickness);
  // one that fills the ribs' depth stands on the skin; a thinner one needs packers
  const blocks =
    laid ?? timber.find(({ thickness }) => Math.abs(depth.ribDepth - thickness) <= MADE_UP_MM) ?? timber[0] ?? null;
  const { battens, loose } = wallBattens(ground, (blocks ?? laid)?.width ?? BACKING_WIDTH_MM / 2);
  // where no battens are laid, what lies on a rib is the rib itself
  const kept = battens.filter(({ onRib }) => (onRib ? laid : blocks) !== null);
  if (loose.length > 0 && !blocks)
    for (const name of new Set(loose.map((edge) => edge.opening)))
      problems.push(message('lining.loose', { surface: named, name }));
  // a strip behind a joint is of the face's own sheet, or of the next thicker one that a stocked fastener holds in
  const behind = [
    material,
    ...input.book.items
      .filter((item) => item.group === material.group && !isBar(item) && item.stocks.length > 0)
      .filter((item) => item.thickness > thickness)
      .sort((a, b) => a.thickness - b.thickness),
  ];
  const holds = (item: PriceItem): boolean =>
    heldWith(depth, choice.removable, 0, item === material ? thickness : item.thickness, input.book).by.strip?.pick !=
    null;
  const backing = (backed.length > 0 ? behind.find(holds) : null) ?? material;
  const backingThick = backing === material ? thickness : backing.thickness;
  const withHeld = (removable: boolean): ReturnType<typeof heldWith> =>
    heldWith(depth, removable, blocks?.thickness ?? 0, backingThick, input.book);
  // what comes off again is screwed, whatever the rest of the surface is fixed with
  const held = withHeld(choice.removable);
  const heldOff = withHeld(true);
  const lines = holdLines(
    ground,
    { battens: kept, width: blocks?.width ?? BACKING_WIDTH_MM / 2 },
    { joints: backed, width: BACKING_WIDTH_MM },
  );
  const names = createNames(surface);
  const made = cut.map(({ outline, row, slots, kind: role }, i) => {
    const box = boxOf(outline.outer);
    const id = names(school === 'sheets' ? role : `${role}.row-${row}`, startOf(ground, box.minX));
    const laid = partOf(maker, id, role, i + 1, outline, up, material, thickness, -thickness / 2);
    const removable =
      choice.removable || behindPiece(ground, outline).length > 0 || (choice.comesOff ?? []).includes(id);
    const screws = fixingPoints(ground, [{ kind: role, row, outline }], lines, (removable ? heldOff : held).edge);
    const part: Part = {
      ...laid.part,
      edges: scribeEdges(unrolled, choice, outline, laid.onPart),
      marks: marksOf(ground, lines, outline, slots, screws, laid, grooves),
    };
    const piece = { part: part.id, row, outline, slots, hidden: hiddenShare(ground, outline), removable };
    return { part, screws, piece };
  });
  const strips = backed.map(
    ({ u, v0, v1 }, i) =>
      partOf(
        maker,
        names('backing', placed(u, v0)),
        'backing',
        i + 1,
        { outer: rectangle(u - BACKING_WIDTH_MM / 2, v0, u + BACKING_WIDTH_MM / 2, v1), holes: [] },
        true,
        backing,
        backingThick,
        thickness / 2,
      ).part,
  );
  const thick = laid && battenLayer ? battenLayer.thickness : (blocks?.thickness ?? 0);
  const on = laid
    ? carrierUnder(
        depth,
        depth.layers.findIndex((layer) => layer === battenLayer),
      )
    : null;
  // between the ribs it stands on the skin, as high as it takes to lie flush with those on them
  const deep =
    depth.ribDepth <= 0 || on?.into === 'wood' ? 0 : depth.ribDepth + (laid ? (on?.passed ?? thick) : 0) - thick;
  const floating = kept.filter(({ onRib }) => !onRib);
  const packing = deep > MADE_UP_MM && floating.length > 0 ? packingFor(deep, input.book.items) : null;
  if (deep > MADE_UP_MM && floating.length > 0 && !(packing && makesUp(packing)))
    problems.push(
      message('lining.packing', { surface: named, deep: mm(deep), off: mm(Math.abs(packing?.off ?? deep)) }),
    );
  if (deep < -MADE_UP_MM && floating.length > 0)
    problems.push(
      message('lining.blockProud', { surface: named, thickness: mm(thick), by: mm(-deep), deep: mm(depth.ribDepth) }),
    );
  const behindFace = thickness / 2 + betweenFaceAnd(depth, laid && battenLayer ? battenLayer : null, thickness);
  const sticks = kept.flatMap((batten, i) =>
    blocks ? stickParts(maker, names, batten, i, blocks, thick, behindFace) : [],
  );
  const packers = packing
    ? floating.flatMap((batten, i) => packerParts(maker, names, batten, i, packing, behindFace + thick))
    : [];
  const covers =
    choice.covered === true && input.trim ? coverStrips(maker, names, set, ground, input.trim, thickness) : [];
  const unheld = made.flatMap(({ piece }) =>
    unheldOf(piece.outline, lines, ground.widest).map((found) => ({ ...found, part: piece.part })),
  );
  problems.push(...unheldProblems(unheld, named));
  const fixings = made.flatMap(({ screws }) => screws);
  const pointsOf = (off: boolean): readonly FixingPoint[] =>
    made.flatMap(({ screws, piece }) => (piece.removable === off ? screws : []));
  const sticksHeld = battensHeld(
    kept,
    thick,
    on,
    packing ? { deep: packedHigh(packing), each: PACKER_LONG_MM } : null,
    surface,
    input.book,
  );
  const counts = togetherHeld([
    ...sticksHeld.held,
    ...heldCounts(held, pointsOf(false)),
    ...heldCounts(heldOff, pointsOf(true)),
    ...coversHeld(covers, thickness, thick, surface, input.book),
  ]);
  const nothing = [
    heldByNothing(held, pointsOf(false), depth.ribDepth),
    heldByNothing(heldOff, pointsOf(true), depth.ribDepth),
  ];
  const unread = nothing.reduce((sum, found) => sum + found.unread, 0);
  const unstocked = nothing.reduce((sum, found) => sum + found.unstocked, 0);
  if (unread > 0) problems.push(message('lining.fixingUnknown', { surface: named, count: unread }));
  if (unstocked > 0) problems.push(message('lining.unstocked', { surface: named, count: unstocked }));
  for (const { by, fixing, count } of counts)
    // packers that no screw fits are glued, as they all are
    if (fixing.pick === null && by !== 'packer')
      problems.push(
        message(`lining.noFastener.${by}`, { surface: named, count, least: mm(fixing.least), most: mm(fixing.most) }),
      );
  const tightest = tightestRadius(shell, surface);
  // strips and boards have their grain along the vehicle and are bent across it
  const least = school === 'boards' ? null : leastRadius(material, thickness, up);
  if (least !== null && tightest !== null && least > tightest)
    problems.push(
      message('lining.bend', {
        surface: named,
        material: material.name,
        least: mm(least),
        tightest: mm(tightest),
        strip: mm(widestStrip(tightest, STRIP_OFF_MM)),
      }),
    );
  return {
    surface,
    school,
    material,
    ground,
    pieces: made.map(({ piece }) => piece),
    seams: set.seams,
    setOut: set.setOut,
    grooves,
    packers: packersOf(shell, surface, ground.supports),
    unbacked: set.unbacked,
    battens: kept,
    loose,
    fixings,
    lines,
    unheld,
    held: counts,
    glue: sticksHeld.glue,
    bend: {
      tightest,
      least,
      fits: least === null ? null : tightest === null || least <= tightest,
      standOff: school === 'sheets' ? null : tightest === null ? 0 : standOff(row, tightest),
      widestStrip: tightest === null ? null : widestStrip(tightest, STRIP_OFF_MM),
    },
    widest: panel?.widest ?? null,
    problems,
    order: fittingOrder(
      ground,
      made.map(({ piece }) => piece),
      backed.map((strip, i) => ({ ...strip, part: strips[i]?.id ?? '' })),
    ),
    caulk: caulkOf(
      ground,
      school,
      choice,
      // a joint under a strip is not filled
      covers.length > 0 ? [] : set.seams.map((seam) => seam.at),
      set.setOut?.rows ?? [],
      thickness,
      made.flatMap(({ piece }) => (piece.removable ? [piece.outline] : [])),
      input.lined,
    ),
    notes: [
      ...ground.pending.map((name) => message('lining.pending', { surface: named, name })),
      ...ribNotes(surface, input.ribs),
      ...addedNotes(ground, laid !== null),
      ...goneNotes(choice, made, named),
      ...closeNotes(set, longest),
      ...lampNotes(ground, set),
      ...reservedNotes(ground),
      ...(grooves?.notes ?? []),
      // strips lie along the vehicle, and so does the grain of a sheet that is not stood up
      ...leanNotes(ground, input.units, material, thickness, !up, shell.floor),
    ],
    parts: [...made.map(({ part }) => part), ...strips, ...sticks, ...packers, ...covers],
  };
}
