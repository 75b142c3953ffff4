import type { HistoryView, ProjectView, Refusal, StepDto, StepsResult, StorageTrouble } from '@nestplank/contract';
import { OTHER_DATABASE } from '@nestplank/contract/limits';
import type { Patch } from '@nestplank/core/document';
import { RefusedError, UnreachableError } from './api.js';
import type { Aside, Outbox } from './outbox.js';

/** As many steps as the server takes in one request. */
const MOST_AT_ONCE = 200;
/** The first wait before the server is asked again, ms; each further one is twice as long, up to the longest. */
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 60_000;

/** Why nothing is sent just now. */
export type Hindrance = 'unreachable' | 'busy' | StorageTrouble;

/** How far what was done is kept by the server. */
export interface Saving {
  /** opening: nobody knows yet; saved: all of it; saving: on its way; waiting: it cannot be sent now, and is tried again. */
  readonly state: 'opening' | 'saved' | 'saving' | 'waiting';
  /** Steps the server has not acknowledged. */
  readonly unsent: number;
  /** Steps that other tabs of this browser have not sent. */
  readonly elsewhere: number;
  /** What the server acknowledged last, and when. */
  readonly revision: number;
  readonly at: Date;
  readonly why: Hindrance | null;
}

/** What the queue asks of the state of the page. */
export interface SyncHost {
  /** Takes the project as the server has it, with the unsent steps that can still be done on top; says which cannot, and why. */
  readonly takeView: (view: ProjectView, unsent: readonly StepDto[]) => readonly { step: StepDto; why: string }[];
  /** Takes what an undo or redo changed. */
  readonly takeTurn: (patches: readonly Patch[]) => void;
  readonly takeHistory: (history: HistoryView) => void;
  readonly takeSaving: (saving: Saving) => void;
  /** Steps were set aside. */
  readonly takeAside: (entries: readonly Aside[]) => void;
  /** The project is not there any more, or cannot be opened. */
  readonly gone: (refusal: Refusal) => void;
  /** Something was sent: other tabs may look. */
  readonly sent: () => void;
  /** Somebody else was there first. */
  readonly rebased: () => void;
  /** The browser could not keep what is unsent. */
  readonly unkept: () => void;
}

export interface SyncParts {
  readonly api: {
    readonly view: (id: string, steps: readonly string[]) => Promise<ProjectView>;
    readonly post: (id: string, sent: { readonly revision: number; readonly steps: StepDto[] }) => Promise<StepsResult>;
  };
  readonly outbox: Outbox;
  readonly now: () => Date;
  readonly later: (work: () => void, ms: number) => () => void;
  /** A number from 0 to 1 that keeps several pages from asking at the same moment. */
  readonly chance: () => number;
}

/** The queue of one open project. */
export interface Sync {
  /** Takes in what was opened and sends what waits. Once. */
  readonly begin: () => void;
  /** Steps that the server has not acknowledged. */
  readonly unsent: () => readonly StepDto[];
  readonly add: (steps: readonly StepDto[]) => void;
  /** Somebody else changed the project. */
  readonly lookAgain: () => void;
  /** Tries at once instead of waiting. */
  readonly tryNow: () => void;
  /** Nobody looks any more. What is on its way arrives; what cannot be sent stays kept. */
  readonly close: () => void;
}

const isTurn = (step: StepDto): boolean => step.name === 'undo' || step.name === 'redo';

/** Why a refusal only means that it has to wait; null when it is a no. */
function hindranceOf(problem: unknown): Hindrance | null {
  if (problem instanceof UnreachableError) return 'unreachable';
  if (!(problem instanceof RefusedError)) return null;
  const { code, trouble, statusCode } = problem.refusal;
  if (code === 'storage') return trouble ?? 'failed';
  return code === 'failed' || statusCode === 429 || statusCode >= 500 ? 'busy' : null;
}

/**
 * Sends steps to the server and takes in what others did, one message after another. What it holds to:
 * a step leaves the queue only when the server says that it is done, or when it is set aside with a reason; a project that
 * is asked for comes with the news of which queued steps it holds already, so that none is done twice; after every no and
 * every conflict the project is asked for anew, and each further try waits longer than the one before.
 */
