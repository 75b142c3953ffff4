import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { say } from '../words/say.js';
import { FORMULAS } from './registry.js';
import type { Verdict } from './rule.js';

interface Shape {
  readonly type?: string;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Shape[];
  readonly oneOf?: readonly Shape[];
  readonly properties?: Readonly<Record<string, Shape>>;
  readonly required?: readonly string[];
  readonly items?: Shape;
  readonly prefixItems?: readonly Shape[];
  readonly minItems?: number;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly exclusiveMinimum?: number;
}

/** Draws what a rule may be asked, from the shape of its input. */
function drawn(shape: Shape): fc.Arbitrary<unknown> {
  if ('const' in shape) return fc.constant(shape.const);
  if (shape.enum) return fc.constantFrom(...shape.enum);
  const ways = shape.anyOf ?? shape.oneOf;
  if (ways) return fc.oneof(...ways.map(drawn));
  if (shape.type === 'null') return fc.constant(null);
  if (shape.type === 'boolean') return fc.boolean();
  if (shape.type === 'string') return fc.constantFrom('Mara', 'Kitchen');
  if (shape.type === 'integer' || shape.type === 'number') {
    const least = shape.minimum ?? (shape.exclusiveMinimum ?? -1001) + 1;
    return fc.integer({
      min: Math.ceil(Math.max(least, -5000)),
      max: Math.floor(Math.min(shape.maximum ?? 5000, 5000)),
    });
  }
  if (shape.prefixItems) return fc.tuple(...shape.prefixItems.map(drawn));
  if (shape.type === 'array') {
    const minLength = shape.minItems ?? 0;
    return fc.array(drawn(shape.items ?? {}), { minLength, maxLength: minLength + 3 });
  }
  if (shape.properties) {
    const each = Object.fromEntries(Object.entries(shape.properties).map(([name, value]) => [name, drawn(value)]));
    return fc.record(each, { requiredKeys: [...(shape.required ?? [])] });
  }
  return fc.constant(null);
}

const isVerdict = (result: unknown): result is Verdict =>
  typeof result === 'object' && result !== null && 'grade' in result && 'said' in result;

describe.each(FORMULAS.map((rule) => [rule.name, rule] as const))('the rule %s', (_name, rule) => {
  it('says what its grade is, of whatever it may be asked, in whole sentences', () => {
    const inputs = drawn(z.toJSONSchema(rule.input, { io: 'output', unrepresentable: 'any' }) as Shape);
    fc.assert(
      fc.property(inputs, (input) => {
        // what the schema itself holds against the rest is no case
        const read = rule.input.safeParse(input);
        fc.pre(read.success);
        const result = rule.run(read.data);
        if (!isVerdict(result)) return;
        const { grade, figure, spare, said } = result;
        const ends = /\.(good|tight|fails|unknown)$/.exec(said.key)?.[1];
        if (ends !== undefined) expect(ends, said.key).toBe(grade);
        if (figure === null && spare !== null) expect.unreachable('a spare of nothing');
        const text = say(said);
        expect(text).not.toMatch(/\{|\}|NaN|undefined|null|Infinity|−−/);
        expect(text.length).toBeGreaterThan(5);
      }),
      { seed: 35, numRuns: 60 },
    );
  });
});
