import { v4 as freshId } from 'uuid';
import { create } from 'zustand';
import type { FaultView, HistoryView, ProjectView, Refusal, RepriceDto, StepDto } from '@nestplank/contract';
import type { Patch } from '@nestplank/core/document';
import type {
  Derived,
  DerivedShape,
  FloorWay,
  LiningCase,
  MendedAll,
  Suggested,
  Wishes,
  Worse,
} from '@nestplank/core/derive';
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
import { speechFor, tell } from '../words/speech.js';
import { api, RefusedError } from './api.js';
import type { StageName } from '../stages/stages.js';
import { firstKeys } from './first-keys.js';
import { createOutbox, ownTab, type Aside, type Outbox } from './outbox.js';
import { createForwarder } from './forward.js';
import { onTop } from './on-top.js';
import { createSync, type Hindrance, type Saving, type Sync } from './sync.js';

export type { Saving };

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
  /** Steps that could not be done, each with its reason, until the person is done with them. */
  readonly aside: readonly Aside[];
  readonly derived: Derived | null;
  /** What a drag or a half-typed line would give. */
  readonly preview: { readonly project: Project; readonly shape: DerivedShape | null } | null;
  readonly notice: Notice | null;
  /** Why nothing can be worked out from the project as it is; null when it can. */
  readonly fault: string | null;
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
  | 'mends'
  | 'worsens'
  | 'proposals'
  | 'layouts'
  | 'look'
>;

/** Another tab that has the same project open. */
export interface Neighbours {
  readonly changed: () => void;
  /** Tells the other tabs how many steps of this one the server has not got. */
  readonly waiting: (unsent: number) => void;
  readonly close: () => void;
}

/** Everything the state of the page stands on, so that it can be tried without a browser. */
export interface SessionParts {
  readonly api: Pick<typeof api, 'view' | 'post' | 'putPrice' | 'removePrice' | 'reprice' | 'takePrices'>;
  readonly deriving: (onBreak: () => void) => Deriving;
  readonly outbox: Outbox;
  /** Joins the tabs that have a project open; null where there are none. */
  readonly join: (
    id: string,
    onChange: () => void,
    onWaiting: (tab: string, unsent: number) => void,
  ) => Neighbours | null;
  readonly newId: () => string;
  readonly now: () => Date;
  readonly later: (work: () => void, ms: number) => () => void;
  /** Does something when the page is drawn next. */
  readonly drawn: (work: () => void) => void;
  readonly chance: () => number;
}

const CLOSED = {
  id: null,
  project: null,
  derived: null,
  preview: null,
  failed: null,
  notice: null,
  aside: [],
  fault: null,
} as const;
/** A project that could not be fetched is asked for again after this long, ms. */
const OPEN_AGAIN_MS = 3000;
/** So many materials are sent at once. */
const PRICES_AT_ONCE = 400;
/** Before the server has said anything. */
const NOTHING_KNOWN = (at: Date): Saving => ({ state: 'opening', unsent: 0, elsewhere: 0, revision: 0, at, why: null });
const NO_HISTORY: HistoryView = { undo: [], redo: [] };

