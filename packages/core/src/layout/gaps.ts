import { endOf, frontLineOf, spansWalls, standsAt } from '../document/body.js';
import { familyNamed } from '../document/kit.js';
import type { Unit } from '../document/schema.js';
import type { Gap } from '../furniture/family.js';
import type { Scene } from '../furniture/scene.js';
import { solidsOf } from '../furniture/solid.js';
import { spread } from '../numeric/plane.js';
import { narrowOf, widthOf } from '../shell/openings.js';
import { halfWidth, roofHeight } from '../shell/shell.js';
import { archesAt, wayThrough } from './checks/room.js';

/** The way through is kept this wide when a gap's depth is told, mm. */
const WAY_MM = 600;
/** Nothing is as deep as this against a side wall, mm. */
const DEEPEST_MM = 900;
/** A shorter stretch is of no use, mm. */
const SHORTEST_MM = 150;
/** Above this things hang, mm above the finished floor. */
const HIGH_MM = 1200;
const LOW_MM = 900;

type GapScene = Pick<Scene, 'units' | 'inner' | 'openings' | 'families' | 'arches' | 'book' | 'things'>;

/** What a span without the spans in it leaves. */
export function stretchesLeft(
  from: number,
  to: number,
  taken: readonly (readonly [number, number])[],
): [number, number][] {
  const free: [number, number][] = [];
  let at = from;
  for (const [a, b] of [...taken].sort((p, q) => p[0] - q[0])) {
    if (a - at >= SHORTEST_MM) free.push([at, Math.min(a, to)]);
    at = Math.max(at, b);
  }
  if (to - at >= SHORTEST_MM) free.push([at, to]);
  return free.filter(([a, b]) => b - a >= SHORTEST_MM);
}

const spanOf = (unit: Unit): readonly [number, number] => [unit.body.x, endOf(unit)];

/** How far out the other side's fronts stand over a stretch, and what stands free: to them or to the other wall, the least, mm. */
function otherSide(scene: GapScene, side: 'left' | 'right', x0: number, x1: number): number {
  const other = side === 'left' ? 'right' : 'left';
  const { units, inner } = scene;
  const fronts = units.flatMap((unit) =>
    (frontLineOf(unit)?.side === other || unit.body.stands === 'free') && unit.body.from < LOW_MM
      ? solidsOf(unit, scene, scene.families).flatMap((box) =>
          box.x0 < x1 && box.x1 > x0 ? [other === 'left' ? -box.y1 : box.y0] : [],
        )
      : [],
  );
  return Math.min(...spread(x0, x1, 7).map((x) => halfWidth(inner, other, x, inner.floor + LOW_MM)), ...fronts);
}

/** Free stretches against one wall at one height. */
function atWall(scene: GapScene, side: 'left' | 'right', zone: 'floor' | 'high'): Gap[] {
  const { units, inner, openings, arches } = scene;
  const high = zone === 'high';
  const standing = units
    .filter((unit) => standsAt(unit, side) || unit.body.stands === 'free')
    .filter((unit) => (high ? unit.body.to > HIGH_MM : unit.body.from < LOW_MM))
    .filter((unit) => unit.body.stands !== 'free' || !high)
    .filter((unit) => {
      if (unit.body.stands !== 'free') return true;
      // what stands free takes the wall only when it stands near it
      const wall = halfWidth(inner, side, unit.body.x, inner.floor + 400);
      return side === 'left' ? unit.body.y < -wall + 300 : unit.body.y + unit.body.width > wall - 300;
    })
    .map(spanOf);
  // a door and a step before it stay free
  const doors = high
    ? []
    : openings
        .filter(({ opening }) => opening.kind === 'door' && opening.surface === side)
        .map((placed): readonly [number, number] => {
          const { from, to } = widthOf(placed);
          return [from, to];
        });
  const steps = high
    ? []
    : arches
        .filter((arch) => arch.kind === 'step' && arch.side === side)
        .map((arch): readonly [number, number] => [arch.from, arch.to]);
  return stretchesLeft(inner.start, inner.length, [...standing, ...doors, ...steps]).map(([from, to]): Gap => {
    const [x0, x1] = [Math.ceil(from), Math.floor(to)];
    const heights = high ? [HIGH_MM + 100] : [50, 450, LOW_MM];
    const wall = Math.min(
      ...spread(x0, x1, 7).flatMap((x) => heights.map((z) => halfWidth(inner, side, x, inner.floor + z))),
    );
    const roof = Math.min(
      ...spread(x0, x1, 5).map((x) => roofHeight(inner, x, (side === 'left' ? -1 : 1) * (wall - 350))),
    );
    const over = units.filter(
      (unit) => standsAt(unit, side) && unit.body.from >= LOW_MM && unit.body.x < x1 && endOf(unit) > x0,
    );
    return {
      where: side,
      zone,
      x0,
      x1,
      z0: high ? HIGH_MM : 0,
      z1: Math.min(roof - inner.floor, ...(high ? [] : over.map((unit) => unit.body.from))),
      deep: high ? 400 : Math.max(0, Math.min(DEEPEST_MM, wall + otherSide(scene, side, x0, x1) - WAY_MM)),
      middle: 0,
      wall,
    };
  });
}

