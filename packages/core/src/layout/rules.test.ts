import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import type { Project } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { applyOperation } from '../furniture/kit.js';
import { doorwayRule } from '../rules/openings.js';
import { bedLengthRule, sittingUpRule, standingRule, wayThroughRule, worktopRule } from '../rules/people.js';
import { cookerRule } from '../rules/things.js';
import { FAMILIES } from '../furniture/families/index.js';
import { allSceneRules, SCENE_RULES } from './checks/registry.js';
import { RULES, ruleNamed } from './rules.js';

interface Node {
  readonly type?: string;
  readonly unit?: string;
  readonly properties?: Readonly<Record<string, Node>>;
  readonly items?: Node;
  readonly prefixItems?: readonly Node[];
  readonly anyOf?: readonly Node[];
}
/** Addresses of numbers that say no unit; a count needs none. */
function unsaid(node: Node, at = ''): string[] {
  return [
    ...(node.type === 'number' && node.unit === undefined ? [at] : []),
    ...Object.entries(node.properties ?? {}).flatMap(([name, own]) => unsaid(own, `${at}.${name}`)),
    ...(node.items ? unsaid(node.items, `${at}[]`) : []),
    ...(node.prefixItems ?? []).flatMap((own, i) => unsaid(own, `${at}[${i}]`)),
    ...(node.anyOf ?? []).flatMap((own) => unsaid(own, at)),
  ];
}

describe('the rules that can be asked for by name', () => {
  it('are told by one name each, and hold every check of a plan', () => {
    const names = RULES.map((rule) => rule.name);
    expect(new Set(names).size).toBe(names.length);
    for (const { rule } of allSceneRules(SCENE_RULES, FAMILIES)) expect(ruleNamed(rule.name)).toBe(rule);
    expect(ruleNamed('no-such-rule')).toBeNull();
  });
  it.each(RULES.map((rule) => [rule.name, rule] as const))(
    '%s says the unit of every number, a formula and why',
    (_name, rule) => {
      expect(unsaid(z.toJSONSchema(rule.input, { io: 'input' }) as Node)).toEqual([]);
      expect(rule.formula.length).toBeGreaterThan(5);
      expect(rule.reason.length).toBeGreaterThan(5);
    },
  );
  it('has figures that a project may change, every one within its own limits', () => {
    const changeable = RULES.flatMap(({ figures }) => Object.values(figures ?? {}));
    expect(changeable.length).toBeGreaterThan(30);
    for (const { value, least, most } of changeable) {
      expect(value).toBeGreaterThanOrEqual(least);
      expect(value).toBeLessThanOrEqual(most);
    }
  });
  it('judges by own figures where there are some, and lets those that guard only be made stricter', () => {
    const way = (own?: Record<string, number>) => wayThroughRule.run({ width: 520, at: 'hip' }, own).grade;
    expect([way(), way({ hipGood: 520 }), way({ hipGood: 600, hipTight: 530 }), way({ unknown: 3 })]).toEqual([
      'tight',
      'good',
      'fails',
      'tight',
    ]);
    const cooker = (own?: Record<string, number>) =>
      cookerRule.run({ clear: 610, sheet: 0, thing: 'a', by: 'b' }, own).grade;
    expect([cooker(), cooker({ good: 100 }), cooker({ good: 700 })]).toEqual(['unknown', 'unknown', 'tight']);
  });
  it('judges a whole plan by the project’s own figures, undone like anything else', () => {
    const { project, priceBook } = readProjectFile(thimbleFile);
    const grades = (of: Project) =>
      derive(of, priceBook)
        .checks.filter(({ rule }) => rule === 'way-through')
        .map(({ grade, spare }) => [grade, spare]);
    const own = (value: number | null) =>
      applyOperation(
        project,
        { name: 'setFigure', payload: { rule: 'way-through', figure: 'hipGood', value } },
        priceBook,
      ).project;
    const before = grades(project);
    const after = grades(own(900));
    expect(before.length).toBeGreaterThan(0);
    expect(after).not.toEqual(before);
    expect(own(900).settings.figures).toEqual({ 'way-through': { hipGood: 900 } });
    expect(own(null).settings).toEqual(project.settings);
  });
  it('judges people by the project’s own figures, and what is left of the room under Layers by the same', () => {
    const { project, priceBook } = readProjectFile(wrenFile);
    const own = (rule: string, figure: string, value: number) => {
      const changed = applyOperation(project, { name: 'setFigure', payload: { rule, figure, value } }, priceBook);
      return derive(changed.project, priceBook);
    };
    const before = derive(project, priceBook);
    const spares = (of: typeof before, rule: string) =>
      of.checks.filter((check) => check.rule === rule).map(({ spare }) => spare ?? NaN);
    const left = (of: typeof before, what: string) =>
      (of.left?.people ?? []).filter((one) => one.what === what).map(({ spare }) => spare);
    // 30 more is asked over the head and beyond the feet than the usual 40 and 120
    for (const [rule, what, usual] of [
      ['standing-height', 'standing', 40],
      ['bed-length', 'lying', 120],
    ] as const) {
      const after = own(rule, 'good', usual + 30);
      expect(spares(before, rule).length).toBeGreaterThan(0);
      spares(after, rule).forEach((spare, i) => expect(spare).toBeCloseTo((spares(before, rule)[i] ?? NaN) - 30, 6));
      left(after, what).forEach((spare, i) => expect(spare).toBeCloseTo((left(before, what)[i] ?? NaN) - 30, 6));
      expect(left(after, what).length).toBe(project.people.length);
    }
    const grades = (of: typeof before) =>
      of.checks.filter(({ rule }) => rule === 'worktop-height').map(({ grade }) => grade);
    expect(grades(own('worktop-height', 'low', 40))).not.toEqual(grades(own('worktop-height', 'low', 56)));
  });
  it.each([
    [
      'sitting up',
      sittingUpRule,
      { ceiling: 1000, platform: 0, mattress: 0, stature: 1700, sittingHeight: 960 },
      { good: 40 },
      'good',
    ],
    [
      'a touching head',
      sittingUpRule,
      { ceiling: 960, platform: 0, mattress: 0, stature: 1700, sittingHeight: 960 },
      { good: 0, tight: 0 },
      'fails',
    ],
    ['standing', standingRule, { height: 1690, stature: 1700 }, { tight: 5 }, 'fails'],
    ['lying', bedLengthRule, { clear: 1800, stature: 1700, along: 'y' }, { good: 100 }, 'good'],
    ['a doorway', doorwayRule, { free: 500, width: 900 }, { good: 500 }, 'good'],
    ['a narrow door', doorwayRule, { free: 380, width: 380 }, { good: 800, tight: 700 }, 'good'],
    ['tight above good', doorwayRule, { free: 560, width: 900 }, { good: 550, tight: 600 }, 'good'],
    ['a worktop', worktopRule, { height: 1020, stature: 1700 }, { high: 60 }, 'good'],
  ] as const)('%s by own figures', (_what, rule, input, own, grade) => {
    expect(rule.run(rule.input.parse(input) as never, own).grade).toBe(grade);
  });
});
