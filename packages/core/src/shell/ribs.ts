import type { Opening, Rib, Survey } from '../document/schema.js';
import { valueAt } from '../document/address.js';
import { message, mm, type Message } from '../words/message.js';
import { placedOpenings, widthOf } from './openings.js';
import { halfWidth, roofHeight, wallTop, type Shell } from './shell.js';

/** A surface whose ribs stand across its length. */
export const RIBBED = ['left', 'right', 'ceiling'] as const;
export type Ribbed = (typeof RIBBED)[number];

/** A rib on one surface, its place known, mm. */
export interface PlacedRib {
  readonly id: string;
  readonly name: string;
  /** Its middle and the width of its face: at the floor on a wall, at the centre line on the roof. */
  readonly x: number;
  readonly width: number;
  /** How much farther to the rear its middle lies, and how much wider it is, for each mm up the wall or to the right. */
  readonly lean: number;
  readonly widens: number;
  /** Its width where it meets the skin. */
  readonly foot: number;
  /** How far it stands proud of the skin; null while it was not read. */
  readonly proud: number | null;
  /** Its face is flat, so that something can be fixed to it. */
  readonly flat: boolean;
  /** From which height to which on a wall, from which y to which on the roof; null where it runs all the way. */
  readonly from: number | null;
  readonly to: number | null;
}

/** The free space between two neighbouring ribs of one surface. */
export interface RibGap {
  readonly surface: Ribbed;
  readonly between: readonly [string, string];
  readonly from: number;
  readonly to: number;
  readonly clear: number;
}

/** The ribs of one surface, from front to rear. */
export interface SurfaceRibs {
  readonly ribs: readonly PlacedRib[];
  readonly gaps: readonly RibGap[];
  /** How far they stand proud, mm: the shallowest, since what lies between them must fit everywhere; 0 when none was read. */
  readonly depth: number;
}

export interface RibMap {
  readonly on: Readonly<Record<Ribbed, SurfaceRibs>>;
  /** The largest opening that can be cut in each surface without touching a rib, those that have ribs. */
  readonly largest: readonly RibGap[];
  /** Openings that a rib of their own surface runs through: it was cut, or has to be. */
  readonly cut: readonly { readonly opening: Opening; readonly ribs: readonly PlacedRib[] }[];
}

const DEFAULT_WIDTH_MM = 45;
/** A screw in the face of a rib passes it by 6 and stays 5 short of the skin, mm. */
const LEAST_PROUD_MM = 11;

/** Whether a rib is on a surface: a ring runs round both walls and the roof. */
const isOn = (rib: Rib, surface: Ribbed): boolean =>
  rib.on === 'ring' || rib.on === (surface === 'ceiling' ? 'roof' : surface);

/** Whether something can be screwed to a rib: its face is flat, and it is deep enough that the screw misses the skin. */
export const holdsScrews = (rib: PlacedRib): boolean => rib.flat && (rib.proud === null || rib.proud >= LEAST_PROUD_MM);

/** A second reading of a rib that is nearer to the first than this says nothing of how it leans, mm. */
const APART_MM = 100;

/** How a rib leans and widens on one surface; a ring's place on the roof is the one read last on its way up. */
function leanOf(
  survey: Survey,
  rib: Rib,
  surface: Ribbed,
  x: number,
  width: number,
): Pick<PlacedRib, 'x' | 'width' | 'lean' | 'widens'> {
  const read = (what: string): number | null => valueAt(survey, `rib/${rib.id}/${what}`);
  const [high, xHigh] = [read('high'), read('x-high')];
  if (rib.leans !== true || high === null || xHigh === null || Math.abs(high) < APART_MM)
    return { x, width, lean: 0, widens: 0 };
  const wide = read('width-high') ?? width;
  if (rib.on === 'ring' && surface === 'ceiling') return { x: xHigh, width: wide, lean: 0, widens: 0 };
  return { x, width, lean: (xHigh - x) / high, widens: (wide - width) / high };
}

