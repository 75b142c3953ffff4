import { beforeEach, describe, expect, it } from 'vitest';
import type { HistoryView, ProjectView, Refusal, StepDto, StepsResult } from '@nestplank/contract';
import type { Patch } from '@nestplank/core/document';
import { createDeriver } from '@nestplank/core/derive';
import { readOperation, type Operation, type Project } from '@nestplank/core/document';
import { applyOperation } from '@nestplank/core/furniture';
import { startPriceBook } from '@nestplank/core/materials';
import { readProjectFile } from '@nestplank/core/formats';
import { RefusedError, UnreachableError } from './api.js';
import type { Outbox } from './outbox.js';
import { createSession, type Deriving, type SessionParts } from './session.js';
import demo from '../../../../demo/wren.json?raw';

const wren = readProjectFile(demo).project;
const book = startPriceBook();
const move = (id: string, x: number): Operation => ({ name: 'changeUnit', payload: { id, changes: { x } } });
const xOf = (project: Project | null | undefined, id: string): number | undefined =>
  project?.layout.units.find((unit) => unit.id === id)?.body.x;

/** A server of one project: it numbers revisions, does each step once, refuses what it was told to. */
class Server {
  project: Project = wren;
  revision = 1;
  readonly done = new Map<string, readonly Patch[]>();
  private undone: Project[] = [];
  private names: StepDto['name'][] = [];
  reachable = true;
  /** Held until it is let go, when set. */
  hold: Promise<void> | null = null;
  readonly refusals: Omit<Refusal, 'statusCode' | 'place'>[] = [];
  readonly sent: number[] = [];
  /** Does the steps and then is not heard. */
  loseAnswers = 0;

  private get history(): HistoryView {
    return { undo: this.names as HistoryView['undo'], redo: [] };
  }
  view(): Promise<ProjectView> {
    if (!this.reachable) return Promise.reject(new UnreachableError(''));
    const { project, revision, history } = this;
    return Promise.resolve({ project, revision, history, priceBookId: 'b', priceBook: book, news: [] });
  }
  change(operation: Operation): void {
    this.undone.push(this.project);
    this.names = [...this.names, operation.name];
    this.project = applyOperation(this.project, operation, book).project;
    this.revision += 1;
  }
  async post(sent: { readonly revision: number; readonly steps: readonly StepDto[] }): Promise<StepsResult> {
    await this.hold;
    if (!this.reachable) throw new UnreachableError('');
    this.sent.push(sent.steps.length);
    const refusal = this.refusals.shift();
    if (refusal) throw new RefusedError({ statusCode: 400, place: '', ...refusal });
    if (sent.revision !== this.revision && !sent.steps.every((step) => this.done.has(step.id)))
      throw new RefusedError({
        statusCode: 409,
        code: 'conflict',
        message: 'changed',
        place: '',
        revision: this.revision,
      });
    const done = sent.steps.map((step) => {
      const before = this.project;
      if (!this.done.has(step.id)) {
        if (step.name === 'undo') {
          const former = this.undone.pop();
          if (former) this.project = former;
          this.names = this.names.slice(0, -1);
          this.done.set(step.id, [{ op: 'replace', path: ['layout'], value: former?.layout }]);
        } else {
          this.change(readOperation(step));
          this.done.set(step.id, []);
        }
      }
      if (before !== this.project) this.revision += 1;
      return { id: step.id, name: step.name, patches: this.done.get(step.id) ?? [] };
    });
    if (this.loseAnswers > 0) {
      this.loseAnswers -= 1;
      throw new UnreachableError('');
    }
    return { revision: this.revision, history: this.history, done };
  }
}

/** Keeps what is unsent as the browser would, and outlives the page. */
function memoryOutbox(): Outbox & { readonly kept: Map<string, readonly StepDto[]>; broken: boolean } {
  const kept = new Map<string, readonly StepDto[]>();
  return {
    kept,
    broken: false,
    read: (id) => Promise.resolve([...(kept.get(id) ?? [])]),
    write(id, steps) {
      if (this.broken) return Promise.reject(new Error('full'));
      kept.set(id, [...steps]);
      return Promise.resolve();
    },
  };
}

