import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { formatEntry, formatLength, formatLengthWithUnit, formatSawn, parseLength, type UnitSystem } from './length.js';

const read = (text: string, units: UnitSystem = 'mm'): number | string => {
  const result = parseLength(text, units);
  return result.ok ? result.mm : result.error.key;
};

describe('parseLength', () => {
  it.each([
    ['1420', 'mm', 1420],
    ['142 cm', 'mm', 1420],
    ['1.42 m', 'mm', 1420],
    ['1 420', 'mm', 1420],
    ['14,2 cm', 'mm', 142],
    [`4' 7 7/8"`, 'mm', 1419.225],
    ['4 ft 7 7/8 in', 'in', 1419.225],
    [`4' 7`, 'mm', 1397],
    ['55 7/8 in', 'mm', 1419.225],
    ['48 1/2', 'in', 1231.9],
    ['48½', 'in', 1231.9],
    ['7/8 in', 'mm', 22.225],
    ['7/8', 'in', 22.225],
    ['2440-2*18', 'mm', 2404],
    ['2440 - 2 × 18', 'mm', 2404],
    ['(2440-3)/2', 'mm', 1218.5],
    ['48 in - 18 mm', 'in', 1201.2],
    ['2 * 3/4 in', 'mm', 38.1],
    ['-40', 'mm', -40],
    ['1 m + 20', 'mm', 1020],
  ] as const)('%s with plain numbers in %s is %d mm', (text, units, mm) => {
    expect(read(text, units)).toBe(mm);
  });

  it.each([
    ['', 'length.empty'],
    ['about a metre', 'length.unreadable'],
    ['1,420', 'length.comma'],
    ['12 +', 'length.sum'],
    ['(12', 'length.sum'],
    ['12 13 14', 'length.sum'],
    ['3 m * 2 m', 'length.area'],
    ['12/0', 'length.zero'],
    ['1 1/0', 'length.zero'],
    ['999999999', 'length.large'],
  ])('refuses %j with one message', (text, key) => {
    expect(read(text)).toBe(key);
  });

  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.string(),
        fc.constantFrom<UnitSystem>('mm', 'in'),
        (text, units) => typeof parseLength(text, units).ok === 'boolean',
      ),
      { seed: 7, numRuns: 2000 },
    );
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('1', '24', '/', ' ', '*', '-', '(', ')', 'in', "'", '"', 'mm', '.', '½'), {
          maxLength: 12,
        }),
        (bits) => typeof parseLength(bits.join(''), 'in').ok === 'boolean',
      ),
      { seed: 8, numRuns: 4000 },
    );
  });
});

describe('writing lengths', () => {
  it('reads back what it wrote in an entry field, exactly', () => {
    const value = fc.integer({ min: -60_000_000, max: 60_000_000 }).map((n) => n / 1000);
    fc.assert(
      fc.property(value, fc.constantFrom<UnitSystem>('mm', 'in'), (mm, units) => {
        expect(read(formatEntry(mm, { units, fraction: 16 }), units)).toBe(mm === 0 ? 0 : mm);
      }),
      { seed: 11, numRuns: 3000 },
    );
  });

  it('keeps every 1/32 in as a fraction through millimetres', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 32 * 400 }), (parts) => {
        const text = `${Math.floor(parts / 32)} ${parts % 32}/32`;
        const mm = read(text, 'in') as number;
        const written = formatEntry(mm, { units: 'in', fraction: 32 });
        expect(written).not.toContain('.');
        expect(read(written, 'in')).toBe(mm);
      }),
      { seed: 12, numRuns: 2000 },
    );
  });

  it('shows whole millimetres grouped, and inches to the chosen fraction', () => {
    expect(formatLength(3690, { units: 'mm', fraction: 16 })).toBe('3\u202f690');
    expect(formatLength(-35.4, { units: 'mm', fraction: 16 })).toBe('−35');
    expect(formatLength(-0.2, { units: 'mm', fraction: 16 })).toBe('0');
    expect(formatLengthWithUnit(1419.225, { units: 'in', fraction: 16 })).toBe('55 7/8\u00a0in');
    expect(formatLength(25.4 * (10 + 31.9 / 32), { units: 'in', fraction: 16 })).toBe('11');
    expect(formatLength(25.4 / 32, { units: 'in', fraction: 32 })).toBe('1/32');
  });
});

describe('what is sawn', () => {
  it('is written in the step of a saw: half millimetres, thirty-seconds of an inch', () => {
    const mm = { units: 'mm', fraction: 16 } as const;
    expect([402, 402.24, 402.26, 402.7, 402.76, 1499.9].map((value) => formatSawn(value, mm))).toEqual([
      '402',
      '402',
      '402.5',
      '402.5',
      '403',
      '1\u202f500',
    ]);
    // 15 27/32 in is 402.43 mm: a fence reads thirty-seconds even where the project speaks in sixteenths
    expect(formatSawn(402.4, { units: 'in', fraction: 16 })).toBe('15 27/32');
  });
  it('is never further from the figure than half a step', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 9000, noNaN: true }),
        fc.constantFrom('mm' as const, 'in' as const),
        (value, units) => {
          const read = parseLength(formatSawn(value, { units, fraction: 16 }), units);
          expect(read.ok && Math.abs(read.mm - value)).toBeLessThanOrEqual((units === 'mm' ? 0.25 : 25.4 / 64) + 1e-6);
        },
      ),
      { numRuns: 300, seed: 9 },
    );
  });
});
