import { endOf, frontLineOf } from '../document/body.js';
import { familyNamed } from '../document/kit.js';
import { thingIn } from '../document/layout-changes.js';
import type { Person, Pet, PriceBook, Stored, Thing, Unit } from '../document/schema.js';
import type { Den } from '../document/unit-schema.js';
import { UPHOLSTERY_KG_M3, type MassPoint } from '../furniture/mass-point.js';
import type { SceneFamily } from '../furniture/scene.js';
import type { Skeleton } from '../furniture/skeleton.js';
import { boxOf } from '../numeric/plane.js';
import { partMass, type Part } from '../parts/part.js';
import type { SolidBox } from '../rules/room.js';
import { halfWidth, roofHeight, type Shell } from '../shell/shell.js';
import type { MassFigures } from './mass.js';

/** A person whose mass is not entered weighs so much, kg. */
export const PERSON_KG = 75;
/** Who has no seat among the units rides in the cab, so far before the front datum, mm. */
const CAB_X_MM = -700;

const middles = new WeakMap<Part, readonly [number, number, number]>();
/** The middle of a part, worked out once. */
function middleOf(part: Part): readonly [number, number, number] {
  const before = middles.get(part);
  if (before) return before;
  const middle = blankMiddle(part);
  middles.set(part, middle);
  return middle;
}

/** The middle of a part's blank in the vehicle, mm. */
function blankMiddle({ outline, thickness, place }: Part): readonly [number, number, number] {
  const { minX, maxX, minY, maxY } = boxOf(outline.outer);
  const [u, v] = [(minX + maxX) / 2, (minY + maxY) / 2];
  const at = (i: 0 | 1 | 2): number =>
    place.origin[i] + place.along[i] * u + place.across[i] * v + place.thick[i] * (thickness / 2);
  return [at(0), at(1), at(2)];
}

/** The middle of where an animal lies, mm; nothing where its bay is not there. */
function denMiddle(
  at: Den['at'],
  skeletons: ReadonlyMap<string, Skeleton>,
  inner: Shell,
): readonly [number, number, number] | undefined {
  if (!('unit' in at)) return [at.x, at.y, inner.floor + LYING_MIDDLE_MM];
  const room = skeletons.get(at.unit)?.bays?.find(({ bay }) => bay.name === at.bay)?.room;
  return room && [(room.x0 + room.x1) / 2, (room.y0 + room.y1) / 2, room.z0 + LYING_MIDDLE_MM];
}
/** The middle of an animal that lies is about so high, mm. */
const LYING_MIDDLE_MM = 150;

export interface PointsInput {
  readonly parts: readonly Part[];
  readonly mass: MassFigures;
  readonly units: readonly Unit[];
  readonly skeletons: ReadonlyMap<string, Skeleton>;
  /** Mattresses and cushions: the block that each is, and all of its volume, mm3. */
  readonly softs: readonly { readonly unit: string; readonly box: SolidBox; readonly volume: number }[];
  readonly things: readonly Thing[];
  readonly stored: readonly Stored[];
  readonly people: readonly Person[];
  readonly pets: readonly Pet[];
  readonly dens: readonly Den[];
  readonly families: readonly SceneFamily[];
  readonly inner: Shell;
  readonly book: PriceBook;
  /** A trailer: nobody rides in it. */
  readonly trailer: boolean;
}

/**
 * Everything that is built in, kept or seated, with where its middle is: each part of a unit, its mattress and cushions, each surface as a whole, things
 * empty and what they hold when full, goods, people on their seats and animals where they lie, or in the cab.
 */
