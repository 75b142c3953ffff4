import * as Comlink from 'comlink';
import { DERIVED_KEYS } from '@nestplank/core/derive';
import type { Patch } from '@nestplank/core/document';
import type {
  Derived,
  DerivedShape,
  FloorWay,
  LayoutCase,
  LiningCase,
  MendedAll,
  Moved,
  Suggested,
  Wishes,
  Worse,
} from '@nestplank/core/derive';
import type { Lined, Operation, PriceBook, Project } from '@nestplank/core/document';
import type { BuildUpFigures } from '@nestplank/core/layers';
import { tell } from '../words/speech.js';
import type { DeriveService } from './derive.worker.js';
import { foundByPlace } from './news.js';

/** Nothing that is worked out takes longer than this, ms. */
const LONGEST_MS = 30_000;

/** A worker that is started again when it breaks. The newest preview wins; older ones that were not begun are dropped. */
export class DeriveClient {
  private worker: Worker | null = null;
  private remote: Comlink.Remote<DeriveService> | null = null;
  private previewing = false;
  private first: readonly (keyof Derived)[] = DERIVED_KEYS;
  /** The last whole result; what the worker sends are the parts of it that changed, so that the rest keeps its identity. */
  private base: Derived | null = null;
  private pending: { operations: readonly Operation[]; then: (shape: DerivedShape) => void } | null = null;

  constructor(private readonly onBreak: () => void) {}

  private service(): Comlink.Remote<DeriveService> {
    if (!this.remote) {
      this.worker = new Worker(new URL('./derive.worker.ts', import.meta.url), { type: 'module' });
      this.worker.addEventListener('error', () => this.restart());
      this.remote = Comlink.wrap<DeriveService>(this.worker);
    }
    return this.remote;
  }

  private restart(): void {
    this.stop();
    this.onBreak();
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = null;
    this.remote = null;
    this.previewing = false;
    this.pending = null;
    this.base = null;
  }

  private async take(answer: Promise<Partial<Derived>>): Promise<Derived> {
    // the base is read after the answer: answers come in the order of the questions
    const changed = await this.inTime(answer);
    const next = { ...this.base, ...changed } as Derived;
    this.base = next;
    return next;
  }

  /** Ends the worker when it does not come to an end itself: the next question starts another. */
  private inTime<T>(answer: Promise<T>): Promise<T> {
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => {
        this.stop();
        reject(new Error(tell('error.slow', { seconds: LONGEST_MS / 1000 })));
      }, LONGEST_MS);
      answer.then(resolve, reject).finally(() => clearTimeout(timer));
    });
  }

  /** Starts the worker before it is needed, so that its script is read while the project is fetched. */
  warm(): void {
    this.service();
  }

  load(project: Project, book: PriceBook): Promise<Derived> {
    return this.take(this.service().load(project, book));
  }

  /** Takes a change in; what the open stage shows is told first, everything when the rest is worked out. */
  async patch(patches: readonly Patch[], then: (derived: Derived) => void): Promise<void> {
    then(await this.take(this.service().patch(patches, this.first)));
    const rest = await this.inTime(this.service().rest());
    if (rest) then(await this.take(Promise.resolve(rest)));
  }

  /** Says what is looked at: it is worked out first. */
  look(first: readonly (keyof Derived)[]): void {
    this.first = first;
  }

  moved(address: string): Promise<Moved | null> {
    return this.inTime(this.service().moved(address));
  }

  buildUps(id: string | null): Promise<BuildUpFigures | null> {
    return this.inTime(this.service().buildUps(id));
  }

  linings(surface: Lined, each: (found: LiningCase) => void): Promise<void> {
    return this.service().linings(surface, Comlink.proxy(each));
  }

  floorWays(each: (found: FloorWay) => void): Promise<void> {
    return this.service().floorWays(Comlink.proxy(each));
  }

  mends(each: (found: MendedAll) => void): Promise<void> {
    return this.service().mends(Comlink.proxy(each));
  }

  worsens(operations: readonly Operation[], check: string): Promise<readonly Worse[]> {
    return this.inTime(this.service().worsens(operations, check));
  }

  proposals(wishes: Wishes, seed: number, each: (found: Suggested) => void): Promise<void> {
    return this.service().proposals(wishes, seed, Comlink.proxy(each));
  }

  layouts(): Promise<readonly LayoutCase[]> {
    return this.inTime(this.service().layouts());
  }

  /** Ends what is being told one by one. */
  stopTelling(): void {
    void this.service().stop();
  }

  preview(operations: readonly Operation[], then: (shape: DerivedShape) => void): void {
    this.pending = { operations, then };
    if (!this.previewing) void this.nextPreview();
  }

  private async nextPreview(): Promise<void> {
    this.previewing = true;
    while (this.pending) {
      const { operations, then } = this.pending;
      this.pending = null;
      try {
        const changed = await this.service().preview(operations);
        const { base } = this;
        if (!base) continue;
        const { parts, made, checks, lying, ...rest } = changed;
        then({
          ...base,
          ...rest,
          ...(parts ? { parts: foundByPlace(parts, base.parts) } : {}),
          ...(made ? { made: foundByPlace(made, base.made) } : {}),
          ...(checks ? { checks: foundByPlace(checks, base.checks) } : {}),
          ...(lying ? { lying: foundByPlace(lying, base.lying) } : {}),
        });
      } catch {
        // an operation that cannot be done has no preview; the entry itself says why
      }
    }
    this.previewing = false;
  }

  dropPreview(): void {
    this.pending = null;
  }
}
