import { describe, expect, it } from 'vitest';
import { z } from 'zod';
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
});
