import { create } from 'zustand';
import type { FaultView, HistoryView, StepDto, StepName } from '@nestplank/contract';
import type { Patch } from '@nestplank/core/document';
import type { Derived, DerivedShape, FloorWay, LiningCase } from '@nestplank/core/derive';
import {
  type Lined,
  OperationError,
  patchProject,
  readOperation,
  type Operation,
  type PriceBook,
  type PriceItem,
  type Project,
} from '@nestplank/core/document';
import { applyOperation } from '@nestplank/core/furniture';
import type { Message } from '@nestplank/core/words';
import { DeriveClient } from '../workers/derive-client.js';
import { tell } from '../words/speech.js';
import { api, RefusedError, UnreachableError } from './api.js';
import type { StageName } from '../stages/stages.js';
import { firstKeys } from './first-keys.js';
import { createOutbox, type Outbox } from './outbox.js';

/** The server is asked again after this long without an answer, ms. */
const RETRY_MS = 3000;
/** As many steps as the server takes in one request. */
const MOST_AT_ONCE = 200;

export type Saving =
  { readonly state: 'saved'; readonly at: Date } | { readonly state: 'saving' } | { readonly state: 'offline' };
export interface Notice {
  readonly text: string;
  readonly tone: 'plain' | 'trouble';
}
/** Why a project cannot be opened, and what is wrong with its document where that is why. */
export interface Failure {
  readonly why: string;
  readonly faults: readonly FaultView[];
  readonly revision: number | null;
}

interface Session {
  readonly id: string | null;
  readonly project: Project | null;
  readonly priceBook: PriceBook | null;
  readonly priceBookId: string | null;
  readonly history: HistoryView;
  readonly saving: Saving;
  readonly derived: Derived | null;
  /** What a drag or a half-typed line would give. */
  readonly preview: { readonly project: Project; readonly shape: DerivedShape | null } | null;
  readonly notice: Notice | null;
  readonly failed: Failure | null;
}

/** What works things out: the worker, or in tests whatever stands for it. */
export type Deriving = Pick<
  DeriveClient,
  | 'load'
  | 'patch'
  | 'preview'
  | 'dropPreview'
  | 'warm'
  | 'stopTelling'
  | 'moved'
  | 'buildUps'
  | 'linings'
  | 'floorWays'
  | 'look'
>;

/** Another tab that has the same project open. */
export interface Neighbours {
  readonly changed: () => void;
  readonly close: () => void;
}

/** Everything the state of the page stands on, so that it can be tried without a browser. */
export interface SessionParts {
  readonly api: Pick<typeof api, 'view' | 'post' | 'putPrice'>;
  readonly deriving: (onBreak: () => void) => Deriving;
  readonly outbox: Outbox;
  /** Joins the tabs that have a project open; null where there are none. */
  readonly join: (id: string, onChange: () => void) => Neighbours | null;
  readonly newId: () => string;
  readonly now: () => Date;
  readonly later: (work: () => void, ms: number) => () => void;
}

const CLOSED = { id: null, project: null, derived: null, preview: null, failed: null, notice: null } as const;
const NO_HISTORY: HistoryView = { undo: [], redo: [] };

