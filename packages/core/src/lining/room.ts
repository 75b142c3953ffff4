import type {
  Corner,
  Fitting,
  Header,
  Lined,
  PriceBook,
  Project,
  Reserved,
  Settings,
  Survey,
  Unit,
} from '../document/schema.js';
import { type BuildUpDepth, type BuildUpDepths, insetsOf } from '../layers/buildup.js';
import { revealsOf } from '../layers/knock-on.js';
import type { ArchShape } from '../shell/arch.js';
import { innerShell } from '../shell/inner.js';
import type { RibMap } from '../shell/ribs.js';
import type { Shell } from '../shell/shell.js';
import { memoLast } from '../numeric/memo.js';
import { archBoxes, type ArchBox } from './boxes/arch-box.js';
import { cornerPieces, type CornerPiece } from './boxes/corner.js';
import { doorLinings, type DoorLinings } from './surface/door-lining.js';
import { faceLayer } from './surface/face.js';
import { groovePitch } from './surface/grooves.js';
import { headerBoxes, type HeaderBox } from './boxes/header-box.js';
import { groundOf, liningOf, schoolOf, sharedRows, type Lining } from './surface/lining.js';
import { unroll } from './surface/unrolled.js';
import { windowBoxes } from './boxes/window-box.js';
import { type WindowBox } from './boxes/box.js';

export const LINED: readonly Lined[] = ['left', 'right', 'ceiling'];

/** Everything the room is lined with. */
export interface LinedRoom {
  readonly linings: readonly Lining[];
  readonly windowBoxes: readonly WindowBox[];
  readonly archBoxes: readonly ArchBox[];
  readonly headers: readonly HeaderBox[];
  readonly corners: readonly CornerPiece[];
  readonly doors: DoorLinings;
}
const NOTHING: LinedRoom = {
  linings: [],
  windowBoxes: [],
  archBoxes: [],
  headers: [],
  corners: [],
  doors: { panels: [], pending: [] },
};

/** What stands round or behind every lining. */
interface Around {
  readonly survey: Survey;
  readonly units: readonly Unit[];
  readonly arches: readonly ArchShape[];
  readonly fittings: readonly Fitting[];
  readonly reserved: readonly Reserved[];
  readonly ribs: RibMap;
}
export interface LinedRoomInput extends Around {
  readonly bare: Shell | null;
  readonly inner: Shell | null;
  readonly depths: BuildUpDepths;
  readonly headers: readonly Header[];
  readonly corners: readonly Corner[];
  readonly linings: Project['linings'];
  readonly settings: Settings;
  readonly book: PriceBook;
}
interface Laid {
  readonly shell: Shell;
  readonly unrolled: ReturnType<typeof unroll>;
}

/** A maker of linings that works again only on the surfaces whose own input has changed. */
export function createLinedRoom(): (input: LinedRoomInput) => LinedRoom {
  // one object for as long as nothing in it changes, so that what depends on all of it has one thing to compare
  const aroundOf = memoLast(
    (
      survey: Survey,
      units: readonly Unit[],
      arches: readonly ArchShape[],
      fittings: readonly Fitting[],
      reserved: readonly Reserved[],
      ribs: RibMap,
    ): Around => ({ survey, units, arches, fittings, reserved, ribs }),
  );
  const flat = Object.fromEntries(
    LINED.map((surface) => [
      surface,
      memoLast((bare: Shell, depths: BuildUpDepths, back: number): Laid | null => {
        const insets = insetsOf(depths);
        const shell = innerShell(bare, { ...insets, [surface]: insets[surface] - back });
        return shell && { shell, unrolled: unroll(shell, surface) };
      }),
    ]),
  );
  const one = Object.fromEntries(
    LINED.map((surface) => [
      surface,
      memoLast(
        (
          laid: Laid,
          depth: BuildUpDepth,
          choice: Project['linings']['left'],
          around: Around,
          settings: Settings,
          book: PriceBook,
          rows: ReturnType<typeof sharedRows>,
        ) => liningOf({ ...around, ...laid, surface, depth, choice, settings, book, rows }),
      ),
    ]),
  );
  const boxes = memoLast(
    (
      survey: Survey,
      depths: BuildUpDepths,
      units: readonly Unit[],
      face: Shell,
      choice: Project['linings']['boxes'],
      book: PriceBook,
    ) => windowBoxes(survey, revealsOf(survey, depths), units, face, choice, book),
  );
  const arched = memoLast(archBoxes);
  const overDoors = memoLast(headerBoxes);
  const doors = memoLast(doorLinings);
  const bent = memoLast(cornerPieces);
  const rowsOf = memoLast(
    (
      depths: BuildUpDepths,
      linings: Project['linings'],
      around: Around,
      left: Laid | null,
      right: Laid | null,
    ): ReturnType<typeof sharedRows> =>
      sharedRows(
        [
          { surface: 'left' as const, laid: left },
          { surface: 'right' as const, laid: right },
        ].flatMap(({ surface, laid }) => {
          const face = faceLayer(depths[surface]);
          const choice = linings[surface];
          if (!face || !laid || (schoolOf(choice, face.material) === 'sheets' && groovePitch(choice) <= 0)) return [];
          const ground = groundOf({
            ...around,
            unrolled: laid.unrolled,
            depth: depths[surface],
            choice,
            floor: laid.shell.floor,
          });
          return [{ ground, choice, material: face.material }];
        }),
      ),
  );
  return (input) => {
    const { bare, inner, depths, survey, units, linings, settings, book } = input;
    if (!bare || !inner) return NOTHING;
    const around = aroundOf(survey, units, input.arches, input.fittings, input.reserved, input.ribs);
    const laid = Object.fromEntries(
      LINED.map((surface) => [
        surface,
        flat[surface]?.(bare, depths, (faceLayer(depths[surface])?.thickness ?? 0) / 2),
      ]),
    );
    const rows = rowsOf(depths, linings, around, laid['left'] ?? null, laid['right'] ?? null);
    return {
      linings: LINED.flatMap((surface): Lining[] => {
        const on = laid[surface];
        const upon = surface === 'ceiling' ? null : rows;
        const made = on && one[surface]?.(on, depths[surface], linings[surface], around, settings, book, upon);
        return made ? [made] : [];
      }),
      windowBoxes: boxes(survey, depths, units, inner, linings.boxes, book),
      archBoxes: arched(input.arches, inner, linings.boxes, book),
      headers: overDoors(input.headers, survey, inner, linings.boxes, book),
      corners: bent(input.corners, settings.cutting.kerf, book),
      doors: doors(survey, depths.doors, linings.doors, linings.left.undersize, inner),
    };
  };
}
