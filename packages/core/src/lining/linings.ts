import type { Shadow } from '../document/body.js';
import { liningOn } from '../document/create.js';
import type {
  BoxChoice,
  Corner,
  DoorLining,
  Fitting,
  Found,
  Header,
  Lined,
  LiningChoice,
  PriceBook,
  PriceItem,
  Project,
  Reserved,
  Settings,
  Survey,
} from '../document/schema.js';
import { type BuildUpDepth, type BuildUpDepths, insetsOf } from '../layers/buildup.js';
import { revealsOf } from '../layers/knock-on.js';
import type { ArchShape } from '../shell/arch.js';
import { innerShell, type Insets } from '../shell/inner.js';
import type { RibMap } from '../shell/ribs.js';
import type { Shell } from '../shell/shell.js';
import { materialOf } from '../materials/material.js';
import { memoLast } from '../numeric/memo.js';
import { archBoxes, type ArchBox } from './boxes/arch-box.js';
import { cornerPieces, type CornerPiece } from './boxes/corner.js';
import { doorLinings, type DoorLinings } from './surface/door-lining.js';
import { faceLayer } from './surface/face.js';
import { groovePitch } from './surface/grooves.js';
import { headerBoxes, type HeaderBox } from './boxes/header-box.js';
import { groundOf, liningOf, schoolOf, sharedRows, type Lining } from './surface/lining.js';
import type { Boxed } from './surface/lined-surface.js';
import { bentOn, flatIn, type Bent, type LaidSurface } from './surface/on-surface.js';
import { unroll } from './surface/unrolled.js';
import type { Part } from '../parts/part.js';
import { windowBoxes } from './boxes/window-box.js';
import { type WindowBox } from './boxes/box.js';
import { curtainsAcross, type CurtainAcross } from './boxes/curtain.js';
import { type BoxHeld, boxesHeld } from './boxes/box-held.js';

export const LINED: readonly Lined[] = ['left', 'right', 'ceiling', 'front', 'rear'];

/** Everything the room is lined with. */
export interface Linings {
  readonly linings: readonly Lining[];
  readonly windowBoxes: readonly WindowBox[];
  readonly archBoxes: readonly ArchBox[];
  readonly headers: readonly HeaderBox[];
  readonly corners: readonly CornerPiece[];
  readonly doors: DoorLinings;
  /** What the boxes are put together with. */
  readonly boxesHeld: readonly BoxHeld[];
  /** Curtains across the body. */
  readonly curtains: readonly CurtainAcross[];
}
const NOTHING: Linings = {
  linings: [],
  windowBoxes: [],
  archBoxes: [],
  headers: [],
  corners: [],
  doors: { panels: [], pending: [], held: null },
  boxesHeld: [],
  curtains: [],
};

/** What stands round or behind a lining. */
interface Around {
  readonly survey: Survey;
  /** Wiring that was found and stays. */
  readonly wiring: readonly Found[];
  readonly units: readonly Shadow[];
  readonly arches: readonly ArchShape[];
  readonly fittings: readonly Fitting[];
  readonly reserved: readonly Reserved[];
  readonly ribs: RibMap;
  readonly boxed: Boxed;
}
export interface LiningsInput extends Omit<Around, 'units' | 'boxed'> {
  /** Units by the wall they stand at, and all of them. */
  readonly units: {
    readonly all: readonly Shadow[];
    readonly left: readonly Shadow[];
    readonly right: readonly Shadow[];
  };
  readonly bare: Shell | null;
  readonly inner: Shell | null;
  readonly depths: BuildUpDepths;
  readonly headers: readonly Header[];
  readonly corners: readonly Corner[];
  readonly linings: Project['linings'];
  readonly boxes: BoxChoice;
  readonly doorLining: DoorLining;
  readonly settings: Settings;
  readonly book: PriceBook;
}
type Laid = LaidSurface;
/** What bears on one surface only, kept while it stays the same. */
type AroundOf = (input: LiningsInput, boxed: Boxed) => Around;

