import { clearAcross, strip } from './lying.js';
import type { BaseCupboard, Person, PlatformBed, PriceBook, Project, Unit } from '../document/schema.js';
import { bedLevels } from '../furniture/platform-bed.js';
import { spread } from '../numeric/plane.js';
import type { Operation } from '../document/operation.js';
import { archSpan, type ArchShape } from '../shell/arch.js';
import { halfWidth, roofHeight, type Shell } from '../shell/shell.js';
import { message, mm, type Message } from '../words/message.js';
import {
  bedEdgeRule,
  bedLengthRule,
  bedWidthRule,
  sittingUpRule,
  standingRule,
  wayThroughRule,
  worktopRule,
} from '../rules/people.js';
import { collisionRule, insideRule, overlapOf } from '../rules/room.js';
import type { Grade, Verdict } from '../rules/rule.js';
import { unitBoxes } from './unit-box.js';

/** A way out of a failed check: what it would do, as operations that can be applied as they are. */
export interface Mend {
  readonly said: Message;
  readonly operations: readonly Operation[];
}

/** One rule applied at one place of the plan. */
export interface Check {
  readonly id: string;
  readonly rule: string;
  readonly grade: Grade;
  readonly said: Message;
  readonly spare: number | null;
  readonly unit: string | null;
  readonly person: string | null;
  /** Where on the floor the note is pinned, mm. */
  readonly x: number;
  readonly y: number;
  readonly mend: Mend | null;
}

/** What every check looks at. */
export interface Scene {
  readonly project: Project;
  readonly inner: Shell;
  readonly arches: readonly ArchShape[];
  readonly book: PriceBook;
}

/** A lower cupboard is a seat or a store, not a place to work at, mm. */
const LOWEST_WORKTOP_MM = 700;

type Pin = Pick<Check, 'unit' | 'person' | 'x' | 'y'>;
const check = (id: string, rule: string, verdict: Verdict, pin: Pin, mend: Mend | null = null): Check => ({
  id,
  rule,
  grade: verdict.grade,
  said: verdict.said,
  spare: verdict.spare,
  ...pin,
  mend: verdict.grade === 'good' ? null : mend,
});
const change = (unit: Unit, changes: Partial<PlatformBed> | Partial<BaseCupboard>): Operation => ({
  name: 'changeUnit',
  payload: { id: unit.id, changes },
});
const whole = (value: number): number => Math.ceil(value - 1e-9);

/** The platform height within `reach` mm at which a sleeper has the most room, and how much that is. */
function bestHeight(
  bed: PlatformBed,
  scene: Scene,
  x0: number,
  x1: number,
  reach: number,
): { readonly height: number; readonly clear: number } {
  return spread(-reach, reach, 2 * Math.round(reach / 10) + 1)
    .map((by) => {
      const height = bed.height + by;
      const top = scene.inner.floor + height;
      return { height, clear: clearAcross(scene.inner, x0, x1, top, top + bed.mattress) };
    })
    .filter(({ height }) => height > 100)
    .reduce((best, next) => (next.clear > best.clear + 0.5 ? next : best));
}