/** Makes the state of the page: one project open, what it comes to, and the steps on their way to the server. */
export function createSession(parts: SessionParts) {
  const useSession = create<Session>(() => ({
    id: null,
    project: null,
    priceBook: null,
    priceBookId: null,
    history: { undo: [], redo: [] },
    saving: { state: 'saved', at: parts.now() },
    derived: null,
    preview: null,
    notice: null,
    failed: null,
  }));

  const get = useSession.getState;
  const set = useSession.setState;

  let revision = 0;
  let outbox: StepDto[] = [];
  let sending = false;
  let mostAtOnce = MOST_AT_ONCE;
  let dropRetry: (() => void) | null = null;
  let neighbours: Neighbours | null = null;
  /** Counts what was asked of the worker, so that a late answer does not replace a newer one. */
  let asked = 0;
  /** Counts what was opened, so that a project whose answer comes late does not replace another. */
  let opening = 0;

  const worker = parts.deriving(() => {
    notify(tell('error.worker'), 'trouble');
    void deriveWhole();
  });

  /** Keeps what is unsent; a browser that cannot keep it is told of, since closing the tab would lose it. */
  function keepOutbox(id: string): void {
    parts.outbox.write(id, outbox).catch(() => notify(tell('error.unkept'), 'trouble'));
  }

  function notify(text: string, tone: Notice['tone'] = 'plain'): void {
    set({ notice: { text, tone } });
  }
  function clearNotice(): void {
    set({ notice: null });
  }

  async function deriveWhole(): Promise<void> {
    const { project, priceBook } = get();
    if (!project || !priceBook) return;
    const own = ++asked;
    const derived = await worker.load(project, priceBook);
    if (own === asked) set({ derived, preview: null });
  }

  async function deriveChange(patches: readonly Patch[]): Promise<void> {
    const own = ++asked;
    try {
      await worker.patch(patches, (derived) => {
        if (own === asked) set({ derived, preview: null });
      });
    } catch {
      if (own === asked) await deriveWhole();
    }
  }

  /** Opens a project; steps of an earlier visit that were never acknowledged are put on top and sent. */
  async function openProject(id: string): Promise<void> {
    closeProject();
    worker.warm();
    const own = ++opening;
    try {
      const view = await parts.api.view(id);
      const unsent = await parts.outbox.read(id);
      // another project was opened meanwhile
      if (own !== opening) return;
      revision = view.revision;
      outbox = unsent;
      set({
        id,
        project: view.project,
        priceBook: view.priceBook,
        priceBookId: view.priceBookId,
        history: view.history,
        saving: { state: 'saved', at: parts.now() },
        derived: null,
        failed: null,
      });
      replayOutbox();
      neighbours = parts.join(id, () => void catchUp());
      await deriveWhole();
      void flush();
      // what was put right on opening is said once
      if (view.news.length > 0) notify(view.news.map(saidPlain).join(' '));
    } catch (problem) {
      set({
        failed:
          problem instanceof RefusedError
            ? {
                why: problem.message,
                faults: problem.refusal.faults ?? [],
                revision: problem.refusal.revision ?? null,
              }
            : { why: tell('home.failed'), faults: [], revision: null },
      });
    }
  }

  function closeProject(): void {
    opening += 1;
    dropRetry?.();
    dropRetry = null;
    neighbours?.close();
    neighbours = null;
    worker.stopTelling();
    asked += 1;
    outbox = [];
    set({ ...CLOSED, history: NO_HISTORY });
  }

  /** Puts the unsent steps on top of the project as the server has it; what no longer can be done is named and dropped. */
  function replayOutbox(): void {
    const { id, project } = get();
    if (!id || !project) return;
    let next = project;
    const kept: StepDto[] = [];
    for (const step of outbox) {
      try {
        if (step.name !== 'undo' && step.name !== 'redo')
          next = applyOperation(next, readOperation(step), get().priceBook).project;
        kept.push(step);
      } catch (problem) {
        if (!(problem instanceof OperationError)) throw problem;
        notify(tell('error.dropped', { why: saidPlain(problem.said) }), 'trouble');
      }
    }
    outbox = kept;
    keepOutbox(id);
    set({ project: next });
  }

  let sayPlain: (message: Message) => string = (message) => message.key;
  /** The words for refusals follow the units of the open project; the frame sets this. */
  function setSpeaker(speaker: (message: Message) => string): void {
    sayPlain = speaker;
  }
  const saidPlain = (message: Message): string => sayPlain(message);

  /** Takes in what the server has when another tab changed it. */
  async function catchUp(): Promise<void> {
    const { id } = get();
    if (!id) return;
    const view = await parts.api.view(id);
    if (get().id !== id || (view.revision === revision && view.priceBook === get().priceBook)) return;
    revision = view.revision;
    set({ project: view.project, priceBook: view.priceBook, history: view.history });
    replayOutbox();
    await deriveWhole();
  }

  /**
   * Does operations here and now and sends them on. All are done or none.
   * @returns null when done, else why not
   */
  function act(...operations: readonly Operation[]): Message | null {
    const { project, id } = get();
    if (!project || !id || operations.length === 0) return null;
    try {
      let next = project;
      const patches: Patch[] = [];
      for (const operation of operations) {
        const edit = applyOperation(next, readOperation(operation), get().priceBook);
        next = edit.project;
        patches.push(...edit.patches);
      }
      const steps = operations.map((operation): StepDto => ({
        id: parts.newId(),
        name: operation.name,
        payload: operation.payload as unknown as Record<string, unknown>,
      }));
      outbox = [...outbox, ...steps];
      keepOutbox(id);
      set({
        project: next,
        history: {
          undo: [...get().history.undo, ...operations.map((operation): StepName => operation.name)],
          redo: [],
        },
        saving: { state: 'saving' },
      });
      void deriveChange(patches);
      void flush();
      return null;
    } catch (problem) {
      if (problem instanceof OperationError) return problem.said;
      throw problem;
    }
  }

  /** Shows what operations would give without doing them. */
  function previewActions(operations: readonly Operation[] | null): void {
    const { project } = get();
    if (!operations || !project) {
      worker.dropPreview();
      set({ preview: null });
      return;
    }
    try {
      const next = operations.reduce((p, operation) => applyOperation(p, operation, get().priceBook).project, project);
      set((s) => ({ preview: { project: next, shape: s.preview?.shape ?? null } }));
      worker.preview(operations, (shape) => {
        if (get().preview) set((s) => ({ preview: s.preview && { ...s.preview, shape } }));
      });
    } catch (problem) {
      if (!(problem instanceof OperationError)) throw problem;
    }
  }

  /** Undo and redo are done by the server, which keeps every step, so that they outlive a reload. */
  function step(which: 'undo' | 'redo'): void {
    const { id, history } = get();
    if (!id || history[which].length === 0) return;
    outbox = [...outbox, { id: parts.newId(), name: which }];
    keepOutbox(id);
    set({ saving: { state: 'saving' } });
    void flush();
  }
  const undo = (): void => step('undo');
  const redo = (): void => step('redo');

  async function flush(): Promise<void> {
    const { id } = get();
    if (!id || sending) return;
    sending = true;
    dropRetry?.();
    dropRetry = null;
    try {
      while (outbox.length > 0 && get().id === id) await sendOnce(id);
      if (get().id === id) set({ saving: { state: 'saved', at: parts.now() } });
    } catch (problem) {
      if (!(problem instanceof UnreachableError)) throw problem;
      set({ saving: { state: 'offline' } });
      dropRetry = parts.later(() => void flush(), RETRY_MS);
    } finally {
      sending = false;
    }
    // another project was opened while this one still waited for its answer
    if (get().id !== id) void flush();
  }

  async function sendOnce(id: string): Promise<void> {
    // an undo goes alone, so that what it changed is all that its answer tells
    const turn = outbox.findIndex((s) => s.name === 'undo' || s.name === 'redo');
    const batch = turn === 0 ? outbox.slice(0, 1) : outbox.slice(0, turn < 0 ? mostAtOnce : Math.min(turn, mostAtOnce));
    try {
      const result = await parts.api.post(id, { revision, steps: batch });
      if (get().id !== id) return;
      revision = result.revision;
      outbox = outbox.slice(batch.length);
      keepOutbox(id);
      neighbours?.changed();
      mostAtOnce = MOST_AT_ONCE;
      if (turn === 0) await afterTurn(result.done.flatMap((d) => d.patches));
      if (outbox.length === 0) set({ history: result.history });
    } catch (problem) {
      if (!(problem instanceof RefusedError)) throw problem;
      // a server that failed has not said no: the steps are kept and sent again
      if (problem.refusal.code === 'failed') throw new UnreachableError(problem.message);
      if (problem.refusal.code === 'too-large' && batch.length > 1) mostAtOnce = 1;
      else await afterRefusal(id, problem);
    }
  }

  async function afterTurn(patches: readonly Patch[]): Promise<void> {
    const { project, id } = get();
    if (!project || !id) return;
    if (outbox.length === 0) {
      set({ project: patchProject(project, patches) });
      await deriveChange(patches);
      return;
    }
    const view = await parts.api.view(id);
    set({ project: view.project });
    replayOutbox();
    await deriveWhole();
  }

  async function afterRefusal(id: string, problem: RefusedError): Promise<void> {
    const { code, step: refused } = problem.refusal;
    if (code === 'operation' || code === 'invalid' || code === 'too-large') {
      outbox = outbox.filter((s, i) => (refused === undefined ? i > 0 : s.id !== refused));
      notify(tell('error.dropped', { why: problem.message }), 'trouble');
    } else if (code === 'conflict') notify(tell('error.rebased'));
    else {
      outbox = [];
      notify(problem.message, 'trouble');
    }
    keepOutbox(id);
    const view = await parts.api.view(id);
    if (get().id !== id) return;
    revision = view.revision;
    set({ project: view.project, history: view.history });
    replayOutbox();
    await deriveWhole();
  }

  /** Changes a price; the whole list is worked out anew. */
  async function changePrice(item: PriceItem): Promise<void> {
    const { priceBookId } = get();
    if (!priceBookId) return;
    try {
      const priceBook = await parts.api.putPrice(priceBookId, item);
      set({ priceBook });
      neighbours?.changed();
      await deriveWhole();
    } catch (problem) {
      notify(problem instanceof RefusedError ? problem.message : tell('home.failed'), 'trouble');
    }
  }

  return {
    useSession,
    notify,
    clearNotice,
    openProject,
    closeProject,
    setSpeaker,
    act,
    previewActions,
    undo,
    redo,
    changePrice,
    worker,
  };
}