const sameList = <T>([a]: readonly [readonly T[]], [b]: readonly [readonly T[]]): boolean =>
  a.length === b.length && a.every((item, i) => item === b[i]);
const NO_UNITS: readonly Shadow[] = [];

function createAround(surface: Lined): AroundOf {
  const fittingsOf = memoLast((list: readonly Fitting[]) => list, sameList);
  const reservedOf = memoLast((list: readonly Reserved[]) => list, sameList);
  const wiringOf = memoLast((list: readonly Found[]) => list, sameList);
  const around = memoLast(
    (
      survey: Survey,
      wiring: readonly Found[],
      units: readonly Shadow[],
      arches: readonly ArchShape[],
      fittings: readonly Fitting[],
      reserved: readonly Reserved[],
      ribs: RibMap,
      boxed: Boxed,
    ): Around => ({ survey, wiring, units, arches, fittings, reserved, ribs, boxed }),
  );
  return (input, boxed) =>
    around(
      input.survey,
      wiringOf(input.wiring.filter((found) => found.surface === surface)),
      surface === 'left' || surface === 'right' ? input.units[surface] : NO_UNITS,
      input.arches,
      fittingsOf(input.fittings.filter((fitting) => fitting.surface === surface)),
      reservedOf(input.reserved.filter(({ side }) => surface === 'ceiling' || side === surface)),
      input.ribs,
      boxed,
    );
}

/**
 * A surface of a vehicle as its lining lies on it: through the middle of the face, running through to both ends; what lies
 * on an end stands between them.
 * @param back half the thickness of the face, mm
 */
function laidOf(bare: Shell, all: Insets, surface: Lined, back: number): Laid | null {
  const shell = innerShell(bare, { ...all, front: 0, rear: 0, [surface]: all[surface] - back });
  return shell && { shell, unrolled: unroll(shell, surface) };
}

/**
 * How the parts of the lining lie in the vehicle: bent with the surface they are on, or flat.
 * @param depths what lies under them
 */
export function bendingIn(bare: Shell, depths: BuildUpDepths, room: Shell): (part: Part) => Bent {
  const laid = new Map<Lined, Laid | null>();
  const on = (surface: Lined): Laid | null => {
    const before = laid.get(surface);
    if (before !== undefined) return before;
    const made = laidOf(bare, insetsOf(depths), surface, (faceLayer(depths[surface])?.thickness ?? 0) / 2);
    laid.set(surface, made);
    return made;
  };
  return (part) =>
    part.bends ? bentOn(part.bends, part.bends.on === 'flat' ? on(part.bends.surface) : null, room) : flatIn(part);
}