function bedChecks(bed: PlatformBed, scene: Scene): Check[] {
  const { inner, arches, book, project } = scene;
  const levels = bedLevels(bed, inner, book);
  const middle = bed.x + bed.length / 2;
  const pin = (person: string | null, x = middle, y = 0): Pin => ({ unit: bed.id, person, x, y });
  const sleepers = bed.sleepers.flatMap((id) => project.people.filter((person) => person.id === id));
  const checks: Check[] = sleepers.flatMap((person, index): Check[] => {
    const [x0, x1] = strip(bed, index, sleepers.length);
    const clear = clearAcross(inner, x0, x1, levels.top, levels.top + bed.mattress);
    const lying = bedLengthRule.run({ clear, stature: person.stature, who: person.name });
    const better = lying.grade === 'good' ? null : bestHeight(bed, scene, x0, x1, 250);
    const gains = better && better.clear > clear + 2;
    const ceiling = Math.min(...spread(x0, x1, 5).map((x) => roofHeight(inner, x, 0)));
    const sitting = sittingUpRule.run({
      ceiling,
      platform: levels.top,
      mattress: bed.mattress,
      stature: person.stature,
      sittingHeight: person.sittingHeight,
      who: person.name,
    });
    const lower = whole(-(sitting.spare ?? 0));
    return [
      check(
        `bed-length:${bed.id}:${person.id}`,
        'bed-length',
        lying,
        pin(person.id, (x0 + x1) / 2, 0.28 * person.stature),
        gains
          ? {
              said: message('mend.bedHeight', { to: mm(better.height), gain: mm(better.clear - clear) }),
              operations: [change(bed, { height: better.height })],
            }
          : null,
      ),
      check(
        `sitting-up:${bed.id}:${person.id}`,
        'sitting-up',
        sitting,
        pin(person.id, (x0 + x1) / 2, 0.4 * person.stature),
        bed.height - lower > 150
          ? {
              said: message('mend.lowerBed', { by: mm(lower) }),
              operations: [change(bed, { height: bed.height - lower })],
            }
          : null,
      ),
      check(
        `bed-edge:${bed.id}:${person.id}`,
        'bed-edge',
        bedEdgeRule.run({ platform: bed.height, mattress: bed.mattress, stature: person.stature, who: person.name }),
        pin(person.id, bed.x + 100, -halfWidth(inner, 'left', bed.x, levels.top) + 120),
      ),
    ];
  });
  if (sleepers.length > 0) {
    const width = bedWidthRule.run({ width: bed.length, sleepers: sleepers.length });
    const more = whole(-(width.spare ?? 0));
    checks.push(
      check(
        `bed-width:${bed.id}`,
        'bed-width',
        width,
        pin(null, middle, 420),
        bed.x - more >= 0
          ? {
              said: message('mend.widenBed', { by: mm(more) }),
              operations: [change(bed, { x: bed.x - more, length: bed.length + more })],
            }
          : null,
      ),
    );
  }
  for (const arch of arches) {
    if (arch.to <= bed.x || arch.from >= bed.x + bed.length) continue;
    const into = arch.height - levels.underside;
    checks.push({
      id: `arch:${bed.id}:${arch.id}`,
      rule: 'collision',
      grade: into > 0.5 ? 'fails' : 'good',
      said: message(into > 0.5 ? 'check.bedArch.fails' : 'check.bedArch.good', {
        name: bed.name,
        arch: arch.name,
        by: mm(Math.abs(into)),
      }),
      spare: -into,
      ...pin(null, (arch.from + arch.to) / 2, (arch.side === 'left' ? -1 : 1) * arch.face),
      mend:
        into > 0.5
          ? {
              said: message('mend.raiseBed', { by: mm(whole(into)) }),
              operations: [change(bed, { height: bed.height + whole(into) })],
            }
          : null,
    });
  }
  return checks;
}

