import { FAMILIES } from '../furniture/families/index.js';
import { FORMULAS } from '../rules/registry.js';
import type { Rule } from '../rules/rule.js';
import { allSceneRules, SCENE_RULES } from './checks/registry.js';

/** Every rule and formula that can be asked for by name: those a plan is held to, and those that only work something out. */
export const RULES: readonly Rule[] = [
  ...new Map(
    [...allSceneRules(SCENE_RULES, FAMILIES).map(({ rule }) => rule), ...FORMULAS].map((rule) => [rule.name, rule]),
  ).values(),
];

/** Finds a rule by name; null when there is none. */
export const ruleNamed = (name: string): Rule | null => RULES.find((rule) => rule.name === name) ?? null;
