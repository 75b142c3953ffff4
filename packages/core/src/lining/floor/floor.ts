import { cavityParts, type CavityGroup } from '../surface/cavities.js';
import { endOf, spansWalls, type Shadow } from '../../document/body.js';
import type { FloorChoice, FloorHatch, PriceBook, PriceItem, Settings, Survey } from '../../document/schema.js';
import { isBar } from '../../materials/bars.js';
import { blankOf, type Part } from '../../parts/part.js';
import { BATTEN_WIDTH_MM, floorLayerHeights, type BuildUpDepth, type BuildUpDepths } from '../../layers/buildup.js';
import { outlineArea, spread, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { clipTo, cutOut } from '../../numeric/shapes.js';
import { archFootprint, type ArchShape } from '../../shell/arch.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { message, mm, type Message } from '../../words/message.js';
import { battenParts, type FloorBattens } from './floor-battens.js';
import { floorCoats, type FloorCoats } from './floor-coats.js';
import { floorFinish, footprints } from './floor-finish.js';
import { type FloorFinish } from './finish.js';
import { drilledHoles, hatchParts, hatchProblems } from './floor-holes.js';
import { floorInsulation, type FloorFoam } from './floor-pieces.js';
import { edgeTrims, longestTrim, stepTrims, trimsHeld, type TrimsHeld } from './edge-trims.js';
import { floorMarks, floorNoggins, floorScrews, nogginParts, type FloorScrew, type Noggin } from './floor-marks.js';
import { beadRows, beads, uppersLaid, type UpperLaid } from './floor-upper.js';
import type { Subfloor } from './subfloor.js';
import { thresholdsOf, type Threshold } from './thresholds.js';

/** The floor with everything that is cut for it and marked on it. */
export interface LinedFloor {
  readonly parts: readonly Part[];
  readonly noggins: readonly Noggin[];
  /** Screws of the board, those that furniture hides first. */
  readonly screws: readonly FloorScrew[];
  readonly finish: FloorFinish | null;
  /** The bare board coated instead; null when it is not, or something is laid on it. */
  readonly coats: FloorCoats | null;
  /** Insulation under the board, in pieces; null when there is none. */
  readonly insulation: FloorFoam | null;
  /** Adhesive under the board: metres of bead, along every batten or in rows, and ml; null where it is not glued. */
  readonly glue: { readonly metres: number; readonly millilitres: number } | null;
  /** Pieces of a board laid loose that nothing stands on. */
  readonly unheld: readonly string[];
  /** The room's floor, on which the finish lies. */
  readonly room: Outline | null;
  /** Boards that lie on the lowest one, and how they are held to what is beneath. */
  readonly upper: readonly UpperLaid[];
  /** With what the trims on it are screwed; null without any. */
  readonly trims: TrimsHeld | null;
  /** How high one steps at doors and steps, before and after. */
  readonly thresholds: readonly Threshold[];
  readonly problems: readonly { readonly said: Message; readonly hatch: string }[];
}

const SAMPLES = 41;
const FAR_MM = 1e5;

/** The floor of the finished room, arches and steps taken out. */
function roomFloor(inner: Shell, arches: readonly ArchShape[]): Outline | null {
  const xs = spread(0, inner.length, SAMPLES);
  const edge = (side: 'left' | 'right', sign: number): Point[] =>
    xs.map((x): Point => [x, sign * halfWidth(inner, side, x, inner.floor)]);
  const outer: Ring = [...edge('left', -1), ...edge('right', 1).reverse()];
  const bites = arches.flatMap((arch): Ring[] => {
    const ring = archFootprint(arch, inner, inner.floor, 0);
    return ring ? [ring] : [];
  });
  return cutOut({ outer, holes: [] }, bites)[0] ?? null;
}

/** What is coated: the whole floor, or what feet see of it, m2. */
function coatedArea(room: Outline, units: readonly Shadow[], choice: FloorChoice): number {
  const pieces = choice.finish === 'seen' ? cutOut(room, footprints(units, FAR_MM)) : [room];
  return pieces.reduce((sum, piece) => sum + outlineArea(piece), 0) / 1e6;
}

function glueUnder(outline: Outline, laid: FloorBattens | null): NonNullable<LinedFloor['glue']> {
  // one bead along each batten and one under it on the vehicle's floor; else rows over the whole board
  return beads(laid ? 2 * laid.metres : beadRows(outline));
}

/** A loose piece is held when so much of it lies under furniture, mm2. */
const HELD_MM2 = 20_000;
function isHeld(piece: Outline | undefined, units: readonly Shadow[]): boolean {
  const under = piece ? footprints(units, FAR_MM).flatMap((ring) => clipTo(piece, ring)) : [];
  const bed = units.some(
    (unit) => spansWalls(unit) && piece?.outer.some(([x]) => x > unit.body.x + 50 && x < endOf(unit) - 50),
  );
  return bed || under.reduce((sum, part) => sum + outlineArea(part), 0) >= HELD_MM2;
}

export interface LinedFloorInput {
  readonly subfloor: Subfloor | null;
  readonly laid: FloorBattens | null;
  readonly depth: BuildUpDepth;
  readonly bare: Shell | null;
  readonly inner: Shell | null;
  readonly survey: Survey;
  readonly units: readonly Shadow[];
  readonly arches: readonly ArchShape[];
  readonly hatches: readonly FloorHatch[];
  readonly choice: FloorChoice;
  /** Profile the edges of steps are trimmed with. */
  readonly trim: PriceItem | null;
  readonly settings: Settings;
  readonly book: PriceBook;
}

/**
 * Everything a full-size template is made of: what is cut, the pieces of the floor's finish that are no plain rectangle, and
 * what is pressed in between the ribs.
 */
export const templateParts = (made: {
  readonly parts: readonly Part[];
  readonly floor: LinedFloor;
  readonly cavities: readonly CavityGroup[];
  readonly depths: BuildUpDepths;
}): readonly Part[] => [
  ...made.parts,
  ...(made.floor.finish?.awkward ?? []),
  ...cavityParts(made.cavities, made.depths),
];

/** Gathers board, battens, noggins, hatches and finish. */
export function linedFloor(input: LinedFloorInput): LinedFloor {
  const { subfloor, laid, depth, bare, inner, survey, units, arches, hatches, choice, trim, settings, book } = input;
  const battenLayer = depth.layers.find(({ layer }) => layer.place === 'battens');
  const timber = battenLayer?.material && isBar(battenLayer.material) ? battenLayer.material : null;
  const noggins =
    laid && subfloor && timber
      ? floorNoggins(
          laid,
          subfloor,
          arches,
          hatches,
          timber.width,
          settings.floorClearance,
          drilledHoles(survey).map(({ ring }) => ring),
        )
      : [];
  const z = battenLayer ? (floorLayerHeights(depth, battenLayer.layer.id)?.from ?? 0) : 0;
  const everywhere =
    laid && subfloor && choice.fixing !== 'loose'
      ? floorScrews(laid.battens, noggins, timber?.width ?? BATTEN_WIDTH_MM, subfloor.pieces, survey, units)
      : [];
  const screws = choice.fixing === 'glued' ? everywhere.filter((screw) => screw.hidden) : everywhere;
  const board = depth.layers.find(({ layer }) => layer.board);
  const face = depth.layers.findLast(
    ({ layer, material }) =>
      layer.place === 'continuous' && !layer.board && material !== null && material.laid !== null,
  );
  const room = inner && roomFloor(inner, arches);
  const finish = room && inner && face?.material ? floorFinish(room, face.material, units, choice, inner.floor) : null;
  const doorTrims = inner && choice.doorTrims === true ? edgeTrims(survey, inner, trim, units, choice.keepBack) : [];
  const trims = [...(inner ? stepTrims(arches, inner, trim) : []), ...doorTrims];
  const trimsOn = trimsHeld(trims, subfloor ? (subfloor.upper.at(-1) ?? subfloor).board.thickness : 0, book);
  const upper = subfloor ? uppersLaid(subfloor, choice, survey, units, book) : [];
  const grained = (id: string): boolean => book.items.find((item) => item.id === id)?.grain ?? false;
  const below = board ? depth.layers.slice(0, depth.layers.indexOf(board)) : [];
  const foam = below.findLast(({ material }) => material?.group === 'insulation' && material.pieceLength > 0)?.material;
  return {
    parts: [
      ...(subfloor?.parts ?? []).map((part) =>
        laid ? { ...part, marks: floorMarks(part, laid.battens, noggins, screws) } : part,
      ),
      ...upper.flatMap(({ layer, screws: own }) =>
        layer.parts.map((part) => ({ ...part, marks: floorMarks(part, [], [], own) })),
      ),
      ...(subfloor ? [subfloor, ...subfloor.upper] : []).flatMap((layer, i) =>
        hatchParts(hatches, layer, grained(layer.board.material), i),
      ),
      ...battenParts(laid, depth),
      ...trims,
      ...(timber && battenLayer ? nogginParts(noggins, timber, battenLayer.thickness, z) : []),
    ],
    noggins,
    screws,
    insulation:
      subfloor && foam
        ? floorInsulation(
            subfloor.outline,
            laid,
            noggins,
            timber?.width ?? 0,
            { length: foam.pieceLength, width: foam.width },
            subfloor.seams.filter((seam) => seam.direction === 'across').map((seam) => seam.at),
          )
        : null,
    upper,
    trims: trimsOn,
    thresholds: bare && inner ? thresholdsOf(survey, arches, bare, inner) : [],
    finish,
    coats:
      finish === null && board && room && inner
        ? floorCoats(choice, coatedArea(room, units, choice), survey, inner.length, settings, book)
        : null,
    room,
    glue: subfloor && choice.fixing !== 'loose' ? glueUnder(subfloor.outline, laid) : null,
    unheld:
      subfloor && choice.fixing === 'loose'
        ? subfloor.parts.filter((_, i) => !isHeld(subfloor.pieces[i], units)).map((part) => part.id)
        : [],
    problems: [
      ...(subfloor ? hatchProblems(hatches, subfloor, units, laid !== null && timber !== null) : []),
      ...(trimsOn !== null && trimsOn.picked?.item === null
        ? [
            {
              said: message('floor.noTrimScrew', {
                least: mm(trimsOn.picked.least),
                most: mm(trimsOn.picked.most),
              }),
              hatch: 'floor',
            },
          ]
        : []),
      ...upper
        .filter(({ screws: own, picked }) => own.length > 0 && picked?.item === null)
        .map(({ picked }) => ({
          said: message('floor.noUpperScrew', { least: mm(picked?.least ?? 0), most: mm(picked?.most ?? 0) }),
          hatch: 'floor',
        })),
      ...doorTrims
        .filter((part) => blankOf(part).length > longestTrim(trim))
        .map((part) => ({
          said: message('floor.trimLong', {
            name: part.of ?? part.id,
            length: mm(blankOf(part).length),
            longest: mm(longestTrim(trim)),
          }),
          hatch: 'floor',
        })),
    ],
  };
}
