// @vitest-environment jsdom
import * as Comlink from 'comlink';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { CutPlan } from '@nestplank/core/document';
import type { CutJob } from '@nestplank/core/plan';
import type { CutProgress } from '../../workers/cut.worker.js';
import { searchInWorker } from './use-cutting.js';

const told: CutProgress = { step: 3, plan: { sheets: [] } as unknown as CutPlan };
/** A worker that tells once how far it is, and then does what it is given. */
function workerThat(
  ends: (tell: CutProgress) => Promise<CutProgress>,
  hold: (tell: (progress: CutProgress) => void) => void = () => undefined,
): { ended: boolean } {
  const state = { ended: false };
  class Held {
    private readonly port: MessagePort;
    constructor() {
      const { port1, port2 } = new MessageChannel();
      this.port = port1;
      Comlink.expose(
        {
          search: async (_job: CutJob, _seconds: number, _offcut: number, tell: (progress: CutProgress) => void) => {
            hold(tell);
            tell(told);
            return ends(told);
          },
        },
        port2 as unknown as Comlink.Endpoint,
      );
      port1.start();
    }
    postMessage(message: unknown, transfer: Transferable[]): void {
      this.port.postMessage(message, transfer);
    }
    addEventListener(type: string, listener: EventListener): void {
      this.port.addEventListener(type, listener);
    }
    removeEventListener(type: string, listener: EventListener): void {
      this.port.removeEventListener(type, listener);
    }
    terminate(): void {
      state.ended = true;
      this.port.close();
    }
  }
  vi.stubGlobal('Worker', Held);
  return state;
}
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
/** Starts a search and waits until it has told once. */
async function begun() {
  let tell: () => void = () => undefined;
  const heard = new Promise<void>((resolve) => (tell = resolve));
  const search = searchInWorker({} as CutJob, 1, 100, () => tell());
  await heard;
  return search;
}

describe('a search in a worker', () => {
  it('ends with what the worker answers', async () => {
    const worker = workerThat((last) => Promise.resolve({ ...last, step: 9 }));
    const { end } = await begun();
    expect((await end)?.step).toBe(9);
    expect(worker.ended).toBe(true);
  });
  it('that never answers keeps nobody waiting: what it told is taken', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    const worker = workerThat(() => new Promise(() => undefined));
    const { end } = await begun();
    vi.advanceTimersByTime(8000);
    expect((await end)?.step).toBe(3);
    expect(worker.ended).toBe(true);
  });
  it('that is stopped gives what it told', async () => {
    workerThat(() => new Promise(() => undefined));
    const { end, stop } = await begun();
    stop();
    expect((await end)?.step).toBe(3);
  });

  it('says nothing more once it is over, whatever comes in late', async () => {
    let late: (progress: CutProgress) => void = () => undefined;
    workerThat(
      (last) => Promise.resolve({ ...last, step: 9 }),
      (tell) => (late = tell),
    );
    const heard: number[] = [];
    const { end } = searchInWorker({} as CutJob, 1, 100, ({ step }) => heard.push(step));
    await end;
    const before = heard.length;
    late({ ...told, step: 8 });
    await new Promise((resolve) => setTimeout(resolve));
    await new Promise((resolve) => setTimeout(resolve));
    expect(heard.length).toBe(before);
  });
});
