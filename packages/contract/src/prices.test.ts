import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { getMetadataStorage, validateSync } from 'class-validator';
import { describe, expect, it } from 'vitest';
import { personSchema, priceItemSchema } from '@nestplank/core/document';
import { startPriceBook } from '@nestplank/core/materials';
import { CreateProjectDto } from './projects.js';
import { PriceItemDto } from './prices.js';

const options = { whitelist: true, forbidNonWhitelisted: true } as const;
const accepted = (raw: object): boolean => validateSync(plainToInstance(PriceItemDto, raw), options).length === 0;
const [item] = startPriceBook().items;
if (!item) throw new Error('the start price book is empty');

describe('a line of the price book over the wire', () => {
  it('has the very fields of the core’s schema', () => {
    const fields = getMetadataStorage()
      .getTargetValidationMetadatas(PriceItemDto, '', false, false)
      .map((field) => field.propertyName);
    expect([...new Set(fields)].sort()).toEqual(Object.keys(priceItemSchema.shape).sort());
  });
  it('is taken as the core takes it, every line of the start price book', () => {
    for (const line of startPriceBook().items) expect(accepted(line), line.id).toBe(true);
  });
  const odd = [
    undefined,
    null,
    '',
    '   ',
    'x'.repeat(90),
    -1,
    0,
    1.5,
    1e9,
    NaN,
    true,
    [],
    {},
    '2026-99-99',
    '2026-02-30',
  ];
  it.each(Object.keys(priceItemSchema.shape))('%s: whatever stands there is taken by both or by neither', (field) => {
    for (const value of odd) {
      const raw = { ...item, [field]: value };
      expect(accepted(raw), `${field} = ${String(value)}`).toBe(priceItemSchema.safeParse(raw).success);
    }
  });
  it('refuses a name of blanks and a day that no calendar has, and says where', () => {
    const problems = validateSync(
      plainToInstance(PriceItemDto, { ...item, name: '  ', priceDate: '2026-99-99' }),
      options,
    );
    expect(problems.map((problem) => problem.property).sort()).toEqual(['name', 'priceDate']);
    const stocks = [{ id: 'a', length: -5, width: 100, price: 10, quantity: null }];
    const [problem] = validateSync(plainToInstance(PriceItemDto, { ...item, stocks }), options);
    expect(Object.values(problem?.constraints ?? {})[0]).toMatch(/^stocks\.0\.length: /);
  });
});

describe('what starts a project', () => {
  const wanted = { name: 'Wren', kind: 'van', model: '', units: 'mm', startDate: '2026-11-30' };
  const faults = (more: object): string[] =>
    validateSync(plainToInstance(CreateProjectDto, { ...wanted, ...more }), options).map(({ property }) => property);
  it('is held to what the document will be held to', () => {
    expect(faults({})).toEqual([]);
    expect(faults({ name: '   ' })).toEqual(['name']);
    expect(faults({ startDate: '2026-99-99' })).toEqual(['startDate']);
    expect(faults({ units: 'ells' })).toEqual(['units']);
    expect(personSchema.safeParse({ id: 'a', name: ' ', stature: 1700 }).success).toBe(false);
  });
});