function cupboardChecks(unit: BaseCupboard, scene: Scene): Check[] {
  const { inner, arches, project } = scene;
  const sign = unit.side === 'left' ? -1 : 1;
  const middle = unit.x + unit.length / 2;
  const pin = (person: string | null, x = middle, y = sign * unit.front): Pin => ({ unit: unit.id, person, x, y });
  const depth =
    Math.min(
      ...spread(unit.x, unit.x + unit.length, 7).map((x) =>
        Math.min(
          halfWidth(inner, unit.side, x, inner.floor),
          halfWidth(inner, unit.side, x, inner.floor + unit.height),
        ),
      ),
    ) - unit.front;
  const checks = [
    check(
      `depth:${unit.id}`,
      'inside-shell',
      insideRule.run({ start: 0, end: 100, room: depth, name: unit.name, what: 'depth' }),
      pin(null),
    ),
  ].filter((c) => c.grade !== 'good');
  for (const person of unit.height > LOWEST_WORKTOP_MM ? project.people : []) {
    const verdict = worktopRule.run({ height: unit.height, stature: person.stature, who: person.name });
    checks.push(
      check(
        `worktop:${unit.id}:${person.id}`,
        'worktop-height',
        verdict,
        pin(person.id, unit.x + 130, sign * (unit.front + 150)),
      ),
    );
  }
  for (const arch of arches) {
    const span = arch.side === unit.side ? archSpan(arch, inner.floor) : null;
    const overlap =
      span &&
      overlapOf(
        {
          x0: unit.x,
          x1: unit.x + unit.length,
          y0: unit.front,
          y1: 5000,
          z0: inner.floor,
          z1: inner.floor + unit.height,
        },
        { x0: span[0], x1: span[1], y0: arch.face, y1: 5000, z0: 0, z1: arch.height },
      );
    if (!span || !overlap) continue;
    const [forward, back] = [unit.x + unit.length - span[0], span[1] - unit.x];
    const by = forward <= back && unit.x - forward >= 0 ? -whole(forward) : whole(back);
    const fits = unit.x + by >= 0 && unit.x + by + unit.length <= inner.length;
    checks.push({
      id: `arch:${unit.id}:${arch.id}`,
      rule: 'collision',
      grade: 'fails',
      said: message('check.cupboardArch', { name: unit.name, arch: arch.name, by: mm(overlap.x) }),
      spare: -overlap.x,
      ...pin(null, (span[0] + span[1]) / 2, sign * arch.face),
      mend: fits
        ? {
            said: message(by < 0 ? 'mend.forward' : 'mend.rearward', { by: mm(Math.abs(by)) }),
            operations: [change(unit, { x: unit.x + by })],
          }
        : null,
    });
  }
  return checks;
}

/** Length and height of the room against each unit. */
function insideChecks(unit: Unit, scene: Scene): Check[] {
  const { inner } = scene;
  const end = unit.x + unit.length;
  const pin: Pin = { unit: unit.id, person: null, x: Math.min(Math.max(unit.x, 0), inner.length), y: 0 };
  const along = insideRule.run({ start: unit.x, end, room: inner.length, name: unit.name, what: 'length' });
  const by = unit.x < 0 ? -unit.x : inner.length - end;
  const roof = Math.min(...spread(unit.x, end, 5).map((x) => roofHeight(inner, x, 0)));
  const up = insideRule.run({ start: 0, end: unit.height, room: roof - inner.floor, name: unit.name, what: 'height' });
  return [
    check(
      `inside:${unit.id}`,
      'inside-shell',
      along,
      pin,
      unit.length <= inner.length
        ? {
            said: message(by < 0 ? 'mend.forward' : 'mend.rearward', { by: mm(Math.abs(by)) }),
            operations: [change(unit, { x: unit.x + by })],
          }
        : {
            said: message('mend.shorten', { to: mm(Math.floor(inner.length)) }),
            operations: [change(unit, { x: 0, length: Math.floor(inner.length) })],
          },
    ),
    check(`under-roof:${unit.id}`, 'inside-shell', up, pin),
  ].filter((c) => c.grade !== 'good');
}

