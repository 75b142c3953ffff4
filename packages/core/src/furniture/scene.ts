import equal from 'fast-deep-equal';
import type { z } from 'zod';
import type { UnitFamily } from '../document/kit.js';
import type { Operation } from '../document/operation.js';
import type { Fitting, Limits, Mode, Person, Pet, Stored } from '../document/schema.js';
import type { Den, OptionValue, Unit } from '../document/unit-schema.js';
import type { Grade, OwnFigures, Rule, Verdict } from '../rules/rule.js';
import type { SolidBox } from '../rules/room.js';
import type { PlacedOpening } from '../shell/openings.js';
import type { Message } from '../words/message.js';
import type { Point } from '../numeric/plane.js';
import type { MassPoint } from './mass-point.js';
import type { RunsMade } from './runs.js';
import type { Skeleton } from './skeleton.js';
import type { Surroundings } from './surroundings.js';

/** A way out of a failed check: what it would do, as operations that can be applied as they are. */
export interface Mend {
  readonly said: Message;
  readonly operations: readonly Operation[];
}

/** Whom and what a check speaks of, and where on the floor its note is pinned, mm. */
export interface Pin {
  readonly unit: string | null;
  readonly person: string | null;
  readonly x: number;
  readonly y: number;
}

/** One rule applied at one place of the plan. */
export interface Check extends Pin {
  readonly id: string;
  readonly rule: string;
  readonly grade: Grade;
  readonly said: Message;
  readonly spare: number | null;
  /** Ways to mend it, the least change first. */
  readonly mends: readonly Mend[];
  /** The mode in which it is so; left out where it is so in all. */
  readonly mode?: string;
  /** Why it was put aside; null while it stands. */
  readonly aside: string | null;
}

/** A place somebody lies on a unit. */
export interface Lying {
  /** Thickness of the mattress, mm. */
  readonly mattress: number;
  readonly sleepers: readonly string[];
  /** Which way a body lies: across the vehicle where nothing is said. */
  readonly along?: 'x' | 'y';
  /** Drawn out by so much across, when a motion is; left out where it is as wide by day. */
  readonly out?: { readonly by: number; readonly motion: string };
  /** Held by a guard so high above the mattress, mm; left out where it needs none or has none. */
  readonly guard?: number;
}
/** A row of places to sit on a unit. */
export interface Sitting {
  /** Top of the seat above the finished floor, with nobody on it, and how thick its cushion is, mm. */
  readonly top: number;
  readonly cushion: number;
  /** From its front edge to the backrest, mm. */
  readonly deep: number;
  readonly wide: number;
  /** Middle of its front edge, and which way one looks from it. */
  readonly at: readonly [number, number];
  readonly looks: readonly [number, number];
  /** Which part of its unit it is, where that has several. */
  readonly part?: string;
  /** The field that makes it deeper, and what that is now, where it is not the unit's front, mm. */
  readonly deepBy?: { readonly field: string; readonly now: number };
  /** It has no backrest and can be moved. */
  readonly loose?: boolean;
  /** Who sits there; anybody where nobody is named. */
  readonly sitters: readonly string[];
}
/** A table top somebody sits at. */
export interface TableTop {
  readonly box: SolidBox;
  /** What stands under it, in the way of knees. */
  readonly legs: readonly SolidBox[];
}

/** What checks ask of a family of furniture. */
export interface SceneFamily extends UnitFamily {
  /** Somebody lies on it. */
  readonly lies?: (unit: Unit) => Lying;
  readonly sits?: (unit: Unit, room: Surroundings) => readonly Sitting[];
  readonly table?: (unit: Unit, room: Surroundings) => TableTop | null;
  /** How far its top stands out over its front, mm. */
  readonly overhang?: (unit: Unit) => number;
  /** Somebody stands and works at its top. */
  readonly worksAt?: (unit: Unit) => boolean;
  /** Somebody stands in it, between its walls. */
  readonly standsIn?: (unit: Unit) => boolean;
  /** The room it takes, where that is not one box. */
  readonly solids?: (unit: Unit, room: Surroundings) => readonly SolidBox[];
  /** Its outline seen from above, where it is not just its body's: from the body's front line at its front end round its back. */
  readonly above?: (unit: Unit, body: readonly Point[]) => readonly Point[];
  /** Whether one can be made as it is, where that is said without making it: what mends something is never of a size that cannot be. */
  readonly makes?: (unit: Unit, room: Surroundings) => boolean;
  /** Only a board at the wall: it has no depth to speak of. */
  readonly flat?: boolean;
  /** Its boards, its bays and what of it moves. */
  readonly skeleton: (unit: Unit, room: Surroundings) => Skeleton;
  /** The thing that it is, by its data sheet. */
  readonly is?: (unit: Unit) => string | null;
  readonly rules: readonly SceneRule[];
}

/** An opening, and how far its frame lies behind the finished face, mm; null while that is not known. */
export type SeenOpening = PlacedOpening & { readonly frame: number | null };