/** The free stretches within the doors of a wall, where they pass at their narrowest. */
function inDoors(scene: GapScene, side: 'left' | 'right'): Gap[] {
  const { inner, units } = scene;
  const standing = units.filter((unit) => standsAt(unit, side)).map(spanOf);
  return scene.openings
    .filter(({ opening }) => opening.kind === 'door' && opening.surface === side)
    .flatMap((door) => {
      const { from, to } = narrowOf(door);
      return stretchesLeft(from, to, standing).flatMap(([a, b]): Gap[] => {
        const [x0, x1] = [Math.max(Math.ceil(a), Math.ceil(from)), Math.min(Math.floor(b), Math.floor(to))];
        if (x1 - x0 < SHORTEST_MM) return [];
        const wall = Math.min(
          ...spread(x0, x1, 7).flatMap((x) => spread(door.sill, door.head, 5).map((z) => halfWidth(inner, side, x, z))),
        );
        return [
          {
            where: side,
            zone: 'door',
            x0,
            x1,
            z0: Math.max(0, door.sill - inner.floor),
            z1: door.head - inner.floor,
            deep: Math.max(0, Math.min(DEEPEST_MM, wall + otherSide(scene, side, x0, x1) - WAY_MM)),
            middle: 0,
            wall,
          },
        ];
      });
    });
}

/** Free stretches of the middle: between fronts, or from wall to wall where nothing stands. */
function inMiddle(scene: GapScene): Gap[] {
  const { units, inner, families, openings } = scene;
  const taken = units
    .filter((unit) => unit.body.from < LOW_MM && (spansWalls(unit) || unit.body.stands === 'free'))
    .filter(
      (unit) =>
        familyNamed(families, unit.family)?.lies !== undefined || unit.body.stands === 'free' || spansWalls(unit),
    )
    .map(spanOf);
  // a wing that comes out of a bench has edges of its own
  const edges = units
    .filter((unit) => frontLineOf(unit) !== null && unit.body.from < LOW_MM)
    .flatMap((unit) => [
      ...spanOf(unit),
      ...solidsOf(unit, scene, families)
        .filter(({ z0 }) => z0 < inner.floor + LOW_MM)
        .flatMap(({ x0, x1 }) => [x0, x1]),
    ]);
  // where nothing is built in there is nothing to walk past
  const standing = units.length > 0;
  const doors = openings
    .filter(({ opening }) => opening.kind === 'door' && (opening.surface === 'left' || opening.surface === 'right'))
    .flatMap(({ from, to }) => [from, to]);
  const cuts = [inner.start, inner.length, ...edges, ...doors]
    .filter((x) => x >= inner.start && x <= inner.length)
    .sort((a, b) => a - b);
  return cuts.slice(1).flatMap((to, i): Gap[] => {
    const from = cuts[i] ?? to;
    return stretchesLeft(from, to, taken).map(([x0, x1]): Gap => {
      const free = (side: 'left' | 'right'): number =>
        otherSide(scene, side === 'left' ? 'right' : 'left', x0 + 1, x1 - 1);
      // arches stand in the way too, and feet go beside them
      const humps = standing ? archesAt(scene).filter((arch) => arch.x0 < x1 && arch.x1 > x0) : [];
      const walked = (side: 'left' | 'right'): number =>
        Math.min(
          free(side),
          ...humps.flatMap(({ y0, y1 }) => (y0 < 0 === (side === 'left') ? [side === 'left' ? -y1 : y0] : [])),
        );
      const wall = Math.min(
        ...spread(x0, x1, 5).flatMap((x) =>
          (['left', 'right'] as const).map((side) => halfWidth(inner, side, x, inner.floor + LOW_MM)),
        ),
      );
      const through = wayThrough(x0, x0, scene);
      return {
        where: 'middle',
        ...(through ? { through } : {}),
        zone: 'floor',
        x0: Math.ceil(x0),
        x1: Math.floor(x1),
        z0: 0,
        z1: Math.min(...spread(x0, x1, 5).map((x) => roofHeight(inner, x, 0))) - inner.floor,
        deep: free('left') + free('right'),
        walked: walked('left') + walked('right'),
        middle: (free('right') - free('left')) / 2,
        wall,
      };
    });
  });
}

/** Every free stretch there is: against both walls on the floor and under the roof, and in the middle. */
export function gapsOf(scene: GapScene): readonly Gap[] {
  return [
    ...(['left', 'right'] as const).flatMap((side) => [
      ...atWall(scene, side, 'floor'),
      ...atWall(scene, side, 'high'),
      ...inDoors(scene, side),
    ]),
    ...inMiddle(scene),
  ];
}

/** The free stretch that is pointed at; null where something stands there. */
export function gapAt(
  gaps: readonly Gap[],
  place: { readonly surface: 'left' | 'right' | 'floor' | 'ceiling'; readonly x: number; readonly along: number },
  floor: number,
): Gap | null {
  const here = gaps.filter(({ x0, x1 }) => place.x >= x0 && place.x <= x1);
  if (place.surface === 'left' || place.surface === 'right')
    return (
      here.find(
        (gap) => gap.where === place.surface && gap.zone === (place.along - floor >= HIGH_MM - 150 ? 'high' : 'floor'),
      ) ??
      here.find(
        (gap) =>
          gap.where === place.surface &&
          gap.zone === 'door' &&
          place.along - floor >= gap.z0 &&
          place.along - floor <= gap.z1,
      ) ??
      null
    );
  const side = place.along < 0 ? 'left' : 'right';
  if (place.surface === 'ceiling') return here.find((gap) => gap.where === side && gap.zone === 'high') ?? null;
  // near a wall the wall's own stretch, else the middle
  const walled = here.find((gap) => gap.where === side && gap.zone === 'floor');
  if (walled && Math.abs(place.along) > walled.wall - Math.max(250, walled.deep * 0.6)) return walled;
  return here.find((gap) => gap.where === 'middle') ?? walled ?? null;
}
