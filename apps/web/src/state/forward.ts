import { create } from 'zustand';
import type { Message } from '@nestplank/core/words';
import { RefusedError } from './api.js';
import { onTop } from './on-top.js';
import { createSync, type Hindrance, type Sync, type SyncParts } from './sync.js';

/** What of a project waits to be sent while none is open. */
export interface Forward {
  readonly unsent: number;
  /** Why it waits; null while it is on its way; `no-project` where the server has no such project. */
  readonly why: Hindrance | 'no-project' | null;
}
export interface Forwarding {
  /** By project; only those with something unsent, and those whose last was just sent, with none. */
  readonly waits: ReadonlyMap<string, Forward>;
}

/** A project that could not be asked for is asked for again after this long, ms. */
const AGAIN_MS = 3000;

/**
 * Sends what was left unsent in this browser while no project is open: what a tab that is gone has left, and this one's own.
 * What cannot be done any more is set aside, to be seen when its project is opened.
 */
export function createForwarder(parts: SyncParts, saidPlain: (message: Message) => string) {
  const useForwarding = create<Forwarding>(() => ({ waits: new Map() }));
  let running: Sync[] = [];
  let drops: (() => void)[] = [];
  let round = 0;

  const told = (id: string, forward: Forward): void =>
    useForwarding.setState(({ waits }) => ({ waits: new Map([...waits, [id, forward]]) }));

  async function forward(id: string, own: number): Promise<void> {
    const unsent = await parts.outbox.read(id);
    if (own !== round || unsent.length === 0) return;
    told(id, { unsent: unsent.length, why: null });
    try {
      const view = await parts.api.view(
        id,
        unsent.map((step) => step.id),
      );
      if (own !== round) return;
      const sync = createSync(id, { view, unsent }, parts, {
        takeView: (next, queued) => onTop(next, queued).lost.map(({ step, why }) => ({ step, why: saidPlain(why) })),
        takeTurn: () => undefined,
        takeHistory: () => undefined,
        takeSaving: ({ unsent: left, why }) => told(id, { unsent: left, why }),
        takeAside: () => undefined,
        gone: () => told(id, { unsent: unsent.length, why: 'no-project' }),
        sent: () => undefined,
        rebased: () => undefined,
        unkept: () => undefined,
      });
      running.push(sync);
      sync.begin();
    } catch (problem) {
      if (own !== round) return;
      const none = problem instanceof RefusedError && problem.refusal.code === 'not-found';
      told(id, { unsent: unsent.length, why: none ? 'no-project' : 'unreachable' });
      if (!none) drops.push(parts.later(() => void forward(id, own), AGAIN_MS));
    }
  }

  return {
    useForwarding,
    /** Looks for what is unsent and sends it, until it is stopped. */
    start: async (): Promise<void> => {
      const own = ++round;
      useForwarding.setState({ waits: new Map() });
      // a browser that keeps nothing has nothing to send
      const ids = await parts.outbox.projects().catch(() => []);
      if (own === round) await Promise.all(ids.map((id) => forward(id, own)));
    },
    /** A project is opened: its own queue goes on from here. */
    stop: (): void => {
      round += 1;
      for (const sync of running) sync.close();
      for (const drop of drops) drop();
      [running, drops] = [[], []];
    },
  };
}
