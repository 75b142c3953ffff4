import {
  mayDo,
  OTHER_DATABASE,
  type HistoryView,
  type ProjectView,
  type Refusal,
  type StepDto,
  type StepsResult,
} from '@nestplank/contract';
import { createDeriver, type Derived } from '@nestplank/core/derive';
import {
  OperationError,
  readOperation,
  type Operation,
  type Patch,
  type PriceBook,
  type Project,
} from '@nestplank/core/document';
import { applyOperation } from '@nestplank/core/furniture';
import { message } from '@nestplank/core/words';
import { RefusedError, UnreachableError } from './api.js';
import type { Aside, Outbox } from './outbox.js';
import type { Deriving } from './session.js';

/** A server of one project: it numbers revisions, does each step once, refuses what it was told to. */
export class Server {
  revision = 1;
  database = 'one';
  readonly done = new Map<string, readonly Patch[]>();
  constructor(
    public project: Project,
    readonly book: PriceBook,
  ) {}
  private undone: Project[] = [];
  private names: StepDto['name'][] = [];
  reachable = true;
  deleted = false;
  /** Steps by the revision they made. */
  readonly made = new Map<string, number>();
  /** Held until it is let go, when set. */
  hold: Promise<void> | null = null;
  readonly refusals: Omit<Refusal, 'statusCode' | 'place'>[] = [];
  readonly sent: number[] = [];
  /** Ids of steps in the order in which they were done, each once. */
  readonly log: string[] = [];
  /** Does the steps and then is not heard. */
  loseAnswers = 0;

  private get history(): HistoryView {
    return { undo: this.names as HistoryView['undo'], redo: [] };
  }
  view(steps: readonly string[] = []): Promise<ProjectView> {
    if (this.deleted)
      return Promise.reject(new RefusedError({ statusCode: 404, code: 'not-found', message: 'gone', place: '' }));
    if (!this.reachable) return Promise.reject(new UnreachableError(''));
    const { database, project, revision, history } = this;
    const done = steps.filter((id) => this.done.has(id));
    return Promise.resolve({
      database,
      project,
      revision,
      history,
      priceBookId: 'b',
      priceBook: this.book,
      news: [],
      done,
    });
  }
  change(operation: Operation): void {
    this.undone.push(this.project);
    this.names = [...this.names, operation.name];
    this.project = applyOperation(this.project, operation, this.book).project;
    this.revision += 1;
  }
  async post(sent: { readonly revision: number; readonly steps: readonly StepDto[] }): Promise<StepsResult> {
    await this.hold;
    if (!this.reachable) throw new UnreachableError('');
    this.sent.push(sent.steps.length);
    const refusal = this.refusals.shift();
    if (refusal) throw new RefusedError({ statusCode: 400, place: '', ...refusal });
    const elsewhere = sent.steps.find((step) => (step.database ?? this.database) !== this.database);
    if (elsewhere)
      throw new RefusedError({
        statusCode: 422,
        code: 'operation',
        message: OTHER_DATABASE,
        place: '',
        step: elsewhere.id,
      });
    if (this.deleted) throw new RefusedError({ statusCode: 404, code: 'not-found', message: 'gone', place: '' });
    const before = sent.steps.filter((step) => this.done.has(step.id)).map((step) => step.id);
    const own = before.filter((id) => (this.made.get(id) ?? 0) > sent.revision).length;
    const fresh = sent.steps.length - before.length;
    if (!mayDo({ sent: sent.revision, current: this.revision, own, fresh }))
      throw new RefusedError({
        statusCode: 409,
        code: 'conflict',
        message: 'changed',
        place: '',
        revision: this.revision,
        done: before,
      });
    const [kept, keptUndone, keptNames] = [this.project, [...this.undone], this.names];
    const { revision } = this;
    const begun: string[] = [];
    const done = sent.steps.map((step) => {
      if (!this.done.has(step.id)) {
        begun.push(step.id);
        try {
          this.do(step);
        } catch (problem) {
          // all of a message is done or none
          [this.project, this.undone, this.names, this.revision] = [kept, keptUndone, keptNames, revision];
          for (const id of begun) this.done.delete(id);
          if (!(problem instanceof OperationError)) throw problem;
          throw new RefusedError({
            statusCode: 422,
            code: 'operation',
            message: problem.said.key,
            place: '',
            step: step.id,
          });
        }
      }
      return { id: step.id, name: step.name, patches: this.done.get(step.id) ?? [] };
    });
    this.log.push(...begun);
    if (this.loseAnswers > 0) {
      this.loseAnswers -= 1;
      throw new UnreachableError('');
    }
    return { revision: this.revision, history: this.history, done };
  }
  private do(step: StepDto): void {
    if (step.name === 'undo') {
      const former = this.undone.pop();
      if (!former) throw new OperationError(message('operation.notThere', { id: 'undo' }));
      this.project = former;
      this.names = this.names.slice(0, -1);
      this.done.set(
        step.id,
        Object.entries(former).map(([key, value]): Patch => ({ op: 'replace', path: [key], value })),
      );
    } else {
      const next = applyOperation(this.project, readOperation(step), this.book).project;
      this.undone.push(this.project);
      this.names = [...this.names, step.name];
      this.project = next;
      this.done.set(step.id, []);
    }
    this.revision += 1;
    this.made.set(step.id, this.revision);
  }
}

/** Keeps what is unsent as the browser would, and outlives the page. */
export function memoryOutbox(): Outbox & { readonly kept: Map<string, readonly StepDto[]>; broken: boolean } {
  const put: Aside[] = [];
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
    projects: () => Promise.resolve([...kept].flatMap(([id, steps]) => (steps.length > 0 ? [id] : []))),
    aside: (id) => Promise.resolve(put.filter((entry) => entry.project === id)),
    setAside: (entries) => Promise.resolve(void put.push(...entries)),
    dropAside(id, steps) {
      for (const step of steps) {
        const at = put.findIndex((entry) => entry.project === id && entry.step.id === step);
        if (at >= 0) put.splice(at, 1);
      }
      return Promise.resolve();
    },
  };
}

/** Works out at once what the page's worker would. */
export function workingOut(wren: Project, book: PriceBook): Deriving {
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
    mends: () => Promise.resolve(),
    worsens: () => Promise.resolve([]),
    proposals: () => Promise.resolve(),
    layouts: () => Promise.resolve([]),
  };
}

/** Works out nothing: for tries that are about messages only. */
export function idle(): Deriving {
  return {
    ...workingOut({} as Project, {} as PriceBook),
    load: () => Promise.resolve(null as unknown as Derived),
    patch: () => Promise.resolve(),
  };
}