/** A maker of linings that works again only on the surfaces whose own input has changed. */
export function createLinings(): (input: LiningsInput) => Linings {
  const makers = LINED.map((surface) => ({
    surface,
    around: createAround(surface),
    flat: memoLast((bare: Shell, insets: string, back: number): Laid | null =>
      laidOf(bare, JSON.parse(insets) as Insets, surface, back),
    ),
    line: memoLast(
      (
        laid: Laid,
        depth: BuildUpDepth,
        choice: LiningChoice,
        around: Around,
        settings: Settings,
        book: PriceBook,
        rows: ReturnType<typeof sharedRows>,
        trim: PriceItem | null,
        lined: readonly Lined[],
      ) => liningOf({ ...around, ...laid, surface, depth, choice, settings, book, rows, trim, lined }),
    ),
  }));
  const boxes = memoLast(
    (
      survey: Survey,
      depths: BuildUpDepths,
      units: readonly Shadow[],
      face: Shell,
      choice: BoxChoice,
      book: PriceBook,
    ) => windowBoxes(survey, revealsOf(survey, depths), units, face, choice, book),
  );
  const boxedSame = memoLast(
    (boxed: Boxed) => boxed,
    ([a], [b]) => JSON.stringify([...a]) === JSON.stringify([...b]),
  );
  const linedSame = memoLast((list: readonly Lined[]) => list, sameList);
  const hung = memoLast(curtainsAcross);
  const arched = memoLast(archBoxes);
  const overDoors = memoLast(headerBoxes);
  const heldIn = memoLast(
    (windows: Linings['windowBoxes'], over: Linings['archBoxes'], headers: Linings['headers'], book: PriceBook) =>
      boxesHeld({ windowBoxes: windows, archBoxes: over, headers }, book),
  );
  const doors = memoLast(doorLinings);
  const bent = memoLast(cornerPieces);
  const rowsOf = memoLast(
    (
      leftDepth: BuildUpDepth,
      rightDepth: BuildUpDepth,
      leftChoice: LiningChoice,
      rightChoice: LiningChoice,
      aroundLeft: Around,
      aroundRight: Around,
      left: Laid | null,
      right: Laid | null,
    ): ReturnType<typeof sharedRows> =>
      sharedRows(
        [
          { laid: left, depth: leftDepth, choice: leftChoice, around: aroundLeft },
          { laid: right, depth: rightDepth, choice: rightChoice, around: aroundRight },
        ].flatMap(({ laid, depth, choice, around }) => {
          const face = faceLayer(depth);
          if (!face || !laid || (schoolOf(choice, face.material) === 'sheets' && groovePitch(choice) <= 0)) return [];
          const ground = groundOf({ ...around, unrolled: laid.unrolled, depth, choice, floor: laid.shell.floor });
          return [{ ground, choice, material: face.material }];
        }),
      ),
  );
  // rows that come out the same are the same: a unit that moved along one wall does not line the other anew
  const rowsKept = memoLast(
    (rows: ReturnType<typeof sharedRows>) => rows,
    ([a], [b]) => JSON.stringify(a) === JSON.stringify(b),
  );
  return (input) => {
    const { bare, inner, depths, survey, linings, settings, book } = input;
    if (!bare || !inner) return NOTHING;
    const insets = JSON.stringify(insetsOf(depths));
    const trim = materialOf(book, input.boxes.trim);
    // a surface that ends in nothing that is cut is not laid flat
    const faceOf = (surface: Lined) => faceLayer(depths[surface]);
    const windows = boxes(survey, depths, input.units.all, inner, input.boxes, book);
    const boxed = boxedSame(new Map(windows.map(({ opening, outside }) => [opening, outside])));
    const on = makers.map(({ surface, around, flat, line }) => ({
      surface,
      line,
      around: around(input, boxed),
      choice: liningOn(linings, surface),
      laid: faceOf(surface) === null ? null : flat(bare, insets, (faceOf(surface)?.thickness ?? 0) / 2),
    }));
    const [left, right] = (['left', 'right'] as const).map((side) => on.find(({ surface }) => surface === side));
    const rows =
      left && right
        ? rowsKept(
            rowsOf(
              depths.left,
              depths.right,
              left.choice,
              right.choice,
              left.around,
              right.around,
              left.laid,
              right.laid,
            ),
          )
        : null;
    const overArches = arched(input.arches, inner, input.boxes, book);
    const headers = overDoors(input.headers, survey, inner, input.boxes, book);
    const surfaces = linedSame(on.flatMap(({ surface: one, laid }) => (laid === null ? [] : [one])));
    const lined = on.flatMap(({ surface, line, around, choice, laid }): Lining[] => {
      const upon = surface === 'left' || surface === 'right' ? rows : null;
      const made = laid && line(laid, depths[surface], choice, around, settings, book, upon, trim, surfaces);
      return made ? [made] : [];
    });
    const ceiling = lined.find(({ surface }) => surface === 'ceiling') ?? null;
    return {
      linings: lined,
      curtains: hung(input.boxes, inner, input.arches, input.units.all, ceiling),
      windowBoxes: windows,
      archBoxes: overArches,
      headers,
      corners: bent(input.corners, settings.cutting.kerf, input.boxes, book),
      doors: doors(survey, depths.doors, input.doorLining, liningOn(linings, 'left').undersize, inner, book, boxed),
      boxesHeld: heldIn(windows, overArches, headers, book),
    };
  };
}