function betweenUnits(scene: Scene): Check[] {
  const boxes = scene.project.units.map((unit) => ({ unit, boxes: unitBoxes(unit, scene.inner, scene.book) }));
  return boxes.flatMap((a, i) =>
    boxes.slice(i + 1).flatMap((b): Check[] => {
      const pair = a.boxes
        .flatMap((boxA) => b.boxes.map((boxB) => ({ boxA, boxB, overlap: overlapOf(boxA, boxB) })))
        .find(({ overlap }) => overlap);
      if (!pair?.overlap) return [];
      const verdict = collisionRule.run({ a: pair.boxA, b: pair.boxB, nameA: a.unit.name, nameB: b.unit.name });
      const front = a.unit.x <= b.unit.x ? a.unit : b.unit;
      const forward = whole(pair.overlap.x);
      const fits = front.x - forward >= 0;
      return [
        check(
          `collision:${a.unit.id}:${b.unit.id}`,
          'collision',
          verdict,
          {
            unit: a.unit.id,
            person: null,
            x: (Math.max(pair.boxA.x0, pair.boxB.x0) + Math.min(pair.boxA.x1, pair.boxB.x1)) / 2,
            y: (Math.max(pair.boxA.y0, pair.boxB.y0) + Math.min(pair.boxA.y1, pair.boxB.y1)) / 2,
          },
          fits
            ? {
                said: message('mend.moveForward', { name: front.name, by: mm(forward) }),
                operations: [change(front, { x: front.x - forward })],
              }
            : null,
        ),
      ];
    }),
  );
}

/** The narrowest way between cupboards on both sides, or a cupboard and the wall, at hip height; null where there is none to walk past. */
export function narrowestWay(scene: Scene): { readonly width: number; readonly x: number; readonly y: number } | null {
  const hip = 900;
  const free = (side: 'left' | 'right', x: number): number => {
    const fronts = scene.project.units
      .filter(
        (unit): unit is BaseCupboard =>
          unit.kind === 'base-cupboard' && unit.side === side && x >= unit.x && x <= unit.x + unit.length,
      )
      .map((unit) => unit.front - unit.overhang);
    return Math.min(halfWidth(scene.inner, side, x, scene.inner.floor + hip), ...fronts);
  };
  const beds = scene.project.units.filter((unit) => unit.kind === 'platform-bed');
  const ways = scene.project.units
    .filter((unit) => unit.kind === 'base-cupboard')
    .flatMap((unit) => spread(unit.x, unit.x + unit.length, 9))
    .filter((x) => x >= 0 && x <= scene.inner.length && !beds.some((bed) => x > bed.x && x < bed.x + bed.length))
    .map((x) => ({ width: free('left', x) + free('right', x), x, y: (free('right', x) - free('left', x)) / 2 }));
  return ways.length === 0 ? null : ways.reduce((least, next) => (next.width < least.width ? next : least));
}

function roomChecks(scene: Scene): Check[] {
  const { inner, project } = scene;
  const beds = project.units.filter((unit) => unit.kind === 'platform-bed');
  const way = spread(0, inner.length, 25).filter((x) => !beds.some((bed) => x > bed.x && x < bed.x + bed.length));
  const lowest = way
    .map((x) => ({ x, height: roofHeight(inner, x, 0) - inner.floor }))
    .reduce((least, next) => (next.height < least.height ? next : least), { x: 0, height: Infinity });
  const standing = Number.isFinite(lowest.height)
    ? project.people.map((person: Person) =>
        check(
          `standing:${person.id}`,
          'standing-height',
          standingRule.run({ height: lowest.height, stature: person.stature, who: person.name }),
          { unit: null, person: person.id, x: lowest.x, y: 0 },
        ),
      )
    : [];
  const narrow = narrowestWay(scene);
  return [
    ...standing,
    ...(narrow
      ? [
          check('way', 'way-through', wayThroughRule.run({ width: narrow.width }), {
            unit: null,
            person: null,
            x: narrow.x,
            y: narrow.y,
          }),
        ]
      : []),
  ];
}

const WORST_FIRST: readonly Grade[] = ['fails', 'tight', 'unknown', 'good'];

/** Every check of the layout, worst first. */
export function layoutChecks(scene: Scene): Check[] {
  const ofUnits = scene.project.units.flatMap((unit) => [
    ...insideChecks(unit, scene),
    ...(unit.kind === 'platform-bed' ? bedChecks(unit, scene) : cupboardChecks(unit, scene)),
  ]);
  return [...ofUnits, ...betweenUnits(scene), ...roomChecks(scene)].sort(
    (a, b) => WORST_FIRST.indexOf(a.grade) - WORST_FIRST.indexOf(b.grade),
  );
}
