import type { z } from 'zod';
import type { UnitFamily } from '../document/kit.js';
import type { Operation } from '../document/operation.js';
import type { Person, PriceBook } from '../document/schema.js';
import type { Unit } from '../document/unit-schema.js';
import type { Grade, Rule, Verdict } from '../rules/rule.js';
import type { ArchShape } from '../shell/arch.js';
import type { PlacedOpening } from '../shell/openings.js';
import type { Shell } from '../shell/shell.js';
import type { Message } from '../words/message.js';

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
  readonly mend: Mend | null;
}

/** A place somebody lies on a unit. */
export interface Lying {
  /** Thickness of the mattress, mm. */
  readonly mattress: number;
  readonly sleepers: readonly string[];
}

/** What checks ask of a family of furniture. */
export interface SceneFamily extends UnitFamily {
  /** Somebody lies on it. */
  readonly lies?: (unit: Unit) => Lying;
  /** How far its top stands out over its front, mm. */
  readonly overhang?: (unit: Unit) => number;
  /** Somebody stands and works at its top. */
  readonly worksAt?: (unit: Unit) => boolean;
  readonly rules: readonly SceneRule[];
}

/** An opening, and how far its frame lies behind the finished face, mm; null while that is not known. */
export type SeenOpening = PlacedOpening & { readonly frame: number | null };

/** What every check looks at. */
export interface Scene {
  readonly units: readonly Unit[];
  readonly people: readonly Person[];
  readonly inner: Shell;
  readonly arches: readonly ArchShape[];
  readonly openings: readonly SeenOpening[];
  readonly book: PriceBook;
  readonly families: readonly SceneFamily[];
}

/** One case of a rule: what goes in, where it is pinned, and how it would be mended. */
export interface Case<Input> {
  /** Lasts from one derivation to the next. */
  readonly id: string;
  readonly input: Input;
  readonly pin: Pin;
  readonly mend?: (verdict: Verdict) => Mend | null;
  /** Only told when it is not good. */
  readonly quiet?: boolean;
}

/** A rule with where it applies: to one unit in its room, or to the room as a whole. */
export interface SceneRule {
  readonly rule: Rule;
  readonly ofUnit?: (unit: Unit, scene: Scene) => readonly Check[];
  readonly ofRoom?: (scene: Scene) => readonly Check[];
}

type Where<Input> = {
  readonly ofUnit?: (unit: Unit, scene: Scene) => readonly Case<Input>[];
  readonly ofRoom?: (scene: Scene) => readonly Case<Input>[];
};

/** Says where a rule applies. Its formula stays as it is; what comes out are checks. */
export function appliesTo<Input extends z.ZodType>(
  rule: Rule<Input, Verdict>,
  where: Where<z.output<Input>>,
): SceneRule {
  const checks = (cases: readonly Case<z.output<Input>>[]): readonly Check[] =>
    cases.flatMap(({ id, input, pin, mend, quiet }): Check[] => {
      const verdict = rule.run(input);
      if (quiet === true && verdict.grade === 'good') return [];
      return [
        {
          id,
          rule: rule.name,
          grade: verdict.grade,
          said: verdict.said,
          spare: verdict.spare,
          ...pin,
          mend: verdict.grade === 'good' ? null : (mend?.(verdict) ?? null),
        },
      ];
    });
  const { ofUnit, ofRoom } = where;
  return {
    rule: rule as unknown as Rule,
    ...(ofUnit ? { ofUnit: (unit: Unit, scene: Scene) => checks(ofUnit(unit, scene)) } : {}),
    ...(ofRoom ? { ofRoom: (scene: Scene) => checks(ofRoom(scene)) } : {}),
  };
}

/** The operation that changes fields of a unit. */
export const changeUnit = (unit: Unit, changes: Readonly<Record<string, number>>): Operation => ({
  name: 'changeUnit',
  payload: { id: unit.id, changes },
});
