import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import bulrushText from '../../../../demo/bulrush.json?raw';
import { readProjectFile } from '../formats/read.js';
import { readReadingsCsv, readingsCsv } from '../formats/readings-csv.js';
import { say } from '../words/say.js';
import { addressExists, allowedRange, describeAddress, parseAddress, unitOf, wallAddress } from './address.js';
import { formatAngle, parseAngle } from '../words/angle.js';
import { furtherReadings, heightsOf, walkOf, walkSteps } from '../measure/walk.js';

const surveys = [wrenText, bulrushText].map((text) => readProjectFile(text).project.survey);

describe('every address the walk asks for or could ask for', () => {
  it('can be read, belongs to something, has a range, and is said without a blank', () => {
    for (const survey of surveys)
      for (const address of [...walkOf(survey), ...furtherReadings(survey)]) {
        const place = parseAddress(address);
        if (!place) throw new Error(`${address} cannot be read`);
        expect(addressExists(survey, place)).toBe(true);
        const [least, most] = allowedRange(place);
        expect(least).toBeLessThan(most);
        const said = say(describeAddress(survey, address));
        expect(said).not.toMatch(/[{}]/);
        expect(said).not.toBe(address);
      }
  });
  it('is asked for once, and what is asked for beyond the walk is not in it', () => {
    for (const survey of surveys) {
      const walk = walkOf(survey);
      expect(new Set(walk).size).toBe(walk.length);
      expect(furtherReadings(survey).filter((address) => walk.includes(address))).toEqual([]);
    }
  });
  it('comes leg by leg: kneeling before standing, what is under the floor last', () => {
    const order = ['floor', 'low', 'high', 'openings', 'holes', 'under', 'extra'];
    for (const survey of surveys) {
      const legs = walkSteps(survey).map((step) => order.indexOf(step.leg));
      expect(legs).toEqual([...legs].sort((a, b) => a - b));
    }
  });
  it('nothing a person stands up for twice: low heights are below the knee line, high ones above', () => {
    for (const survey of surveys)
      for (const { address, leg } of walkSteps(survey)) {
        const place = parseAddress(address);
        if (place?.kind !== 'station' || !('along' in place) || place.what === 'roof') continue;
        if (leg === 'low') expect(place.along).toBeLessThan(750);
        if (leg === 'high') expect(place.along).toBeGreaterThanOrEqual(750);
      }
  });
});

describe('addresses', () => {
  it('of walls survive being written and read (property)', () => {
    fc.assert(
      fc.property(
        fc.stringMatching(/^[A-Za-z0-9][A-Za-z0-9_-]{0,20}$/),
        fc.constantFrom('left' as const, 'right' as const),
        fc.integer({ min: 0, max: 50_000 }),
        (id, side, tenths) => {
          const along = tenths / 10;
          expect(parseAddress(wallAddress(id, side, along))).toEqual({ kind: 'station', id, what: side, along });
        },
      ),
      { seed: 3, numRuns: 200 },
    );
  });
  it('that are nonsense never throw (property)', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), (text) => {
        const place = parseAddress(text);
        if (place) expect(['mm', 'degrees']).toContain(unitOf(place));
      }),
      { seed: 4, numRuns: 500 },
    );
    for (const prototype of ['toString/x/y', '__proto__/a/b', 'constructor/x/x'])
      expect(parseAddress(prototype)).toBeNull();
  });
  it('heights of the profile station are those of the plan and its own', () => {
    const [survey] = surveys;
    if (!survey) throw new Error('no survey');
    const profiled = { ...survey, heights: [0, 900], profile: { station: 's2', heights: [450, 900], roofOffsets: [] } };
    expect(heightsOf(profiled, 's2')).toEqual([0, 450, 900]);
    expect(heightsOf(profiled, 's1')).toEqual([0, 900]);
  });
});

describe('slopes', () => {
  it('shown in degrees and typed again are the same to a tenth (property)', () => {
    fc.assert(
      fc.property(fc.double({ min: -45, max: 45, noNaN: true }), (degrees) => {
        const read = parseAngle(formatAngle(degrees));
        expect(read.ok && Math.abs(read.degrees - degrees) <= 0.0500001).toBe(true);
      }),
      { seed: 5, numRuns: 200 },
    );
  });
});

describe('readings files', () => {
  it('of any values come back exactly (property)', () => {
    const [survey] = surveys;
    if (!survey) throw new Error('no survey');
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('s1', 's3', 's7'), fc.integer({ min: 500, max: 24_000 })), {
          minLength: 1,
          maxLength: 20,
        }),
        (rows) => {
          const readings: typeof survey.readings = {};
          for (const [station, tenths] of rows)
            (readings[`station/${station}/left/350`] ??= []).push({
              value: tenths / 10,
              method: 'laser',
              at: '2026-10-01T08:00:00.000Z',
            });
          const csv = readingsCsv({ ...survey, readings }, []);
          const { payload, problems } = readReadingsCsv(csv, survey, 'in', '2026-01-01T00:00:00.000Z');
          expect(problems).toEqual([]);
          const values = (address: string): number[] =>
            payload.readings.filter((row) => row.address === address).map((row) => row.reading.value);
          for (const [address, list] of Object.entries(readings))
            expect(values(address)).toEqual(list.map((reading) => reading.value));
        },
      ),
      { seed: 6, numRuns: 60 },
    );
  });
  it('are not upset by quotes, semicolons, empty lines or a byte order mark', () => {
    const [survey] = surveys;
    if (!survey) throw new Error('no survey');
    const read = readReadingsCsv(
      '\ufeffAddress,Value,Unit\n"station/s1/left/350","36 1/4",in\n\n  station/s1/right/350 , 92.1 , cm \n',
      survey,
      'mm',
      '2026-01-01T00:00:00.000Z',
    );
    expect(read.problems).toEqual([]);
    expect(read.payload.readings.map((row) => row.reading.value)).toEqual([920.75, 921]);
    expect(readReadingsCsv('', survey, 'mm', '').fault).not.toBeNull();
  });
});