export function massPoints(input: PointsInput): readonly MassPoint[] {
  const { parts, mass, units, skeletons, things, stored, people, pets, dens, families, inner, book } = input;
  const x = (inner.start + inner.length) / 2;
  const surfaceAt = (id: string): readonly [number, number, number] => {
    const roof = roofHeight(inner, x, 0);
    if (id === 'left') return [x, -halfWidth(inner, 'left', x, 900), 900];
    if (id === 'right') return [x, halfWidth(inner, 'right', x, 900), 900];
    if (id === 'ceiling') return [x, 0, roof];
    if (id === 'rear' || id === 'doors') return [inner.length, 0, 900];
    if (id === 'front') return [inner.start, 0, 900];
    return [x, 0, inner.floor];
  };
  const names = new Map(units.map((unit) => [unit.id, unit.name]));
  const nameOf = (id: string): string => names.get(id) ?? id;
  const points: MassPoint[] = [];
  for (const part of parts) {
    const kg = part.unit === null ? null : partMass(part, book);
    if (part.unit !== null && kg !== null)
      points.push({ kg, at: middleOf(part), kind: 'unit', unit: part.unit, name: nameOf(part.unit) });
  }
  for (const { unit, box, volume } of input.softs)
    points.push({
      kg: (volume / 1e9) * UPHOLSTERY_KG_M3,
      at: [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2, (box.z0 + box.z1) / 2],
      kind: 'soft',
      unit,
      name: nameOf(unit),
    });
  for (const { id, kind, kg } of mass.of)
    if (kind === 'surface') points.push({ kg, at: surfaceAt(id), kind: 'surface', unit: null, name: id });
  const put = (thing: Thing, at: readonly [number, number, number], unit: string): void => {
    points.push({ kg: thing.mass, at, kind: 'thing', unit, name: thing.name });
    if (thing.holds > 0) points.push({ kg: thing.holds, at, kind: 'contents', unit, name: thing.name });
  };
  for (const unit of units) {
    const own = familyNamed(families, unit.family)?.is?.(unit) ?? null;
    const alone = own === null ? undefined : things.find(({ id }) => id === own);
    const { body } = unit;
    const backed = alone && frontLineOf(unit);
    // bought and cut to the wall: it weighs a little less than its sheet says
    if (alone && backed)
      put(
        alone,
        [
          body.x + body.length / 2,
          backed.sign * (backed.front + alone.depth / 2),
          inner.floor + (body.from + body.to) / 2,
        ],
        unit.id,
      );
    if (alone && body.stands === 'free')
      put(alone, [body.x + body.length / 2, body.y + body.width / 2, inner.floor + (body.from + body.to) / 2], unit.id);
    for (const { bay, room } of skeletons.get(unit.id)?.bays ?? []) {
      const at: readonly [number, number, number] = [
        (room.x0 + room.x1) / 2,
        (room.y0 + room.y1) / 2,
        (room.z0 + room.z1) / 2,
      ];
      const id = thingIn(bay);
      const thing = id === null ? undefined : things.find((one) => one.id === id);
      if (thing) put(thing, at, unit.id);
      for (const goods of stored)
        if (goods.kept?.unit === unit.id && goods.kept.bay === bay.name)
          points.push({ kg: goods.mass * goods.count, at, kind: 'goods', unit: unit.id, name: goods.name });
    }
  }
  if (!input.trailer) {
    for (const person of people) {
      const seat = units.find((unit) => {
        const { sitters } = unit.options;
        return Array.isArray(sitters) && sitters.includes(person.id);
      });
      const line = seat && frontLineOf(seat);
      const at: readonly [number, number, number] =
        seat && line
          ? [(seat.body.x + endOf(seat)) / 2, line.sign * (line.front + 200), inner.floor + seat.body.to]
          : [CAB_X_MM, 0, inner.floor + 400];
      points.push({ kg: person.mass ?? PERSON_KG, at, kind: 'person', unit: seat?.id ?? null, name: person.name });
    }
    // an animal rides where it lies, or in the cab while nobody has said
    for (const pet of pets) {
      if (pet.mass === undefined) continue;
      const den = dens.find((one) => one.pet === pet.id);
      const lies = den && denMiddle(den.at, skeletons, inner);
      points.push({
        kg: pet.mass,
        at: lies ?? [CAB_X_MM, 0, inner.floor + 400],
        kind: 'person',
        unit: null,
        name: pet.name,
      });
    }
  }
  return points;
}
