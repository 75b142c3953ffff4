import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { readProjectFile } from '@nestplank/core/formats';
import { DeriveClient } from './derive-client.js';
import demo from '../../../../demo/thimble.json?raw';

/** A worker that takes everything and never answers, or breaks when it is told to. */
class DeafWorker extends EventTarget {
  static made: DeafWorker[] = [];
  ended = false;
  constructor() {
    super();
    DeafWorker.made.push(this);
  }
  postMessage(): void {
    // deaf
  }
  terminate(): void {
    this.ended = true;
  }
}
const { project, priceBook } = readProjectFile(demo);

describe('a worker that does not come to an end', () => {
  beforeEach(() => {
    DeafWorker.made = [];
    vi.useFakeTimers();
    vi.stubGlobal('Worker', DeafWorker);
  });
  afterEach(() => {
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });
  const after = async (asked: Promise<unknown>, ms: number): Promise<string> => {
    let said = 'waits';
    asked.then(
      () => (said = 'done'),
      (problem: unknown) => (said = problem instanceof Error ? problem.message : String(problem)),
    );
    await vi.advanceTimersByTimeAsync(ms);
    return said;
  };

  it('is ended after its time, with a sentence, and the next question starts another', async () => {
    const client = new DeriveClient(() => undefined);
    expect(await after(client.load(project, priceBook), 29_000)).toBe('waits');
    const second = client.patch([], () => undefined);
    expect(await after(second, 31_000)).toMatch(/30 seconds|30 s/);
    expect(DeafWorker.made.map((worker) => worker.ended)).toEqual([true]);
    expect(await after(client.load(project, priceBook), 31_000)).not.toBe('waits');
    expect(DeafWorker.made.map((worker) => worker.ended)).toEqual([true, true]);
  });
  it('neither does what is asked beside keep anybody waiting for ever', async () => {
    for (const ask of [
      (client: DeriveClient) => client.moved('floor/length'),
      (client: DeriveClient) => client.buildUps(null),
    ]) {
      const client = new DeriveClient(() => undefined);
      expect(await after(ask(client), 31_000)).toMatch(/30/);
    }
    expect(DeafWorker.made.every((worker) => worker.ended)).toBe(true);
  });
  it('when it breaks it is let go, and whoever has it is told', () => {
    const broke = vi.fn();
    const client = new DeriveClient(broke);
    client.warm();
    DeafWorker.made[0]?.dispatchEvent(new Event('error'));
    expect([broke.mock.calls.length, DeafWorker.made[0]?.ended]).toEqual([1, true]);
    client.warm();
    expect(DeafWorker.made).toHaveLength(2);
  });
});
