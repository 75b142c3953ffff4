import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { derive } from '@nestplank/core/derive';
import { familyNamed, fieldNamed, createProject, type Project } from '@nestplank/core/document';
import { FAMILIES, applyOperation } from '@nestplank/core/furniture';
import { startPriceBook } from '@nestplank/core/materials';
import { formatMoney } from '@nestplank/core/words';
import { readProjectFile } from '@nestplank/core/formats';
import { speechFor } from '../words/words.js';
import { completions, understand, type LineContext } from './understand.js';
import { ledge } from '../../../../packages/core/src/derive/fixtures/ledge.js';
import demo from '../../../../demo/wren.json?raw';

const wren = readProjectFile(demo);
const book = startPriceBook();
const derived = derive(wren.project, book);
const millimetres = speechFor({ units: 'mm', fraction: 16 });
const inches = speechFor({ units: 'in', fraction: 16 });
const context = (more: Partial<LineContext> = {}): LineContext => ({
  project: wren.project,
  derived,
  book,
  stage: 'layout',
  address: null,
  undoName: null,
  redoName: null,
  now: '2026-10-01T08:00:00.000Z',
  ...more,
});
const hear = (typed: string, more: Partial<LineContext> = {}, speech = millimetres) =>
  understand(typed, context(more), speech);
const plain = (text: string | undefined): string => (text ?? '').replace(/[\u202f\u00a0]/g, ' ');

/** What a unit's field is after the line was done. */
function after(typed: string, unit: string, field: string, speech = millimetres): unknown {
  const effect = hear(typed, {}, speech)?.effect;
  if (effect?.kind !== 'operations') throw new Error(`${typed}: ${plain(hear(typed, {}, speech)?.text)}`);
  const project = effect.operations.reduce(
    (p: Project, operation) => applyOperation(p, operation).project,
    wren.project,
  );
  const made = project.layout.units.find((candidate) => candidate.id === unit);
  const family = made && familyNamed(FAMILIES, made.family);
  return made && family ? fieldNamed(family, field)?.get(made) : undefined;
}

