import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import type { StepDto } from '@nestplank/contract';
import { createOutbox } from './outbox.js';

const step = (id: string): StepDto => ({ id, name: 'undo' });
const names = (steps: readonly StepDto[]): string[] => steps.map((one) => one.id);

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
    const [one, two] = [createOutbox('b', null), createOutbox('b', null)];
    await Promise.all([one.read('p'), two.read('p')]);
    await one.write('p', [step('1')]);
    await two.write('p', [step('2')]);
    await one.write('p', []);
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
});