/** From where to where along the vehicle a rib's face lies at a place: a height on a wall, from the centre line on a roof. */
export function ribAt(
  { x, width, lean, widens }: Pick<PlacedRib, 'x' | 'width' | 'lean' | 'widens'>,
  place: number,
): readonly [number, number] {
  const [middle, half] = [x + lean * place, Math.max(0, width + widens * place) / 2];
  return [middle - half, middle + half];
}

/** Places between which two ribs are both read: where what is free between them is least and most. */
const ENDS_MM: Readonly<Record<Ribbed, readonly [number, number]>> = {
  left: [0, 1800],
  right: [0, 1800],
  ceiling: [-800, 800],
};

function ribsOn(survey: Survey, surface: Ribbed): SurfaceRibs {
  const ribs = survey.ribs
    .filter((rib) => isOn(rib, surface))
    .flatMap((rib): PlacedRib[] => {
      const read = (what: string): number | null => valueAt(survey, `rib/${rib.id}/${what}`);
      const x = read('x');
      if (x === null) return [];
      const width = read('width') ?? DEFAULT_WIDTH_MM;
      const whole = rib.on === 'ring';
      const [from, to] = whole ? [null, null] : [read('from'), read('to')];
      const turned = from !== null && to !== null && to <= from;
      return [
        {
          id: rib.id,
          name: rib.name,
          ...leanOf(survey, rib, surface, x, width),
          foot: Math.max(width, (rib.tapers === true ? read('foot') : null) ?? width),
          proud: read('proud'),
          flat: rib.flat,
          from: turned ? null : from,
          to: turned ? null : to,
        },
      ];
    })
    .sort((a, b) => a.x - b.x);
  const gaps = ribs.slice(1).flatMap((rib, i): RibGap[] => {
    const before = ribs[i];
    if (!before) return [];
    // as much as is free all the way
    const places = ENDS_MM[surface].map((end, k) =>
      k === 0 ? Math.max(end, before.from ?? end, rib.from ?? end) : Math.min(end, before.to ?? end, rib.to ?? end),
    );
    const from = Math.max(...places.map((place) => ribAt(before, place)[1]));
    const to = Math.min(...places.map((place) => ribAt(rib, place)[0]));
    return to <= from ? [] : [{ surface, between: [before.name, rib.name], from, to, clear: to - from }];
  });
  const read = ribs.flatMap(({ proud }) => proud ?? []);
  return { ribs, gaps, depth: read.length > 0 ? Math.min(...read) : 0 };
}

/** The surface whose ribs an opening meets. */
const meets = (opening: Opening): Ribbed | null =>
  opening.surface === 'rear' || opening.surface === 'front'
    ? null
    : opening.surface === 'roof'
      ? 'ceiling'
      : opening.surface;

/** Whether a rib reaches to where an opening is, from which height or y to which. */
const reaches = (rib: PlacedRib, low: number, high: number): boolean =>
  (rib.from ?? -Infinity) < high && (rib.to ?? Infinity) > low;

/** Where the ribs of each surface are, what is free between them, and which openings run across one. Doors are framed by the maker. */
export function ribMap(survey: Survey): RibMap {
  const on = { left: ribsOn(survey, 'left'), right: ribsOn(survey, 'right'), ceiling: ribsOn(survey, 'ceiling') };
  return {
    on,
    largest: RIBBED.flatMap((surface) => [...on[surface].gaps].sort((a, b) => b.clear - a.clear)[0] ?? []),
    cut: placedOpenings(survey)
      .filter(({ opening }) => opening.kind !== 'door')
      .flatMap((placed) => {
        const { opening, sill, head } = placed;
        const { from, to } = widthOf(placed);
        const surface = meets(opening);
        const through = (surface ? on[surface].ribs : []).filter((rib) => {
          const [a, b] = [ribAt(rib, sill), ribAt(rib, head)];
          return Math.max(a[1], b[1]) > from && Math.min(a[0], b[0]) < to && reaches(rib, sill, head);
        });
        return through.length > 0 ? [{ opening, ribs: through }] : [];
      }),
  };
}

/** How far the ribs of each surface stand proud, mm. */
export const ribDepths = ({ on }: RibMap): Readonly<Record<Ribbed, number>> => ({
  left: on.left.depth,
  right: on.right.depth,
  ceiling: on.ceiling.depth,
});