describe('the line', () => {
  it.each([
    ['kitchen forward 40', 'kitchen', 'x', 650],
    ['kit back 4 cm', 'kitchen', 'x', 730],
    ['kitchen at 2440-2*18-1500', 'kitchen', 'x', 904],
    ['kitchen left 30', 'kitchen', 'front', 400],
    ['bench left 30', 'bench', 'front', 400],
    ['bench right 30', 'bench', 'front', 460],
    ['bed down 40', 'bed', 'height', 680],
    ['BED mattress 120', 'bed', 'mattress', 120],
    ['bench doors 4', 'bench', 'doors', 4],
    ['kitchen toekick 100', 'kitchen', 'toeKick', 100],
  ])('%s', (typed, unit, field, value) => {
    expect(after(typed, unit, field)).toBe(value);
  });
  it('reads plain numbers in the reader’s own units', () => {
    expect(after('kitchen forward 2', 'kitchen', 'x', inches)).toBe(690 - 50.8);
    expect(plain(hear('bed down 1 1/2', {}, inches)?.text)).toBe('Bed: height 28 3/8 in → 26 7/8 in');
  });
  it('takes a reading where one is asked for', () => {
    const heard = hear('55 7/8 in', { stage: 'measure', address: 'station/s4/left/700' });
    expect(plain(heard?.text)).toBe('Centre line to left wall, 700 up, at Rib 4 → 1 419 mm');
    expect(heard?.effect).toMatchObject({
      operations: [
        {
          name: 'takeReading',
          payload: { address: 'station/s4/left/700', reading: { value: 1419.225, method: 'tape' } },
        },
      ],
    });
    expect(hear('1422', { stage: 'measure' })?.effect).toBeNull();
    expect(hear('12 apples', { stage: 'measure', address: 'floor/length' })?.trouble).toBe(true);
  });
  it('goes places, slices, undoes', () => {
    expect(hear('cut')?.effect).toEqual({ kind: 'go', stage: 'cut' });
    expect(hear('go work')?.effect).toEqual({ kind: 'go', stage: 'work' });
    expect(hear('slice 264 cm')?.effect).toEqual({ kind: 'slice', x: 2640 });
    expect(hear('undo')?.trouble).toBe(true);
    expect(hear('undo', { undoName: 'place unit' })).toMatchObject({
      text: 'undo place unit',
      effect: { kind: 'undo' },
    });
  });
  it('takes a slope for a slope, and says why of warmth and survey', () => {
    const angle = hear('1:50', { stage: 'measure', address: 'level/along' });
    expect(angle?.text).toContain('1.1°');
    expect(angle?.effect).toMatchObject({
      operations: [
        {
          payload: {
            address: 'level/along',
            reading: { method: 'angle-finder', value: expect.closeTo(1.1458, 3) as number },
          },
        },
      ],
    });
    expect(hear('9 mm', { stage: 'measure', address: 'level/along' })?.trouble).toBe(true);
    expect(hear('why warmth')?.text).toMatch(/^heat lost 7\d\d W, 18° inside and -5° outside; most through: doors$/);
    expect(plain(hear('why survey')?.text)).toMatch(/^known to ± 2 mm at the worst place/);
  });
  it('answers why with the figures it comes from', () => {
    expect(plain(hear('why headroom')?.text)).toBe(
      'headroom 1 843 mm at 3 690 mm: roof 1 899 mm less floor 47 mm and ceiling 9 mm',
    );
    const sheets = derived.plans.filter((plan) => plan.job.kind === 'sheet').flatMap((plan) => plan.sheets).length;
    expect(hear('why cost')?.text).toBe(
      `${formatMoney(derived.shopping.total, 'EUR')}: ${derived.shopping.lines.length} lines, ${sheets} sheets of them`,
    );
    expect(hear('why mass')?.text).toContain(`${derived.parts.length} parts`);
    expect(hear('why not')?.text).toContain('headroom');
    const empty = createProject({ id: 'e', name: 'E', kind: 'van', model: '', units: 'mm', startDate: '2026-10-01' });
    expect(hear('why width', { project: empty, derived: derive(empty, book) })?.text).toContain('not known until');
  });
  it('asks a rule alone', () => {
    expect(plain(hear('rule bed-length clear=1838 stature=1752')?.text)).toContain('34 short of good');
    expect(plain(hear('rule bevel thickness=18 leanDegrees=5')?.text)).toBe(
      'Bevel of an edge against a leaning wall: open 1.575, squareCut false',
    );
    expect(hear('rule bed-length clear=1838')?.trouble).toBe(true);
    expect(hear('rule of thumb')?.text).toContain('no rule of');
  });
  it('says what is missing or not understood, and never does it', () => {
    for (const typed of [
      'kitchen',
      'kitchen left',
      'kitchen left about',
      'bed left 30',
      'sofa left 30',
      '42',
      'bench doors many',
      '???',
    ])
      expect(hear(typed)?.effect ?? null).toBeNull();
    expect(hear('')).toBeNull();
    expect(hear('kitchen')?.text).toContain('left, right, forward');
  });
  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc
            .array(
              fc.constantFrom(
                'kitchen',
                'bed',
                'left',
                'at',
                'why',
                'rule',
                'slice',
                '12',
                '1/0',
                'undo',
                'bed-length',
                'clear=',
                '=',
              ),
              { maxLength: 6 },
            )
            .map((w) => w.join(' ')),
        ),
        fc.constantFrom('measure', 'layout'),
        (typed, stage) => {
          hear(typed, { stage: stage as 'measure', address: 'floor/length' });
          completions(typed, wren.project);
        },
      ),
      { seed: 51, numRuns: 1500 },
    );
  });
  it('completes units, places and directions', () => {
    expect(completions('ki', wren.project)).toEqual(['kitchen']);
    expect(completions('b', wren.project)).toEqual(['bed', 'bench', 'build', 'buy']);
    expect(completions('kitchen l', wren.project)).toEqual(['kitchen left', 'kitchen length']);
    expect(completions('bed l', wren.project)).toEqual(['bed length']);
    expect(completions('why h', wren.project)).toEqual(['why headroom']);
    expect(completions('', wren.project)).toEqual([]);
  });
});

