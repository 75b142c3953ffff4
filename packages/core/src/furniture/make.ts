import { familyNamed } from '../document/kit.js';
import type { PriceBook } from '../document/schema.js';
import { noSheetIn } from '../document/soundness.js';
import type { Unit } from '../document/unit-schema.js';
import { materialOf } from '../materials/material.js';
import { message, mm } from '../words/message.js';
import type { Family, Surroundings } from './family.js';
import { hardwareOfMotions } from './hardware.js';
import { NOTHING_MADE, type Made, type School } from './school.js';
import { thinIn, type Skeleton } from './skeleton.js';

/** A unit worked out: its boards and what touches what, and what they are made into. */
export interface MadeUnit extends Made {
  readonly unit: string;
  readonly skeleton: Skeleton | null;
}

/**
 * Makes a unit: its family says which boards there are, its school how they are made. What cannot be made is a problem
 * with a place: an unknown material, family or school gives no parts at all rather than parts of no thickness.
 */
export function makeUnit(
  unit: Unit,
  room: Surroundings,
  families: readonly Family[],
  schools: readonly School[],
): MadeUnit {
  const family = familyNamed(families, unit.family);
  const school = schools.find((candidate) => candidate.id === unit.school);
  const missing = Object.values(unit.materials).find((id) => materialOf(room.book, id) === null);
  const fault =
    missing !== undefined
      ? message('furniture.material', { unit: unit.name, material: missing })
      : !family || !school
        ? message('furniture.unknown', { unit: unit.name, what: family ? unit.school : unit.family })
        : (noSheetIn(unit, family, room.book)[0]?.said ?? null);
  if (fault || !family || !school)
    return {
      ...NOTHING_MADE,
      unit: unit.id,
      skeleton: null,
      problems: fault ? [{ place: unit.id, said: fault }] : [],
    };
  const skeleton = withoutThin(unit, family.skeleton(unit, room), family);
  const made = school.make(unit, skeleton, room.book);
  const moving = hardwareOfMotions(unit, skeleton, room);
  return {
    ...made,
    hardware: [...made.hardware, ...moving.hardware],
    unit: unit.id,
    skeleton,
    problems: [...skeleton.problems, ...made.problems, ...moving.problems],
  };
}

/** The same without boards of which hardly anything is left: each is a problem with its place instead. */
function withoutThin(unit: Unit, skeleton: Skeleton, family: Family): Skeleton {
  const thin = thinIn(skeleton.boards);
  if (thin.length === 0) return skeleton;
  const gone = new Set(thin.map(({ board }) => board.name));
  return {
    ...skeleton,
    boards: skeleton.boards.filter(({ name }) => !gone.has(name)),
    contacts: skeleton.contacts.filter(({ a, b }) => !gone.has(a) && !gone.has(b)),
    problems: [
      ...skeleton.problems,
      ...thin.map(({ board, wide }) => ({
        place: `${unit.id}.${board.name}`,
        said: message('furniture.thin', {
          unit: unit.name,
          board: family.words.roles[board.role] ?? board.role,
          wide: mm(Math.max(0, wide)),
        }),
      })),
    ],
  };
}

/** A made unit with holes in its boards: its joints, hardware and problems stay as they are. */
export function withSkeleton(
  unit: Unit,
  made: MadeUnit,
  skeleton: Skeleton,
  book: PriceBook,
  schools: readonly School[],
): MadeUnit {
  const school = schools.find((candidate) => candidate.id === unit.school);
  return school ? { ...made, skeleton, parts: school.make(unit, skeleton, book).parts } : made;
}
