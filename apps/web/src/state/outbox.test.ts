import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import type { StepDto } from '@nestplank/contract';
import { createOutbox as create, ownTab, type Outbox } from './outbox.js';

const step = (id: string): StepDto => ({ id, name: 'undo' });
const names = (steps: readonly StepDto[]): string[] => steps.map((one) => one.id);

/** Tabs that are gone as soon as they are no longer spoken of, unless they are said to live. */
let count = 0;
const living = new Set<string>();
const createOutbox = (name: string, plain: Parameters<typeof create>[2], lives = false): Outbox => {
  const id = `tab-${(count += 1)}`;
  if (lives) living.add(id);
  return create({ id, alive: () => Promise.resolve(living) }, name, plain);
};

describe('what is unsent', () => {
  it('outlives the page, in the order in which it was done, project by project', async () => {
    const first = createOutbox('a', null);
    void first.write('p', [step('1')]);
    void first.write('q', [step('9')]);
    void first.write('p', [step('1'), step('2')]);
    await first.write('p', [step('1'), step('2'), step('3')]);
    const second = createOutbox('a', null);
    expect(names(await second.read('p'))).toEqual(['1', '2', '3']);
    // what it took over it also lets go
    await second.write('p', [step('3')]);
    expect(names(await createOutbox('a', null).read('p'))).toEqual(['3']);
    expect(names(await createOutbox('a', null).read('q'))).toEqual(['9']);
  });
  it('of two tabs neither loses what the other keeps', async () => {
    const [one, two] = [createOutbox('b', null, true), createOutbox('b', null, true)];
    await Promise.all([one.read('p'), two.read('p')]);
    await one.write('p', [step('1')]);
    await two.write('p', [step('2')]);
    await one.write('p', []);
    // each has its own queue: what a tab keeps that is there is not sent by another
    expect(names(await createOutbox('b', null, true).read('p'))).toEqual([]);
    expect(names(await two.read('p'))).toEqual(['2']);
    living.clear();
    expect(names(await createOutbox('b', null).read('p'))).toEqual(['2']);
  });
  it('takes over once what an earlier release kept, and leaves what is no list alone', async () => {
    const plain = new Map([
      ['nest-plank.outbox.p', JSON.stringify([step('1'), step('2')])],
      ['nest-plank.outbox.q', '{'],
    ]);
    const storage = {
      getItem: (key: string) => plain.get(key) ?? null,
      removeItem: (key: string) => void plain.delete(key),
    };
    expect(names(await createOutbox('c', storage).read('p'))).toEqual(['1', '2']);
    expect(await createOutbox('c', storage).read('q')).toEqual([]);
    expect(plain.size).toBe(0);
    expect(names(await createOutbox('c', storage).read('p'))).toEqual(['1', '2']);
  });
  it('what a tab that is gone has left is taken over by one of those that are there, not by two', async () => {
    const gone = createOutbox('d', null);
    await gone.write('p', [step('1'), step('2')]);
    const [one, two] = [createOutbox('d', null, true), createOutbox('d', null, true)];
    const [a, b] = await Promise.all([one.read('p'), two.read('p')]);
    expect([names(a), names(b)].sort((x, y) => y.length - x.length)).toEqual([['1', '2'], []]);
    living.clear();
  });
  it('a tab is known by the lock it holds', async () => {
    const held: string[] = [];
    const locks = {
      request: (name: string) => {
        held.push(name);
        return new Promise(() => undefined);
      },
      query: () => Promise.resolve({ held: [...held.map((name) => ({ name })), { name: 'something else' }] }),
    } as unknown as LockManager;
    const [one, two] = [ownTab(locks, 'x'), ownTab(locks, 'y')];
    expect([...(await one.alive())]).toEqual(['x', 'y']);
    expect(two.id).toBe('y');
    // a browser without locks has one tab, and takes over all there is
    expect([...(await ownTab(undefined, 'z').alive())]).toEqual([]);
  });
  it('what is set aside stays, with its reason, until it is let go by name', async () => {
    const box = createOutbox('e', null);
    const entry = (id: string, at: string) => ({ project: 'p', step: step(id), why: `why ${id}`, at });
    await box.setAside([entry('2', '2026-02'), entry('1', '2026-01')]);
    await box.setAside([{ ...entry('9', '2026-01'), project: 'q' }]);
    const later = createOutbox('e', null);
    expect(await later.aside('p')).toEqual([entry('1', '2026-01'), entry('2', '2026-02')]);
    await later.dropAside('p', ['1', 'not there']);
    expect((await box.aside('p')).map((one) => one.step.id)).toEqual(['2']);
    expect(await box.aside('q')).toHaveLength(1);
  });
});