describe('a family the line was told of', () => {
  const families = [...FAMILIES, ledge];
  const room = derived.inner;
  if (!room) throw new Error('no room');
  const unit = ledge.start({ id: 'ledge', name: 'Ledge', layout: wren.project.layout, people: [], room, book });
  const project: Project = {
    ...wren.project,
    layout: { ...wren.project.layout, units: [...wren.project.layout.units, unit] },
  };

  it('its own fields are understood and completed by their names', () => {
    expect(hear('ledge lip 30', { project, families })?.effect).toEqual({
      kind: 'operations',
      operations: [{ name: 'changeUnit', payload: { id: 'ledge', changes: { lip: 30 } } }],
    });
    expect(completions('ledge l', project, families).join()).toContain('lip');
  });
  it('where it does not come along they are not', () => {
    expect(hear('ledge lip 30', { project })).toMatchObject({ trouble: true, effect: null });
  });
});

describe('putting in by the line', () => {
  // with room on the left behind the cab
  const project: Project = {
    ...wren.project,
    layout: { ...wren.project.layout, units: wren.project.layout.units.filter(({ id }) => id !== 'tall') },
  };
  const roomy = { project, derived: derive(project, book) };
  const placed = (typed: string) => {
    const effect = hear(typed, roomy)?.effect;
    const [operation] = effect?.kind === 'operations' ? effect.operations : [];
    return operation?.name === 'placeUnit' ? operation.payload.unit : null;
  };
  it('finds a free stretch, on a side, of a length, at a place', () => {
    expect(placed('add cupboard left 600')).toMatchObject({
      family: 'base-run',
      body: { stands: 'left', x: 0, length: 600 },
    });
    expect(placed('add seat left 500 at 150')?.body).toMatchObject({ stands: 'left', x: 150, length: 500 });
    expect(placed('add wash room')?.family).toBe('wash-room');
  });
  it('says what it would do before Enter, and what it cannot', () => {
    expect(plain(hear('add cupboard left 600', roomy)?.text)).toBe('Put in Cupboard: from 0 mm, 600 mm long.');
    expect(plain(hear('add cupboard left 3000', roomy)?.text)).toContain('no free stretch');
    expect(plain(hear('add')?.text)).toContain('high-cupboard');
    expect(hear('add anvil')).toMatchObject({ trouble: true, effect: null });
    expect(hear('add seat left soon')).toMatchObject({ trouble: true, effect: null });
    expect(completions('add tal', wren.project)).toContain('add tall-cupboard');
  });
});

describe('laying an animal by the line', () => {
  const pets = ['Wool', 'Moss'].map((name) => ({ id: name, name, length: 650, width: 200, height: 560 }));
  const project: Project = { ...wren.project, pets };
  const laid = (typed: string) => {
    const effect = hear(typed, { project })?.effect;
    const [operation] = effect?.kind === 'operations' ? effect.operations : [];
    return operation?.name === 'layPet' ? operation.payload : null;
  };
  it('takes a place, a side and a way round', () => {
    expect(laid('lay wool at 1500 left 200 across')).toEqual({ pet: 'Wool', at: { x: 1500, y: -200, turned: true } });
    expect(laid('lay mo 90 cm right 3 cm')).toEqual({ pet: 'Moss', at: { x: 900, y: 30, turned: false } });
    expect(laid('lay wool at 1500 along')).toEqual({ pet: 'Wool', at: { x: 1500, y: 0, turned: false } });
    expect(plain(hear('lay wool at 1500 left 200', { project })?.text)).toBe(
      'Lay Wool along the vehicle: its middle 1 500 mm from the front, 200 mm left of the centre line.',
    );
  });
  it('finds a place where there is room when none is said', () => {
    const at = laid('lay wool')?.at;
    if (!at) throw new Error('there is room');
    const after = derive(
      applyOperation({ ...project }, { name: 'layPet', payload: { pet: 'Wool', at } }).project,
      book,
    );
    expect(after.checks.find(({ id }) => id === 'pet-place:Wool')?.grade).toBe('good');
  });
  it('asks whom, and takes nothing that is no length', () => {
    expect(plain(hear('lay', { project })?.text)).toBe('Lay whom? Wool, Moss.');
    expect(hear('lay wool at soon', { project })).toMatchObject({ trouble: true, effect: null });
    expect(hear('lay wool')).toMatchObject({ trouble: true, effect: null });
    expect(completions('la', project)).toContain('lay');
    expect(completions('lay m', project)).toContain('lay moss');
    expect(completions('la', wren.project)).not.toContain('lay');
  });
});