export function createSync(
  id: string,
  opened: { readonly view: ProjectView; readonly unsent: readonly StepDto[] },
  parts: SyncParts,
  host: SyncHost,
): Sync {
  const doneBefore = new Set(opened.view.done);
  let queue: StepDto[] = opened.unsent.filter((step) => !doneBefore.has(step.id));
  let { revision } = opened.view;
  let acknowledged = parts.now();
  let stale = false;
  let talking = false;
  /** Nobody looks any more: what is queued is still sent, and nobody is told. */
  let closed = false;
  let over = false;
  let failures = 0;
  let mostAtOnce = MOST_AT_ONCE;
  let hindrance: Hindrance | null = null;
  let dropWait: (() => void) | null = null;

  const tell = (state: Saving['state'], why: Hindrance | null = null): void => {
    if (!closed) host.takeSaving({ state, unsent: queue.length, elsewhere: 0, revision, at: acknowledged, why });
  };
  const keep = (): void => void parts.outbox.write(id, queue).catch(host.unkept);
  const without = (steps: Iterable<string>): void => {
    const gone = new Set(steps);
    if (gone.size === 0) return;
    queue = queue.filter((step) => !gone.has(step.id));
    keep();
  };
  /** Takes steps out of the queue for the person to see to. They are set aside before they are let go. */
  const setAside = async (entries: readonly { step: StepDto; why: string }[]): Promise<void> => {
    if (entries.length === 0) return;
    const at = parts.now().toISOString();
    const made = entries.map(({ step, why }): Aside => ({ project: id, step, why, at }));
    await parts.outbox.setAside(made).catch(host.unkept);
    without(entries.map(({ step }) => step.id));
    if (!closed) host.takeAside(made);
  };

  async function look(): Promise<void> {
    const view = await parts.api.view(
      id,
      queue.map((step) => step.id),
    );
    without(view.done);
    if (closed) return;
    revision = view.revision;
    stale = false;
    await setAside(elsewhereIn(view));
    await setAside(host.takeView(view, queue));
  }
  /** What was done on another database that has a project of this id never goes into this one. */
  const elsewhereIn = ({ database }: ProjectView): { step: StepDto; why: string }[] =>
    queue
      .filter((step) => step.database !== undefined && step.database !== database)
      .map((step) => ({ step, why: OTHER_DATABASE }));

  async function send(): Promise<void> {
    // an undo goes alone, so that what it changed is all that its answer tells
    const turn = queue.findIndex(isTurn);
    const batch = turn === 0 ? queue.slice(0, 1) : queue.slice(0, turn < 0 ? mostAtOnce : Math.min(turn, mostAtOnce));
    try {
      const result = await parts.api.post(id, { revision, steps: batch });
      failures = 0;
      hindrance = null;
      mostAtOnce = MOST_AT_ONCE;
      revision = result.revision;
      acknowledged = parts.now();
      without(batch.map((step) => step.id));
      if (closed) return;
      host.sent();
      if (turn === 0) {
        // what was done meanwhile stands on what was there before the undo
        if (queue.length > 0) stale = true;
        else host.takeTurn(result.done.flatMap((done) => done.patches));
      }
      if (queue.length === 0) host.takeHistory(result.history);
    } catch (problem) {
      if (!(problem instanceof RefusedError) || hindranceOf(problem) !== null) throw problem;
      await refused(problem, batch);
    }
  }

  async function refused(problem: RefusedError, batch: readonly StepDto[]): Promise<void> {
    const { code, step, done = [] } = problem.refusal;
    if (code === 'not-found' || code === 'unsound') throw problem;
    if (code === 'conflict') {
      without(done);
      stale = true;
      if (failures === 0 && !closed) host.rebased();
      failures += 1;
      return;
    }
    const named = batch.find((one) => one.id === step) ?? (batch.length === 1 ? batch[0] : undefined);
    // none is named: they are sent one by one, so that the one that cannot be done is found
    if (!named) mostAtOnce = 1;
    else {
      stale = true;
      await setAside([{ step: named, why: problem.message }]);
    }
  }

  /** What the server will never take keeps its steps where they can be taken out. */
  async function givenUp(problem: RefusedError): Promise<void> {
    if (problem.refusal.code === 'not-found') await setAside(queue.map((step) => ({ step, why: problem.message })));
    if (!closed) host.gone(problem.refusal);
    over = true;
  }

  async function talk(): Promise<void> {
    if (talking || over) return;
    talking = true;
    dropWait?.();
    dropWait = null;
    let wait: number | null = null;
    try {
      while (!over && (stale ? !closed : queue.length > 0)) {
        tell(queue.length > 0 ? 'saving' : 'saved');
        // overtaken more than once in a row: others are at work, let them
        if (failures > 1 && stale) {
          wait = waitAfter(failures);
          await look();
          break;
        }
        if (stale) await look();
        else await send();
      }
      if (wait === null && !over) {
        failures = 0;
        hindrance = null;
        tell('saved');
      }
    } catch (problem) {
      const why = hindranceOf(problem);
      if (why !== null) {
        failures += 1;
        wait = waitAfter(failures);
        hindrance = why;
        tell('waiting', why);
      } else if (problem instanceof RefusedError) await givenUp(problem);
      else throw problem;
    } finally {
      talking = false;
    }
    if (wait !== null && !closed && !over) dropWait = parts.later(() => void talk(), wait);
  }

  function waitAfter(times: number): number {
    const most = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (times - 1));
    return most * (0.5 + parts.chance() / 2);
  }

  if (queue.length < opened.unsent.length) keep();
  return {
    begin: () => {
      const elsewhere = elsewhereIn(opened.view);
      const here = queue.filter((step) => !elsewhere.some((one) => one.step === step));
      const lost = host.takeView(opened.view, here);
      tell(queue.length > 0 ? 'saving' : 'saved');
      void setAside([...elsewhere, ...lost]).then(talk);
    },
    unsent: () => queue,
    add: (steps) => {
      queue = [...queue, ...steps];
      keep();
      if (dropWait === null) {
        tell('saving');
        void talk();
      } else tell('waiting', hindrance);
    },
    lookAgain: () => {
      stale = true;
      if (dropWait === null) void talk();
    },
    tryNow: () => void talk(),
    close: () => {
      closed = true;
      dropWait?.();
      dropWait = null;
    },
  };
}