/** What every check looks at. */
export interface Scene extends Surroundings {
  /** What lengths that are offered are whole steps of, mm: 1, or an eighth of an inch where one measures in inches. */
  readonly step: number;
  readonly units: readonly Unit[];
  readonly people: readonly Person[];
  /** Animals, and where they lie. */
  readonly pets: readonly Pet[];
  readonly dens: readonly Den[];
  readonly openings: readonly SeenOpening[];
  readonly families: readonly SceneFamily[];
  readonly stored: readonly Stored[];
  /** Lamps, outlets and cables of the linings. */
  readonly fittings: readonly Fitting[];
  /** Cables, pipes and ducts where they lie. */
  readonly runs: RunsMade;
  readonly modes: readonly Mode[];
  readonly limits: Limits | null;
  /** The project's own figures of rules, by the rule's name. */
  readonly figures: Readonly<Record<string, OwnFigures>>;
  /** Each unit's boards, bays and motions, by its id. */
  readonly skeletons: ReadonlyMap<string, Skeleton>;
  /** Everything that weighs, where it is; null while it is not worked out. */
  readonly masses: readonly MassPoint[] | null;
  /** Whether ways to mend what is wrong are worked out: not while something is in somebody's hand. */
  readonly mending: boolean;
}

/** One case of a rule: what goes in, where it is pinned, and how it would be mended. */
export interface Case<Input> {
  /** Lasts from one derivation to the next. */
  readonly id: string;
  readonly input: Input;
  readonly pin: Pin;
  readonly mend?: (verdict: Verdict) => Mend | null | readonly (Mend | null)[];
  /** Only told when it is not good. */
  readonly quiet?: boolean;
  readonly mode?: string;
}

/**
 * A rule with where it applies: to one unit in its room, as if nothing else stood there; to one unit among those beside it
 * along the vehicle; or to the room as a whole.
 */
export interface SceneRule {
  readonly rule: Rule;
  readonly ofUnit?: (unit: Unit, scene: Scene) => readonly Check[];
  readonly ofEach?: Beside<readonly Check[]>;
  readonly ofRoom?: (scene: Scene) => readonly Check[];
}
/**
 * What is asked of each unit and what stands beside it: whatever is further from it and from all that moves of it than this
 * along the vehicle, mm, makes no difference; nor do services and weights.
 */
export interface Beside<Result> {
  readonly within: number;
  /** What moves of the others is met too, and not only what stands. */
  readonly reaching?: true;
  readonly of: (unit: Unit, scene: Scene) => Result;
}
type Where<Input> = {
  readonly ofUnit?: (unit: Unit, scene: Scene) => readonly Case<Input>[];
  readonly ofEach?: Beside<readonly Case<Input>[]>;
  readonly ofRoom?: (scene: Scene) => readonly Case<Input>[];
};

/** Says where a rule applies. Its formula stays as it is; what comes out are checks. */
const MOST_VERDICTS = 2000;
/** What a rule says of a case, remembered while what goes in is the same: most cases are, at every step of a drag. */
function rememberedVerdicts<Input extends z.ZodType>(
  rule: Rule<Input, Verdict>,
): (id: string, input: z.output<Input>, own: OwnFigures | undefined) => Verdict {
  interface Last {
    readonly input: z.output<Input>;
    readonly own: OwnFigures | undefined;
    readonly verdict: Verdict;
  }
  const lasts = new Map<string, Last>();
  return (id, input, own) => {
    const last = lasts.get(id);
    if (last && last.own === own && equal(last.input, input)) return last.verdict;
    const verdict = rule.run(input, own);
    if (!last && lasts.size >= MOST_VERDICTS) lasts.clear();
    lasts.set(id, { input, own, verdict });
    return verdict;
  };
}

/** A rule with the places where it applies: each case judged, told unless it is quiet and good, with the ways to mend it. */
export function appliesTo<Input extends z.ZodType>(
  rule: Rule<Input, Verdict>,
  where: Where<z.output<Input>>,
): SceneRule {
  const verdictOf = rememberedVerdicts(rule);
  const checks = (cases: readonly Case<z.output<Input>>[], { figures, mending }: Scene): readonly Check[] => {
    const own = figures[rule.name];
    const found: Check[] = [];
    for (const { id, input, pin, mend, quiet, mode } of cases) {
      const verdict = verdictOf(id, input, own);
      const { grade, said, spare } = verdict;
      if (quiet === true && grade === 'good') continue;
      const mends = grade === 'good' || !mending ? [] : [mend?.(verdict) ?? []].flat();
      found.push({
        id,
        rule: rule.name,
        grade,
        said,
        spare,
        ...pin,
        mends: mends.flatMap((one) => one ?? []),
        aside: null,
        ...(mode === undefined ? {} : { mode }),
      });
    }
    return found;
  };
  const { ofUnit, ofEach, ofRoom } = where;
  return {
    rule: rule as unknown as Rule,
    ...(ofUnit ? { ofUnit: (unit: Unit, scene: Scene) => checks(ofUnit(unit, scene), scene) } : {}),
    ...(ofEach
      ? { ofEach: { ...ofEach, of: (unit: Unit, scene: Scene) => checks(ofEach.of(unit, scene), scene) } }
      : {}),
    ...(ofRoom ? { ofRoom: (scene: Scene) => checks(ofRoom(scene), scene) } : {}),
  };
}

/** The operation that changes fields of a unit. */
export const changeUnit = (unit: Unit, changes: Readonly<Record<string, OptionValue>>): Operation => ({
  name: 'changeUnit',
  payload: { id: unit.id, changes },
});