/** The tabs of this browser, by the browser's own channel. */
function joinTabs(id: string, onChange: () => void): Neighbours {
  const channel = new BroadcastChannel(`nest-plank.${id}`);
  channel.addEventListener('message', onChange);
  return { changed: () => channel.postMessage('changed'), close: () => channel.close() };
}

const page = createSession({
  api,
  deriving: (onBreak) => new DeriveClient(onBreak),
  outbox: createOutbox(),
  join: joinTabs,
  newId: () => crypto.randomUUID(),
  now: () => new Date(),
  later: (work, ms) => {
    const timer = setTimeout(work, ms);
    return () => clearTimeout(timer);
  },
});

export const {
  useSession,
  notify,
  clearNotice,
  openProject,
  closeProject,
  setSpeaker,
  act,
  previewActions,
  undo,
  redo,
  changePrice,
} = page;
const { worker } = page;

/** Says which stage is looked at: what it shows of a change is worked out first. */
export const lookAt = (stage: StageName): void => worker.look(firstKeys(stage));
/** What moved because the reading at an address was taken again; null when it was read once. */
export const askMoved = (address: string): ReturnType<DeriveClient['moved']> => worker.moved(address);
/** What a kept set of build-ups gives, or the present one. */
export const askBuildUps = (id: string | null): ReturnType<DeriveClient['buildUps']> => worker.buildUps(id);
/** Ways to line a surface, worked out in the background. */
export const askLinings = (surface: Lined, each: (found: LiningCase) => void): Promise<void> =>
  worker.linings(surface, each);
export const askFloorWays = (each: (found: FloorWay) => void): Promise<void> => worker.floorWays(each);
/** Ends what is being worked out one by one. */
export const stopAsking = (): void => worker.stopTelling();
