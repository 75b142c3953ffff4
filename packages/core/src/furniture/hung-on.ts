import type { Bay } from '../document/unit-schema.js';
import type { WordKey } from '../words/en.js';
import { message } from '../words/message.js';
import type { Frame } from './carcass-boards.js';
import type { Divider, PlacedBay } from './division.js';
import type { FurnitureProblem } from './skeleton.js';

/** Which edges of a bay have a board that a hinge is screwed to. */
export interface Edges {
  readonly front: boolean;
  readonly rear: boolean;
  readonly foot: boolean;
  readonly head: boolean;
}
const TOUCH_MM = 1;
const apart = (a: number, b: number): boolean => Math.abs(a - b) > TOUCH_MM;

/** The boards round a bay: the ends, the bottom and the head of its carcass, and the dividers that reach along all of it. */
export function edgesOf(frame: Frame, dividers: readonly Divider[], { inside }: PlacedBay): Edges {
  const { x0, x1, z0, z1 } = inside;
  const beside = (at: (from: number) => number, edge: number): boolean =>
    dividers.some(
      (one) =>
        one.cut === 'along' &&
        !apart(at(one.at), edge) &&
        one.inside.z0 <= z0 + TOUCH_MM &&
        one.inside.z1 >= z1 - TOUCH_MM,
    );
  const level = (at: (from: number) => number, edge: number): boolean =>
    dividers.some(
      (one) =>
        one.cut === 'up' &&
        !apart(at(one.at), edge) &&
        one.inside.x0 <= x0 + TOUCH_MM &&
        one.inside.x1 >= x1 - TOUCH_MM,
    );
  const behind = (from: number): number => from + frame.thick;
  const before = (from: number): number => from;
  // an edge that no divider makes is the carcass's own
  const ceiling = frame.head === 'board' ? frame.carcassTop - frame.thick : frame.carcassTop;
  return {
    front: !apart(x0, frame.insideFrom) || beside(behind, x0),
    rear: !apart(x1, frame.insideTo) || beside(before, x1),
    foot: !apart(z0, frame.bottom + frame.thick) || level(behind, z0),
    head: level(before, z1) || (frame.head !== 'open' && !apart(z1, ceiling)),
  };
}

const HANGS: Partial<Record<Bay['front']['kind'], WordKey>> = {
  doors: 'furniture.doorHangs',
  sliding: 'furniture.slidingHangs',
};
/** What would hang on nothing, told once for its bay. */
export const hangsOnNothing = (frame: Frame, { bay }: PlacedBay): FurnitureProblem => ({
  place: `${frame.unit.id}.${bay.name}`,
  said: message(HANGS[bay.front.kind] ?? 'furniture.flapHangs', { unit: frame.unit.name, bay: bay.name }),
});

/** What a bay holds that is screwed to boards at both of its ends. */
const AT_BOTH_ENDS: Partial<Record<Bay['holds']['kind'], WordKey>> = {
  shelves: 'holds.shelves',
  drawers: 'holds.drawers',
  'pull-out': 'holds.pullOut',
  rail: 'holds.rail',
};
/** What a bay holds between its ends, where one of them is missing. */
export function heldAtOneEnd(frame: Frame, dividers: readonly Divider[], placed: PlacedBay): FurnitureProblem | null {
  const { holds, name } = placed.bay;
  const word = AT_BOTH_ENDS[holds.kind];
  // a rail from front to back is held by what is over it
  if (word === undefined || (holds.kind === 'rail' && holds.along === 'depth')) return null;
  const { front, rear } = edgesOf(frame, dividers, placed);
  if (front && rear) return null;
  return {
    place: `${frame.unit.id}.${name}`,
    said: message('furniture.oneEnd', { unit: frame.unit.name, bay: name, what: { word } }),
  };
}

/** How far what slides out of a bay would reach into its doors, opened square to the front, mm; 0 or less where it passes them. */
export function meetsDoors(frame: Frame, { bay, front }: PlacedBay, edges: Edges, x0: number, x1: number): number {
  if (bay.front.kind !== 'doors') return 0;
  const { thickness } = frame.facing;
  const single = bay.front.count === 1;
  const [atFront, atRear] = [!single || hangsAtFront(edges), !single || !hangsAtFront(edges)];
  return Math.max(atFront ? front.x0 + thickness - x0 : 0, atRear ? x1 - (front.x1 - thickness) : 0);
}
/** A single door hangs at the front, or at the rear where only that end of its bay has a board. */
export const hangsAtFront = ({ front, rear }: Edges): boolean => front || !rear;

/** A thing that neither hangs in what lies on the unit nor has a board under it. */
export function standsOnNothing(
  frame: Frame,
  dividers: readonly Divider[],
  placed: PlacedBay,
): FurnitureProblem | null {
  const { holds, name } = placed.bay;
  const thing = holds.kind === 'thing' ? frame.room.things.find(({ id }) => id === holds.thing) : undefined;
  const underTop = placed.inside.z1 >= frame.carcassTop - frame.thick - TOUCH_MM;
  if (!thing || (thing.cutOut && underTop && frame.top && !frame.top.lids)) return null;
  return edgesOf(frame, dividers, placed).foot
    ? null
    : {
        place: `${frame.unit.id}.${name}`,
        said: message('furniture.onNothing', { unit: frame.unit.name, bay: name, thing: thing.name }),
      };
}