/** Works out at once what the page's worker would. */
function deriving(): Deriving {
  const deriver = createDeriver();
  let project: Project = wren;
  return {
    load: (given) => {
      project = given;
      return Promise.resolve(deriver.derive(project, book));
    },
    patch: (_patches, then) => {
      then?.(deriver.derive(project, book));
      return Promise.resolve();
    },
    preview: () => undefined,
    dropPreview: () => undefined,
    warm: () => undefined,
    stopTelling: () => undefined,
    look: () => undefined,
    moved: () => Promise.resolve(null),
    buildUps: () => Promise.reject(new Error('not asked')),
    linings: () => Promise.resolve(),
    floorWays: () => Promise.resolve(),
  };
}

let server: Server;
let outbox: ReturnType<typeof memoryOutbox>;
let waiting: (() => void)[];
let changed: number;
let others: (() => void)[];
let ids: number;
const settle = async (): Promise<void> => {
  for (let i = 0; i < 200; i += 1) await Promise.resolve();
};

function page(more: Partial<SessionParts> = {}) {
  return createSession({
    api: {
      view: () => server.view(),
      post: (_id, steps) => server.post(steps),
      putPrice: () => Promise.resolve(book),
    },
    deriving,
    outbox,
    join: (_id, onChange) => {
      others.push(onChange);
      return { changed: () => void (changed += 1), close: () => undefined };
    },
    newId: () => `step-${(ids += 1)}`,
    now: () => new Date(0),
    later: (work) => {
      waiting.push(work);
      return () => void (waiting = waiting.filter((own) => own !== work));
    },
    ...more,
  });
}
beforeEach(() => {
  server = new Server();
  outbox = memoryOutbox();
  waiting = [];
  changed = 0;
  others = [];
  ids = 0;
});