/** Makes the state of the page: one project open, what it comes to, and the steps on their way to the server. */
export function createSession(parts: SessionParts) {
  const useSession = create<Session>(() => ({
    id: null,
    project: null,
    priceBook: null,
    priceBookId: null,
    history: { undo: [], redo: [] },
    saving: NOTHING_KNOWN(parts.now()),
    aside: [],
    fault: null,
    derived: null,
    preview: null,
    notice: null,
    failed: null,
  }));

  const get = useSession.getState;
  const set = useSession.setState;

  let sync: Sync | null = null;
  /** The database the project that is open lies in. */
  let database = '';
  let deriving: Promise<void> = Promise.resolve();
  let neighbours: Neighbours | null = null;
  /** How many steps other tabs that have this project open keep unsent, by tab. */
  const elsewhere = new Map<string, number>();
  const unsentElsewhere = (): number => [...elsewhere.values()].reduce((sum, count) => sum + count, 0);
  /** Counts what was asked of the worker, so that a late answer does not replace a newer one. */
  let asked = 0;
  /** Counts what was opened, so that a project whose answer comes late does not replace another. */
  let opening = 0;

  const worker = parts.deriving(() => {
    notify(tell('error.worker'), 'trouble');
    void deriveWhole();
  });

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
    try {
      const derived = await worker.load(project, priceBook);
      if (own === asked) set({ derived, preview: null, fault: null });
    } catch (problem) {
      // the project stays open: it can be undone, taken out, returned to a version
      if (own === asked)
        set({ derived: null, preview: null, fault: problem instanceof Error ? problem.message : String(problem) });
    }
  }

  async function deriveChange(patches: readonly Patch[]): Promise<void> {
    const own = ++asked;
    try {
      await worker.patch(patches, (derived) => {
        if (own === asked) set({ derived, preview: null, fault: null });
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
    let unheard = (): void => undefined;
    try {
      // a browser that keeps nothing must not keep the project from being opened
      let kept = true;
      const lacking = (): [] => {
        kept = false;
        return [];
      };
      const unsent = await parts.outbox.read(id).catch(lacking);
      // nothing is saved before the server says so
      const waits = (why: Hindrance | null): void => {
        const { saving } = get();
        set({
          saving: {
            ...saving,
            state: unsent.length === 0 ? 'opening' : why ? 'waiting' : 'saving',
            unsent: unsent.length,
            why,
          },
        });
      };
      waits(null);
      unheard = () => waits('unreachable');
      const view = await parts.api.view(
        id,
        unsent.map((step) => step.id),
      );
      const aside = await parts.outbox.aside(id).catch(lacking);
      // another project was opened meanwhile
      if (own !== opening) return;
      set({ id, priceBookId: view.priceBookId, derived: null, failed: null, aside });
      const current = (): boolean => own === opening;
      sync = createSync(id, { view, unsent }, parts, {
        takeView: (next, queued) => (current() ? takeView(next, queued) : []),
        takeTurn,
        takeHistory: (history) => set({ history }),
        takeSaving: (saving) => {
          if (saving.unsent !== get().saving.unsent) neighbours?.waiting(saving.unsent);
          set({ saving: { ...saving, elsewhere: unsentElsewhere() } });
        },
        takeAside: (entries) => {
          set({ aside: [...get().aside, ...entries] });
          const [first] = entries;
          if (first) notify(tell('error.aside', { count: entries.length, why: first.why }), 'trouble');
        },
        gone: (refusal) => fail(refusal),
        sent: () => neighbours?.changed(),
        rebased: () => notify(tell('error.rebased')),
        unkept: () => notify(tell('error.unkept'), 'trouble'),
      });
      sync.begin();
      neighbours = parts.join(
        id,
        () => sync?.lookAgain(),
        (tab, count) => {
          if (!current()) return;
          elsewhere.set(tab, count);
          set({ saving: { ...get().saving, elsewhere: unsentElsewhere() } });
        },
      );
      neighbours?.waiting(sync.unsent().length);
      await deriving;
      if (!kept) notify(tell('error.unkept'), 'trouble');
      // what was put right on opening is said once
      if (view.news.length > 0) notify(view.news.map(saidPlain).join(' '));
    } catch (problem) {
      if (own !== opening) return;
      if (problem instanceof RefusedError) fail(problem.refusal);
      else {
        unheard();
        set({ failed: { why: tell('home.failed'), faults: [], revision: null } });
        // what is kept here waits to be sent: it is tried again for as long as somebody waits for it
        parts.later(() => {
          if (own === opening) void openProject(id);
        }, OPEN_AGAIN_MS);
      }
    }
  }

  function fail(refusal: Refusal): void {
    set({
      failed: { why: refusal.message, faults: refusal.faults ?? [], revision: refusal.revision ?? null },
    });
  }

  function closeProject(): void {
    opening += 1;
    sync?.close();
    sync = null;
    neighbours?.close();
    neighbours = null;
    elsewhere.clear();
    worker.stopTelling();
    asked += 1;
    answered = null;
    set({ ...CLOSED, history: NO_HISTORY, saving: NOTHING_KNOWN(parts.now()) });
  }

  /**
   * Takes the project as the server has it and puts the unsent steps on top.
   * @returns those that can no longer be done, and why
   */
  function takeView(view: ProjectView, unsent: readonly StepDto[]): { step: StepDto; why: string }[] {
    ({ database } = view);
    const { project: next, done, lost } = onTop(view, unsent);
    const { history } = view;
    set({
      project: next,
      priceBook: view.priceBook,
      history: done.length > 0 ? { undo: [...history.undo, ...done], redo: [] } : history,
    });
    deriving = deriveWhole();
    return lost.map(({ step, why }) => ({ step, why: saidPlain(why) }));
  }

  function takeTurn(patches: readonly Patch[]): void {
    const { project } = get();
    if (!project) return;
    set({ project: patchProject(project, patches) });
    void deriveChange(patches);
  }

  let sayPlain: (message: Message) => string = (message) => message.key;
  /** The words for refusals follow the units of the open project; the frame sets this. */
  function setSpeaker(speaker: (message: Message) => string): void {
    sayPlain = speaker;
  }
  const saidPlain = (message: Message): string => sayPlain(message);

  /**
   * Does operations here and now and sends them on. All are done or none.
   * @returns null when done, else why not
   */
  function act(...operations: readonly Operation[]): Message | null {
    const { project, id } = get();
    const [only] = operations;
    if (!project || !id || !only) return null;
    // what one press does is one step: one undo takes it back
    const operation: Operation =
      operations.length === 1 ? only : { name: 'together', payload: { operations: [...operations] } };
    try {
      const edit = applyOperation(project, readOperation(operation), get().priceBook);
      const step: StepDto = {
        id: parts.newId(),
        name: operation.name,
        payload: operation.payload as unknown as Record<string, unknown>,
        database,
      };
      set({
        project: edit.project,
        history: { undo: [...get().history.undo, operation.name], redo: [] },
      });
      void deriveChange(edit.patches);
      sync?.add([step]);
      return null;
    } catch (problem) {
      if (problem instanceof OperationError) return problem.said;
      throw problem;
    }
  }

  /** What the last preview comes to, until it is shown: with the next step of the hand, or when the page is drawn next. */
  let answered: DerivedShape | null = null;
  function showAnswer(): void {
    const shape = answered;
    answered = null;
    if (shape && get().preview) set((s) => ({ preview: s.preview && { ...s.preview, shape } }));
  }

  /** Shows what operations would give without doing them. */
  function previewActions(operations: readonly Operation[] | null): void {
    const { project } = get();
    if (!operations || !project) {
      worker.dropPreview();
      answered = null;
      set({ preview: null });
      return;
    }
    try {
      const next = operations.reduce((p, operation) => applyOperation(p, operation, get().priceBook).project, project);
      const shape = answered ?? get().preview?.shape ?? null;
      answered = null;
      set({ preview: { project: next, shape } });
      worker.preview(operations, (told) => {
        if (!answered) parts.drawn(showAnswer);
        answered = told;
      });
    } catch (problem) {
      if (!(problem instanceof OperationError)) throw problem;
    }
  }

  /** Undo and redo are done by the server, which keeps every step, so that they outlive a reload. */
  function step(which: 'undo' | 'redo'): void {
    const { id, history } = get();
    if (id && history[which].length > 0) sync?.add([{ id: parts.newId(), name: which, database }]);
  }
  const undo = (): void => step('undo');
  const redo = (): void => step('redo');

  /** Does a step that was set aside once more, as it is or changed; it stays set aside when it still cannot be done. */
  async function doAside(entry: Aside, payload?: Record<string, unknown>): Promise<Message | null> {
    const { name } = entry.step;
    if (name === 'undo' || name === 'redo') step(name);
    else {
      const refused = act(readOperation({ name, payload: payload ?? entry.step.payload }));
      if (refused) return refused;
    }
    await dropAside(entry);
    return null;
  }

  /** Lets go of a step that was set aside. */
  async function dropAside(entry: Aside): Promise<void> {
    await parts.outbox.dropAside(entry.project, [entry.step.id]);
    set({ aside: get().aside.filter((other) => other.step.id !== entry.step.id) });
  }

  /** One change of the price book after the other: each is made of what the one before left. */
  let pricing: Promise<unknown> = Promise.resolve();
  /** Does something to the price book and works everything out anew; tells when it was refused. @returns whether it was done */
  function onPrices(work: (book: string) => Promise<PriceBook> | null): Promise<boolean> {
    const done = pricing.then(async () => {
      const { priceBookId } = get();
      try {
        const priceBook = priceBookId === null ? null : await work(priceBookId);
        if (!priceBook) return false;
        set({ priceBook });
        neighbours?.changed();
        await deriveWhole();
        return true;
      } catch (problem) {
        notify(problem instanceof RefusedError ? problem.message : tell('home.failed'), 'trouble');
        return false;
      }
    });
    pricing = done;
    return done;
  }
  /** Puts a material into the price book, new or changed; the whole list is worked out anew. */
  const changePrice = (item: PriceItem): Promise<boolean> => onPrices((book) => parts.api.putPrice(book, item));
  /** Changes some of what is known of a material, as it is when its turn comes. */
  const changeMaterial = (id: string, change: (now: PriceItem) => Partial<PriceItem>): Promise<boolean> =>
    onPrices((book) => {
      const now = get().priceBook?.items.find((item) => item.id === id);
      return now ? parts.api.putPrice(book, { ...now, ...change(now) }) : null;
    });
  /** Takes a material out of the price book; the server refuses while a build is made of it. */
  const removePrice = (id: string): Promise<boolean> => onPrices((book) => parts.api.removePrice(book, id));
  /** Takes in materials from a file, new and changed. */
  const takePrices = (items: readonly PriceItem[]): Promise<boolean> => onPrices((book) => takenInParts(book, items));
  /** A long list goes in parts: a server takes no more than so much at once. */
  async function takenInParts(book: string, items: readonly PriceItem[]): Promise<PriceBook> {
    let taken = await parts.api.takePrices(book, items.slice(0, PRICES_AT_ONCE));
    for (let from = PRICES_AT_ONCE; from < items.length; from += PRICES_AT_ONCE)
      taken = await parts.api.takePrices(book, items.slice(from, from + PRICES_AT_ONCE));
    return taken;
  }
  /** Moves the prices of a group, or all, by a factor. */
  const reprice = (level: RepriceDto): Promise<boolean> => onPrices((book) => parts.api.reprice(book, level));

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
    doAside,
    dropAside,
    tryNow: () => sync?.tryNow(),
    changePrice,
    changeMaterial,
    removePrice,
    reprice,
    takePrices,
    worker,
  };
}

/** What tabs that have one project open tell each other. */
type TabMessage =
  | { readonly kind: 'changed' }
  /** A tab that has just come asks the others how many steps they keep unsent. */
  | { readonly kind: 'who' }
  | { readonly kind: 'waiting'; readonly tab: string; readonly unsent: number };

/** The tabs of this browser, by the browser's own channel. */
function joinTabs(
  id: string,
  onChange: () => void,
  onWaiting: (tab: string, unsent: number) => void,
  own = freshId(),
): Neighbours {
  const channel = new BroadcastChannel(`nest-plank.${id}`);
  const post = (said: TabMessage): void => channel.postMessage(said);
  let unsent = 0;
  const waiting = (count: number): void => {
    unsent = count;
    post({ kind: 'waiting', tab: own, unsent });
  };
  channel.addEventListener('message', ({ data }: MessageEvent<TabMessage>) => {
    if (data.kind === 'changed') onChange();
    else if (data.kind === 'waiting') onWaiting(data.tab, data.unsent);
    else if (unsent > 0) waiting(unsent);
  });
  post({ kind: 'who' });
  return { changed: () => post({ kind: 'changed' }), waiting, close: () => channel.close() };
}

const ownOutbox = createOutbox(ownTab(globalThis.navigator?.locks, freshId()));
const later = (work: () => void, ms: number): (() => void) => {
  const timer = setTimeout(work, ms);
  return () => clearTimeout(timer);
};
const page = createSession({
  api,
  deriving: (onBreak) => new DeriveClient(onBreak),
  outbox: ownOutbox,
  join: joinTabs,
  newId: () => freshId(),
  now: () => new Date(),
  later,
  drawn: (work) => void requestAnimationFrame(work),
  chance: Math.random,
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
  changeMaterial,
  removePrice,
  reprice,
  takePrices,
  doAside,
  dropAside,
  tryNow,
} = page;
const { worker } = page;

/** Sends on what is unsent while no project is open. */
export const forwarder = createForwarder(
  { api, outbox: ownOutbox, now: () => new Date(), later, chance: Math.random },
  speechFor({ units: 'mm', fraction: 16 }).said,
);

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
/** Mends that together leave nothing failing, searched for in the background. */
export const askMends = (each: (found: MendedAll) => void): Promise<void> => worker.mends(each);
/** What a mend of a check would make worse. */
export const askWorse = (operations: readonly Operation[], check: string): Promise<readonly Worse[]> =>
  worker.worsens(operations, check);
/** Arrangements of what has to be in. */
export const askProposals = (wishes: Wishes, seed: number, each: (found: Suggested) => void): Promise<void> =>
  worker.proposals(wishes, seed, each);
/** What the kept layouts come to, beside the one that stands. */
export const askLayouts = (): ReturnType<DeriveClient['layouts']> => worker.layouts();
/** Ends what is being worked out one by one. */
export const stopAsking = (): void => worker.stopTelling();
