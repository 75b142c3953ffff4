import type { Problem } from './derived.js';
import type { ArchResult } from '../shell/arch.js';
import type { MaterialPlan } from '../cutting/plan/cutting-room.js';
import { AS_SAWN_MM } from '../cutting/plan/planned.js';
import type { Part } from '../parts/part.js';
import type { RibMap, RibProblem } from '../shell/ribs.js';
import type { openingProblems } from '../shell/openings.js';
import type { BuildUpDepths } from '../layers/buildup.js';
import type { RunBought } from '../furniture/runs-bought.js';
import type { MadeUnit } from '../furniture/make.js';
import type { Linings } from '../lining/linings.js';
import type { LinedFloor } from '../lining/floor/floor.js';
import type { OnRoof } from '../shell/on-roof.js';
import type { holeProblems } from './hole-problems.js';
import type { ShellResult } from '../shell/build.js';
import type { Shell } from '../shell/shell.js';
import type { FaceFixing } from '../layers/knock-on.js';
import type { FloorChoice } from '../document/schema.js';
import { message, mm, type Message } from '../words/message.js';
import type { ShapeMoved } from '../parts/drawn-shape.js';

/** How what is cut is drawn since. */
function redrawn(part: string, { outline, openings, was, now }: ShapeMoved): Message {
  if (was !== now) return message('cut.conflict.count', { part, was, now });
  return outline >= openings
    ? message('cut.conflict.outline', { part, amount: mm(outline) })
    : message('cut.conflict.openings', { part, amount: mm(openings) });
}

/** What is cut stays as it is; where the design has moved on, this says what no longer fits. */
function conflictProblem({ part, short, shape }: MaterialPlan['conflicts'][number]): Problem {
  if (shape) return { stage: 'cut', place: part, said: redrawn(part, shape) };
  const most = short && Math.max(short.length, short.width);
  const said =
    short === null || most === null
      ? message('cut.conflict.gone', { part })
      : Math.max(Math.abs(short.length), Math.abs(short.width)) < AS_SAWN_MM
        ? message('cut.conflict.ends', { part })
        : most > 0
          ? message(short.length >= short.width ? 'cut.conflict.short' : 'cut.conflict.narrow', {
              part,
              amount: mm(most),
            })
          : message('cut.conflict.over', { part, length: mm(-short.length), width: mm(-short.width) });
  return { stage: 'cut', place: part, said };
}

/** Why a part goes on nothing that is sold, with what the largest gives once its edges are trimmed, and the ways out. */
function tooLarge(
  part: string,
  why: MaterialPlan['plan']['unplaced'][number]['why'],
  job: MaterialPlan['job'],
  material: MaterialPlan['material'],
): Message {
  const size = job.parts.find((candidate) => candidate.id === part);
  const [length, width] = [size?.length ?? null, size?.width ?? null];
  const trimmed = typeof job.trim === 'number' ? { length: job.trim, width: job.trim } : job.trim;
  const sold = job.stock.filter(({ offcut }) => !offcut);
  if (job.kind === 'bar') {
    const longest = sold.reduce((most, stock) => Math.max(most, stock.length), 0);
    return length !== null && longest > 0 && why !== 'stock'
      ? message('cut.tooLarge.bar', { part, length: mm(length), material: material.name, longest: mm(longest) })
      : message('cut.tooLarge.stock', { part, material: material.name });
  }
  const sheet = [...sold].sort((a, b) => b.length * (b.width ?? 0) - a.length * (a.width ?? 0))[0];
  if (length === null || width === null || !sheet || why === 'stock')
    return message('cut.tooLarge.stock', { part, material: material.name });
  const asBought = sold.some((stock) => length <= stock.length && width <= (stock.width ?? 0));
  const named = { part, length: mm(length), width: mm(width), material: material.name };
  const trim = mm(Math.max(trimmed?.length ?? 0, trimmed?.width ?? 0));
  if (asBought) return message('cut.tooLarge.trim', { ...named, trim });
  return message(`cut.tooLarge.${why}`, {
    ...named,
    trim,
    sheetLength: mm(sheet.length - 2 * (trimmed?.length ?? 0)),
    sheetWidth: mm((sheet.width ?? 0) - 2 * (trimmed?.width ?? 0)),
  });
}

export function cutProblems(plans: readonly MaterialPlan[], without: readonly Part[]): Problem[] {
  return [
    ...plans.flatMap(({ plan, job, material }) =>
      plan.unplaced.map(({ part, why }): Problem => ({
        stage: 'cut',
        place: part,
        said: tooLarge(part, why, job, material),
      })),
    ),
    ...plans.flatMap(({ job, sheets, material }) =>
      job.stock.flatMap((stock): Problem[] => {
        const used = sheets.filter((sheet) => !sheet.begun && sheet.offcut === null && sheet.stock === stock.id).length;
        return stock.quantity !== null && used > stock.quantity
          ? [
              {
                stage: 'cut',
                place: material.id,
                said: message('cut.stockShort', {
                  material: material.name,
                  used,
                  stocked: stock.quantity,
                  length: mm(stock.length),
                }),
              },
            ]
          : [];
      }),
    ),
    ...plans.flatMap(({ conflicts }) => conflicts.map(conflictProblem)),
    ...without.map((part): Problem => ({
      stage: 'cut',
      place: part.id,
      said: message('cut.notSold', { part: part.id, material: part.material }),
    })),
  ];
}

