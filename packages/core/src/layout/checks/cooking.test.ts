import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { Operation } from '../../document/operation.js';
import type { Thing } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { applyOperation } from '../../furniture/kit.js';
import { say } from '../../words/say.js';

const { project, priceBook } = readProjectFile(wrenFile);
const cooker = project.things?.find(({ id }) => id === 'cooker-spirit');
const after = (...operations: Operation[]) =>
  derive(
    operations.reduce((p, operation) => applyOperation(p, operation).project, project),
    priceBook,
  ).checks;
const sheet = (changes: Partial<Thing>): Operation => {
  if (!cooker) throw new Error('Wren cooks');
  return { name: 'putThing', payload: { thing: { ...cooker, ...changes } } };
};
const noteOf = (checks: ReturnType<typeof after>, id: string) => checks.find((check) => check.id === id);

describe('a cooker', () => {
  it('is measured from the worktop it hangs in to the cupboard over it', () => {
    // the worktop is 900 high, the cupboard hangs from 1430
    const note = noteOf(after(), 'cooker:kitchen:cooker');
    expect(note).toMatchObject({ grade: 'tight', spare: -70 });
    expect(note && say(note.said)).toContain('has 530 to Left overhead above it');
  });

  it('is mended by raising what is above it, and is then left to its manual: never good', () => {
    const [mend] = noteOf(after(), 'cooker:kitchen:cooker')?.mends ?? [];
    // under the falling roof only its underside can be
    expect(mend && say(mend.said)).toBe('Raise the underside of Left overhead by 70: its head stays');
    const note = noteOf(after(...(mend?.operations ?? [])), 'cooker:kitchen:cooker');
    expect(note).toMatchObject({ grade: 'unknown', spare: null });
    const raised = (mend?.operations ?? []).reduce((p, one) => applyOperation(p, one, priceBook).project, project);
    const made = derive(raised, priceBook).made.flatMap(({ problems }) => problems);
    expect(made).toEqual([]);
    expect(note && say(note.said)).toContain('its manual and local code say');
  });

  it('goes by its sheet where that asks for more', () => {
    const { clear } = cooker ?? { clear: { side: 0, back: 0, front: 0 } };
    const note = noteOf(after(sheet({ clear: { ...clear, top: 540 } })), 'cooker:kitchen:cooker');
    expect(note).toMatchObject({ grade: 'fails', spare: -70 });
  });

  it('with no opening over it burns under its own worktop: what is above it is that board', () => {
    const note = noteOf(after(sheet({ cutOut: null })), 'cooker:kitchen:cooker');
    expect(note).toMatchObject({ grade: 'fails' });
    expect(note && say(note.said)).toContain('to the next board above it');
  });

  it('is told what stands up beside it, and held against its sheet', () => {
    // its bay begins at 1220 and is as wide as it needs: its edge is as far beyond 1710 as its sheet asks for beside it
    const beside = (off: number, side: number) =>
      noteOf(
        after(
          sheet({ clear: { side, back: 0, top: 0, front: 0 } }),
          { name: 'removeUnit', payload: { id: 'overhead-left' } },
          {
            name: 'placeUnit',
            payload: {
              unit: {
                id: 'post',
                family: 'plain-box',
                name: 'Post',
                body: {
                  stands: 'free',
                  x: 1220 + side + (cooker?.width ?? 0) + off,
                  length: 60,
                  y: -700,
                  width: 200,
                  from: 900,
                  to: 1500,
                },
                meets: {},
                division: { name: 'none', holds: { kind: 'open' }, front: { kind: 'none' } },
                school: 'plywood',
                materials: {},
                options: {},
              },
            },
          } as Operation,
        ),
        'beside-cooker:kitchen:cooker',
      );
    expect(beside(40, 0)).toMatchObject({ grade: 'unknown' });
    expect(beside(40, 60)).toMatchObject({ grade: 'fails', spare: expect.closeTo(-20, 3) as number });
    // too far off to matter: what is told then is the wall behind
    const behind = beside(200, 60);
    expect(behind && say(behind.said)).toContain('to the left wall beside it');
  });

  it('with its fuel in it is left to its manual too', () => {
    const note = noteOf(after(), 'fuel:kitchen:cooker');
    expect(note).toMatchObject({ grade: 'unknown' });
    expect(note && say(note.said)).toContain('A licensed fitter');
  });
});