describe('the state of the page', () => {
  it('does a step at once, sends it, and forgets it only when the server has it', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    expect(act(move('bench', 900))).toBeNull();
    expect(xOf(useSession.getState().project, 'bench')).toBe(900);
    expect(useSession.getState().saving.state).toBe('saving');
    expect(outbox.kept.get('p')).toHaveLength(1);
    await settle();
    expect(useSession.getState().saving.state).toBe('saved');
    expect([xOf(server.project, 'bench'), outbox.kept.get('p'), changed]).toEqual([900, [], 1]);
  });
  it('refuses what cannot be done, with the reason, and keeps nothing of it', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    const before = useSession.getState().project;
    expect(act(move('bench', 950), move('sofa', 1))?.key).toBe('operation.notThere');
    expect(useSession.getState().project).toBe(before);
    expect(server.sent).toEqual([]);
  });
  it('never says saved while steps wait: without the server they are kept, and sent when it answers', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.reachable = false;
    act(move('bench', 900));
    await settle();
    act(move('bench', 910));
    await settle();
    expect(useSession.getState().saving.state).toBe('offline');
    expect(outbox.kept.get('p')).toHaveLength(2);
    server.reachable = true;
    waiting.shift()?.();
    await settle();
    expect(useSession.getState().saving.state).toBe('saved');
    expect(xOf(server.project, 'bench')).toBe(910);
  });
  it('closed while the server was away, it puts the steps on top when opened again, and sends them', async () => {
    const first = page();
    await first.openProject('p');
    server.reachable = false;
    first.act(move('bench', 900));
    await settle();
    first.closeProject();
    server.reachable = true;
    server.change(move('kitchen', 700));
    const second = page();
    await second.openProject('p');
    await settle();
    const { project } = second.useSession.getState();
    expect([xOf(project, 'bench'), xOf(project, 'kitchen')]).toEqual([900, 700]);
    expect(xOf(server.project, 'bench')).toBe(900);
  });
  it('an answer that was lost is asked for again, and the step is done once', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.loseAnswers = 1;
    act(move('bench', 900));
    await settle();
    expect(useSession.getState().saving.state).toBe('offline');
    const revision = server.revision;
    waiting.shift()?.();
    await settle();
    expect([useSession.getState().saving.state, server.revision]).toEqual(['saved', revision]);
  });
  it('overtaken by another tab it takes over what that changed, and does its own on top', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.change(move('kitchen', 700));
    act(move('bench', 900));
    await settle();
    const { project, notice, saving } = useSession.getState();
    expect([xOf(project, 'kitchen'), xOf(project, 'bench'), saving.state]).toEqual([700, 900, 'saved']);
    expect(server.project).toEqual(project);
    expect(notice?.tone).toBe('plain');
  });
  it('told by another tab it looks again', async () => {
    const { openProject, useSession } = page();
    await openProject('p');
    server.change(move('kitchen', 700));
    others[0]?.();
    await settle();
    expect(xOf(useSession.getState().project, 'kitchen')).toBe(700);
  });
  it('a step the other tab made impossible is named and dropped; the rest is kept', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.change({ name: 'removeUnit', payload: { id: 'bench' } });
    act(move('bench', 900), move('kitchen', 710));
    await settle();
    expect(useSession.getState().notice).toMatchObject({ tone: 'trouble' });
    expect(xOf(server.project, 'kitchen')).toBe(710);
    expect(useSession.getState().project).toEqual(server.project);
  });
  it('what the server refuses is taken back here, and said', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.refusals.push({ code: 'operation', message: 'not that', step: 'step-1' });
    act(move('bench', 900), move('kitchen', 710));
    await settle();
    expect(useSession.getState().notice?.text).toContain('not that');
    expect([xOf(server.project, 'bench'), xOf(server.project, 'kitchen')]).toEqual([xOf(wren, 'bench'), 710]);
    expect(useSession.getState().project).toEqual(server.project);
  });
  it('a server that failed has not said no: nothing is dropped', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.refusals.push({ code: 'failed', message: 'disk full' });
    act(move('bench', 900));
    await settle();
    expect(useSession.getState().saving.state).toBe('offline');
    expect(outbox.kept.get('p')).toHaveLength(1);
    waiting.shift()?.();
    await settle();
    expect(xOf(server.project, 'bench')).toBe(900);
  });
  it('too much at once is sent one by one', async () => {
    const { openProject, act } = page();
    await openProject('p');
    server.refusals.push({ code: 'too-large', message: 'too large' });
    act(move('bench', 900), move('kitchen', 710));
    await settle();
    expect(server.sent).toEqual([2, 1, 1]);
    expect(xOf(server.project, 'kitchen')).toBe(710);
  });
  it('an undo goes alone, after what was done before it', async () => {
    const { openProject, act, undo, useSession } = page();
    await openProject('p');
    act(move('bench', 900));
    undo();
    await settle();
    expect(server.sent).toEqual([1, 1]);
    expect(xOf(useSession.getState().project, 'bench')).toBe(xOf(wren, 'bench'));
    expect(useSession.getState().history.undo).toEqual([]);
  });
  it('another project opened while one still waits: both are sent, and neither shows the other', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    let letGo = (): void => undefined;
    server.hold = new Promise((go) => (letGo = go));
    act(move('bench', 900));
    await settle();
    await openProject('q');
    act(move('kitchen', 710));
    await settle();
    letGo();
    server.hold = null;
    await settle();
    expect(useSession.getState()).toMatchObject({ id: 'q', saving: { state: 'saved' } });
    expect([outbox.kept.get('q'), xOf(server.project, 'kitchen')]).toEqual([[], 710]);
  });
  it('says so when the browser cannot keep what is unsent', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.reachable = false;
    outbox.broken = true;
    act(move('bench', 900));
    await settle();
    expect(useSession.getState().notice?.tone).toBe('trouble');
  });
  it('a project the server does not give is not opened, and why is said', async () => {
    const { openProject, useSession } = page({
      api: {
        view: () =>
          Promise.reject(
            new RefusedError({
              statusCode: 409,
              code: 'unsound',
              message: 'cannot be opened',
              place: '',
              faults: [{ place: 'layout.units.0', said: { key: 'operation.twice', params: { id: 'bed' } } }],
            } as Refusal),
          ),
        post: () => Promise.reject(new Error('not asked')),
        putPrice: () => Promise.reject(new Error('not asked')),
      },
    });
    await openProject('p');
    expect(useSession.getState().project).toBeNull();
    expect(useSession.getState().failed).toMatchObject({
      why: 'cannot be opened',
      faults: [{ place: 'layout.units.0' }],
    });
  });
});