/** What the problems of everything up to the parts are read from. */
interface ShapeProblemsInput {
  readonly built: ShellResult;
  readonly openings: ReturnType<typeof openingProblems>;
  readonly ribs: readonly RibProblem[];
  /** Openings that run through a rib. */
  readonly cut: RibMap['cut'];
  readonly found: ArchResult;
  readonly depth: BuildUpDepths;
  readonly inner: Shell | null;
  /** What is wrong with the places of holes. */
  readonly into: ReturnType<typeof holeProblems>;
  /** Openings of the roof that would be cut into what is on it. */
  readonly onRoof: readonly OnRoof[];
  readonly floor: LinedFloor;
  readonly lined: Linings;
  readonly made: readonly MadeUnit[];
  readonly bought: readonly RunBought[];
  /** The windows that a curtain is wanted at. */
  readonly curtains: readonly string[];
}

/** Everything that is wrong with readings, layers and linings, each at its place. */
export function shapeProblems({
  built,
  openings,
  ribs,
  cut,
  found,
  depth,
  inner,
  into,
  onRoof,
  floor,
  lined,
  made,
  bought,
  curtains,
}: ShapeProblemsInput): readonly Problem[] {
  const thick: Problem[] =
    built.shell && !inner
      ? [
          {
            stage: 'layers',
            place: 'layers',
            said: message('layers.tooThick', {
              floor: mm(depth.floor.total),
              left: mm(depth.left.total),
              right: mm(depth.right.total),
              ceiling: mm(depth.ceiling.total),
            }),
          },
        ]
      : [];
  return [
    ...built.problems.map((p): Problem => ({ stage: 'measure', place: p.address ?? 'survey', said: p.said })),
    ...ribs.map((p): Problem => ({ stage: 'measure', place: p.address, said: p.said })),
    // a maker's window may sit over a rib that was made for it, and is told with the lining; a hole in the roof is sawn by whoever builds
    ...cut
      .filter(({ opening }) => opening.kind !== 'window')
      .map(({ opening, ribs: through }): Problem => ({
        stage: 'measure',
        place: `opening/${opening.id}/from`,
        said: message('opening.cutsRib', {
          name: opening.name,
          ribs: through.map(({ name }) => name).join(', '),
        }),
      })),
    ...onRoof.map(({ opening, name, against, over }): Problem => ({
      stage: 'measure',
      place: `opening/${opening}/from`,
      said: message('opening.onRoof', { name, against, over: mm(over) }),
    })),
    ...openings.map((p): Problem => ({ stage: 'measure', place: p.address, said: p.said })),
    ...found.problems.map((p): Problem => ({ stage: 'measure', place: p.address, said: p.said })),
    ...thick,
    ...into.map(({ place, said }): Problem => ({ stage: 'measure', place, said })),
    ...made.flatMap(({ problems }) => problems.map(({ said, place }): Problem => ({ stage: 'build', place, said }))),
    ...bought.flatMap(({ run, problem }): Problem[] =>
      problem ? [{ stage: 'layout', place: run, said: problem }] : [],
    ),
    ...floor.problems.map(({ said, hatch }): Problem => ({ stage: 'build', place: hatch, said })),
    ...lined.linings.flatMap(({ surface, problems }) =>
      problems.map((said): Problem => ({ stage: 'build', place: surface, said })),
    ),
    ...lined.corners.flatMap(({ id, problems }) =>
      problems.map((said): Problem => ({ stage: 'build', place: id, said })),
    ),
    ...lined.headers.flatMap(({ id, problems }) =>
      problems.map((said): Problem => ({ stage: 'build', place: id, said })),
    ),
    ...(lined.doors.held && lined.doors.held.fixing.pick === null
      ? [
          {
            stage: 'build' as const,
            place: 'doors',
            said: message('doors.noScrew', {
              least: mm(lined.doors.held.fixing.least),
              most: mm(lined.doors.held.fixing.most),
            }),
          },
        ]
      : []),
    ...lined.windowBoxes
      .filter(({ opening, track }) => track === null && curtains.includes(opening))
      .map(({ opening, name }): Problem => ({
        stage: 'build',
        place: opening,
        said: message('curtain.noTrack', { name }),
      })),
    ...lined.curtains
      .filter(({ curtain }) => curtain.high || curtain.blocked)
      .map(({ id, name, curtain }): Problem => ({
        stage: 'build',
        place: id,
        said: message(curtain.blocked ? 'curtain.blocked' : 'curtain.high', { name }),
      })),
    ...lined.archBoxes.flatMap(({ arch, problems }) =>
      problems.map((said): Problem => ({ stage: 'build', place: arch, said })),
    ),
  ];
}

/**
 * A board that is to be screwed down, and nothing it could be screwed to, or no stocked screw that neither falls short nor comes
 * out below; and one laid loose whose sheets came bowed.
 * @param bowed names of the floor's boards that did
 */
export function floorScrewProblems(
  floor: LinedFloor,
  board: boolean,
  fixing: FloorChoice['fixing'],
  face: FaceFixing | null,
  bowed: readonly string[] = [],
): Problem[] {
  // what nothing holds down lies flat only if it is flat
  if (board && fixing === 'loose' && bowed.length > 0)
    return [{ stage: 'build', place: 'floor', said: message('floor.bowedLoose', { names: bowed.join(', ') }) }];
  if (!board || fixing === 'loose') return [];
  if (face && floor.screws.length > 0)
    return face.pick === null
      ? [
          {
            stage: 'build',
            place: 'floor',
            said: message('floor.noScrew', { least: mm(face.least), most: mm(face.most) }),
          },
        ]
      : [];
  return fixing === 'screwed' ? [{ stage: 'build', place: 'floor', said: message('floor.nothingToScrewTo') }] : [];
}
