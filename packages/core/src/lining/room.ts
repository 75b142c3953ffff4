import type { Fitting, Lined, PriceBook, Project, Settings, Survey, Unit } from '../project/schema.js';
import type { BuildUpDepth, BuildUpDepths } from '../layers/buildup.js';
import { insetsOf } from '../layers/buildup.js';
import { revealsOf } from '../layers/knock-on.js';
import type { ArchShape } from '../shell/arch.js';
import { innerShell } from '../shell/inner.js';
import type { RibMap } from '../shell/ribs.js';
import type { Shell } from '../shell/shell.js';
import { memoLast } from '../project/memo.js';
import { archBoxes, type ArchBox } from './arch-box.js';
import { faceLayer, groundOf, liningOf, schoolOf, sharedRows, type Lining } from './lining.js';
import { unroll } from './unrolled.js';
import { windowBoxes, type WindowBox } from './window-box.js';

export const LINED: readonly Lined[] = ['left', 'right', 'ceiling'];

/** Everything the room is lined with. */
export interface LinedRoom {
  readonly linings: readonly Lining[];
  readonly windowBoxes: readonly WindowBox[];
  readonly archBoxes: readonly ArchBox[];
}
const NOTHING: LinedRoom = { linings: [], windowBoxes: [], archBoxes: [] };

export interface LinedRoomInput {
  readonly bare: Shell | null;
  readonly inner: Shell | null;
  readonly depths: BuildUpDepths;
  readonly survey: Survey;
  readonly units: readonly Unit[];
  readonly arches: readonly ArchShape[];
  readonly fittings: readonly Fitting[];
  readonly linings: Project['linings'];
  readonly ribs: RibMap;
  readonly settings: Settings;
  readonly book: PriceBook;
}

/** A maker of linings that works again only on the surfaces whose own input has changed. */
export function createLinedRoom(): (input: LinedRoomInput) => LinedRoom {
  const flat = Object.fromEntries(
    LINED.map((surface) => [
      surface,
      memoLast((bare: Shell, depths: BuildUpDepths, back: number) => {
        const insets = insetsOf(depths);
        const shell = innerShell(bare, { ...insets, [surface]: insets[surface] - back });
        return shell && { shell, unrolled: unroll(shell, surface) };
      }),
    ]),
  );
  const one = Object.fromEntries(
    LINED.map((surface) => [surface, memoLast((...args: LiningArgs) => liningOf(inputOf(surface, args)))]),
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
  const rowsOf = memoLast((...[depths, linings, survey, units, arches, fittings, ribs, left, right]: RowArgs) =>
    sharedRows(
      [
        { surface: 'left' as const, laid: left },
        { surface: 'right' as const, laid: right },
      ].flatMap(({ surface, laid }) => {
        const face = faceLayer(depths[surface]);
        const choice = linings[surface];
        if (!face || !laid || schoolOf(choice, face.material) === 'sheets') return [];
        const ground = groundOf({
          unrolled: laid.unrolled,
          depth: depths[surface],
          choice,
          survey,
          units,
          arches,
          fittings,
          ribs,
          floor: laid.shell.floor,
        });
        return [{ ground, choice, material: face.material }];
      }),
    ),
  );
  return ({ bare, inner, depths, survey, units, arches, fittings, linings, ribs, settings, book }) => {
    if (!bare || !inner) return NOTHING;
    const laid = Object.fromEntries(
      LINED.map((surface) => [
        surface,
        flat[surface]?.(bare, depths, (faceLayer(depths[surface])?.thickness ?? 0) / 2),
      ]),
    );
    const rows = rowsOf(
      depths,
      linings,
      survey,
      units,
      arches,
      fittings,
      ribs,
      laid['left'] ?? null,
      laid['right'] ?? null,
    );
    return {
      linings: LINED.flatMap((surface): Lining[] => {
        const on = laid[surface];
        if (!on) return [];
        const made = one[surface]?.(
          on,
          depths[surface],
          linings[surface],
          survey,
          units,
          arches,
          fittings,
          ribs,
          settings,
          book,
          surface === 'ceiling' ? null : rows,
        );
        return made ? [made] : [];
      }),
      windowBoxes: boxes(survey, depths, units, inner, linings.boxes, book),
      archBoxes: arched(arches, inner, linings.boxes, book),
    };
  };
}

type Laid = { readonly shell: Shell; readonly unrolled: ReturnType<typeof unroll> };
type LiningArgs = readonly [
  laid: Laid,
  depth: BuildUpDepth,
  choice: Project['linings']['left'],
  survey: Survey,
  units: readonly Unit[],
  arches: readonly ArchShape[],
  fittings: readonly Fitting[],
  ribs: RibMap,
  settings: Settings,
  book: PriceBook,
  rows: ReturnType<typeof sharedRows>,
];
type RowArgs = readonly [
  depths: BuildUpDepths,
  linings: Project['linings'],
  survey: Survey,
  units: readonly Unit[],
  arches: readonly ArchShape[],
  fittings: readonly Fitting[],
  ribs: RibMap,
  left: Laid | null,
  right: Laid | null,
];

const inputOf = (
  surface: Lined,
  [laid, depth, choice, survey, units, arches, fittings, ribs, settings, book, rows]: LiningArgs,
): Parameters<typeof liningOf>[0] => ({
  surface,
  shell: laid.shell,
  unrolled: laid.unrolled,
  depth,
  choice,
  survey,
  units,
  arches,
  fittings,
  ribs,
  settings,
  book,
  rows,
});
