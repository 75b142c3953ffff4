import type { BuildUpDepth } from '../../layers/buildup.js';
import { fixingInto, faceFixing, type Carrier, type FaceFixing } from '../../layers/knock-on.js';
import type { PriceBook } from '../../document/schema.js';
import { wholeUp } from '../../numeric/tolerance.js';
import { blankOf, type Part } from '../../parts/part.js';
import { beads } from '../floor/floor-upper.js';
import type { FixingPoint, HeldBy } from './fixing-map.js';
import { packersUnder } from './batten-packers.js';
import type { WallBatten } from './wall-battens.js';

/** With what a lining is fixed to one kind of what carries it. */
export interface Held {
  readonly by: HeldBy | 'cover' | 'batten' | 'packer';
  readonly fixing: FaceFixing;
  readonly count: number;
}
interface HeldWith {
  readonly by: Readonly<Record<HeldBy, FaceFixing | null>>;
  /** How near an edge any of them may go, drilled, mm. */
  readonly edge: number;
}

/** Where nothing that is stocked fits, edges are kept as for a screw of this diameter, mm. */
const USUAL_MM = 4;
const DRILLED = 3;

/**
 * What goes into ribs, timber and strips behind joints. Where battens are laid, all timber is as thick as they are; else it
 * is the blocks that are put between the ribs.
 * @param removable the lining comes off again: it is screwed
 * @param block thickness of those blocks, mm
 * @param strip thickness of a strip behind a joint, mm
 */
export function heldWith(
  depth: BuildUpDepth,
  removable: boolean,
  block: number,
  strip: number,
  book: PriceBook,
): HeldWith {
  const face = faceFixing(depth, book, removable);
  const own = depth.layers.findLast(({ layer }) => layer.place === 'continuous')?.thickness;
  const passed = face?.passed ?? own ?? strip;
  const into = (deep: number): FaceFixing | null =>
    deep > 0 ? fixingInto(depth.surface, { passed, into: 'wood', depth: deep }, book, removable) : null;
  const timber = face?.into === 'wood' ? face : into(block);
  // what lies on a rib may be a batten that fills its depth: the face goes into that then
  const by = { rib: face, timber, strip: into(strip) };
  const drilled = Object.values(by).flatMap((fixing) => fixing?.pick?.drilled ?? []);
  return { by, edge: drilled.length > 0 ? Math.max(...drilled) : DRILLED * USUAL_MM };
}

/** How many fixings go into ribs whose depth was not read, and how many find no kind of fastener at all in the price book. */
export function heldByNothing(
  { by }: HeldWith,
  points: readonly FixingPoint[],
  ribDepth: number,
): { readonly unread: number; readonly unstocked: number } {
  const none = points.filter((point) => by[point.by] === null);
  const unread = none.filter((point) => point.by === 'rib' && ribDepth <= 0).length;
  return { unread, unstocked: none.length - unread };
}

/** How many go into each. */
export const heldCounts = ({ by }: HeldWith, points: readonly FixingPoint[]): Held[] =>
  (['rib', 'timber', 'strip'] as const).flatMap((kind): Held[] => {
    const fixing = by[kind];
    const count = points.filter((point) => point.by === kind).length;
    return fixing && count > 0 ? [{ by: kind, fixing, count }] : [];
  });

/** Counts of one fixing into one kind of support, added up. */
export const togetherHeld = (list: readonly Held[]): readonly Held[] => {
  const key = ({ by, fixing }: Held): string => `${by} ${fixing.pick?.id ?? ''} ${fixing.least} ${fixing.most}`;
  const sums = new Map<string, Held>();
  for (const held of list) {
    const before = sums.get(key(held));
    sums.set(key(held), before ? { ...before, count: before.count + held.count } : held);
  }
  return [...sums.values()];
};

/** A brad every so far along a strip over a joint, mm. */
const COVER_MM = 200;

/**
 * What pins the strips over joints: through strip and face into the timber behind the joint, or into the strip behind it.
 * @param face thickness of what is covered, mm
 * @param timber thickness of what lies behind, mm; that of the face where it is a strip of it
 */
export function coversHeld(
  covers: readonly Part[],
  face: number,
  timber: number,
  surface: string,
  book: PriceBook,
): readonly Held[] {
  const [first] = covers;
  if (!first) return [];
  const fixing = fixingInto(
    surface,
    { passed: first.thickness + face, into: 'wood', depth: timber > 0 ? timber : face },
    book,
  );
  const count = covers.reduce((sum, part) => sum + Math.max(2, wholeUp(blankOf(part).length / COVER_MM) + 1), 0);
  return fixing ? [{ by: 'cover', fixing, count }] : [];
}

/** A batten is screwed to its rib so often along it, and near both its ends, mm. */
const BATTEN_MM = 300;

/**
 * What holds the battens themselves: those on ribs are screwed through their own thickness and whatever lies between into the
 * rib, the others through it into the packers that they stand on. Packers, and battens that stand on the skin, are glued.
 * @param on what those on ribs are fixed into; null while no rib was read
 * @param packed how high the packers are that the others stand on, and how long each of them is, mm; null where there are none
 */
export function battensHeld(
  battens: readonly WallBatten[],
  thick: number,
  on: Carrier | null,
  packed: { readonly deep: number; readonly each: number } | null,
  surface: string,
  book: PriceBook,
): { readonly held: readonly Held[]; readonly glue: { readonly metres: number; readonly millilitres: number } } {
  const long = ({ u0, u1, v0, v1 }: WallBatten): number => Math.hypot(u1 - u0, v1 - v0);
  const onRibs = battens.filter(({ onRib }) => onRib);
  const others = battens.filter(({ onRib }) => !onRib);
  const count = onRibs.reduce((sum, batten) => sum + wholeUp(long(batten) / BATTEN_MM) + 1, 0);
  const fixing = count > 0 && on?.into === 'steel' ? fixingInto(surface, on, book) : null;
  const packers = packed ? others.reduce((sum, batten) => sum + packersUnder(batten).length, 0) : 0;
  const down =
    packed && packers > 0 ? fixingInto(surface, { passed: thick, into: 'wood', depth: packed.deep }, book, true) : null;
  return {
    held: [
      ...(fixing ? [{ by: 'batten' as const, fixing, count }] : []),
      ...(down?.pick ? [{ by: 'packer' as const, fixing: down, count: packers }] : []),
    ],
    glue: beads((packed ? packers * packed.each : others.reduce((sum, batten) => sum + long(batten), 0)) / 1000),
  };
}