/** Places of all ribs, each once, mm. */
export const ribPlaces = ({ on }: RibMap): number[] =>
  [...new Set(RIBBED.flatMap((surface) => on[surface].ribs.map((rib) => rib.x)))].sort((a, b) => a - b);

/** Share of a section that a rib runs along; 1 where it runs all the way or nothing is known. */
function extent(rib: PlacedRib, surface: Ribbed, shell: Shell | null): number {
  if (!shell || (rib.from === null && rib.to === null)) return 1;
  const x = Math.min(shell.length, Math.max(shell.start, rib.x));
  const [low, high] =
    surface === 'ceiling'
      ? [
          -halfWidth(shell, 'left', x, wallTop(shell, 'left', x)),
          halfWidth(shell, 'right', x, wallTop(shell, 'right', x)),
        ]
      : [shell.floor, wallTop(shell, surface, x)];
  const [from, to] = [Math.max(low, rib.from ?? low), Math.min(high, rib.to ?? high)];
  return high <= low ? 1 : Math.min(1, Math.max(0, (to - from) / (high - low)));
}

/**
 * The share of each surface that is ribs: what they take of the stretch between the first and the last, each end of which
 * is half a rib's. 0 for a surface with fewer than two.
 */
export function ribShares({ on }: RibMap, shell: Shell | null): Readonly<Record<Ribbed, number>> {
  const share = (surface: Ribbed): number => {
    const { ribs } = on[surface];
    const [first, last] = [ribs[0], ribs.at(-1)];
    if (!first || !last || last.x <= first.x) return 0;
    const spacing = (last.x - first.x) / (ribs.length - 1);
    const middle = (ENDS_MM[surface][0] + ENDS_MM[surface][1]) / 2;
    const wide = (rib: PlacedRib): number => ribAt(rib, middle)[1] - ribAt(rib, middle)[0];
    const width = ribs.reduce((sum, rib) => sum + wide(rib) * extent(rib, surface, shell), 0) / ribs.length;
    return Math.min(0.5, width / spacing);
  };
  return { left: share('left'), right: share('right'), ceiling: share('ceiling') };
}

/** A rib that cannot be as it was read, with the reading that says so. */
export interface RibProblem {
  readonly said: Message;
  readonly address: string;
}

/** Ribs turned round, past the end, deeper than the room, or over one another on one surface. */
export function ribProblems(survey: Survey, shell: Shell | null): readonly RibProblem[] {
  const { on } = ribMap(survey);
  const told = new Set<string>();
  const own = survey.ribs.flatMap((rib): RibProblem[] => {
    const address = (what: string): string => `rib/${rib.id}/${what}`;
    const read = (what: string): number | null => valueAt(survey, address(what));
    const { name } = rib;
    const [x, proud, from, to] = [read('x'), read('proud'), read('from'), read('to')];
    if (rib.on !== 'ring' && from !== null && to !== null && to <= from)
      return [{ said: message('rib.order', { name }), address: address('to') }];
    if (!shell) return [];
    if (x !== null && x > shell.length)
      return [{ said: message('rib.pastEnd', { name, x: mm(x), length: mm(shell.length) }), address: address('x') }];
    const at = Math.min(shell.length, Math.max(shell.start, x ?? 0));
    const room = rib.on === 'roof' ? roofHeight(shell, at, 0) : halfWidth(shell, 'left', at, shell.floor + 500);
    return proud !== null && proud > room / 2
      ? [{ said: message('rib.tooDeep', { name, proud: mm(proud), room: mm(room) }), address: address('proud') }]
      : [];
  });
  const over = RIBBED.flatMap((surface) =>
    on[surface].ribs.slice(1).flatMap((rib, i): RibProblem[] => {
      const before = on[surface].ribs[i];
      if (!before || !reaches(rib, before.from ?? -Infinity, before.to ?? Infinity)) return [];
      const pair = `${before.id} ${rib.id}`;
      if (before.x + before.width / 2 <= rib.x - rib.width / 2 || told.has(pair)) return [];
      told.add(pair);
      const said = message('rib.over', { name: rib.name, other: before.name });
      return [{ said, address: `rib/${rib.id}/x` }];
    }),
  );
  return [...own, ...over];
}
