import { beforeEach, describe, expect, it } from 'vitest';
import type { StepDto } from '@nestplank/contract';
import { startPriceBook } from '@nestplank/core/materials';
import { readProjectFile } from '@nestplank/core/formats';
import { say } from '@nestplank/core/words';
import { createForwarder } from './forward.js';
import { memoryOutbox, Server } from './page.fixture.js';
import demo from '../../../../demo/wren.json?raw';

const wren = readProjectFile(demo).project;
const book = startPriceBook();
const move = (id: string, unit: string, x: number): StepDto => ({
  id,
  name: 'changeUnit',
  payload: { id: unit, changes: { x } },
});
let server: Server;
let outbox: ReturnType<typeof memoryOutbox>;
let waiting: (() => void)[];
const settle = async (): Promise<void> => {
  for (let i = 0; i < 200; i += 1) await Promise.resolve();
};
const forwarder = () =>
  createForwarder(
    {
      api: { view: (_id, steps) => server.view(steps), post: (_id, sent) => server.post(sent) },
      outbox,
      now: () => new Date(0),
      later: (work) => {
        waiting.push(work);
        return () => void (waiting = waiting.filter((own) => own !== work));
      },
      chance: () => 1,
    },
    say,
  );
beforeEach(() => {
  server = new Server(wren, book);
  outbox = memoryOutbox();
  waiting = [];
});

describe('what is unsent while no project is open', () => {
  it('is told and sent on, as often as it takes', async () => {
    outbox.kept.set('p', [move('a', 'bench', 900), move('b', 'kitchen', 700)]);
    server.reachable = false;
    const { start, useForwarding } = forwarder();
    await start();
    await settle();
    expect(useForwarding.getState().waits.get('p')).toEqual({ unsent: 2, why: 'unreachable' });
    waiting.shift()?.();
    await settle();
    expect(server.log).toEqual([]);
    server.reachable = true;
    waiting.shift()?.();
    await settle();
    expect(server.log).toEqual(['a', 'b']);
    expect(useForwarding.getState().waits.get('p')).toEqual({ unsent: 0, why: null });
    expect(outbox.kept.get('p')).toEqual([]);
  });
  it('is set aside with the reason where it cannot be done any more, and the rest is sent', async () => {
    outbox.kept.set('p', [move('a', 'gone', 900), move('b', 'bench', 910)]);
    await forwarder().start();
    await settle();
    expect(server.log).toEqual(['b']);
    expect((await outbox.aside('p')).map(({ step }) => step.id)).toEqual(['a']);
  });
  it('of a project that is not there stays here, and so does what was stopped', async () => {
    outbox.kept.set('p', [move('a', 'bench', 900)]);
    server.deleted = true;
    const { start, stop, useForwarding } = forwarder();
    await start();
    await settle();
    expect(useForwarding.getState().waits.get('p')).toEqual({ unsent: 1, why: 'no-project' });
    expect(outbox.kept.get('p')).toHaveLength(1);
    expect(waiting).toEqual([]);
    server.deleted = false;
    server.reachable = false;
    await start();
    await settle();
    stop();
    server.reachable = true;
    for (const work of waiting) work();
    await settle();
    expect(server.log).toEqual([]);
    expect(outbox.kept.get('p')).toHaveLength(1);
  });
  it('nothing is told where there is none', async () => {
    const { start, useForwarding } = forwarder();
    await start();
    expect(useForwarding.getState().waits.size).toBe(0);
  });
});
