import * as Comlink from 'comlink';
import { formatISO } from 'date-fns/formatISO';
import type { Patch } from '@nestplank/core/document';
import {
  createDeriver,
  DERIVE_KIT,
  DERIVED_KEYS,
  eachFloorWay,
  eachLining,
  type LayoutCase,
  layoutCases,
  type MendedAll,
  mendSearch,
  SHAPE_KEYS,
  type Suggested,
  suggestSearch,
  type Wishes,
  type Worse,
  worsenedBy,
  whatMoved,
  type Derived,
  type DerivedShape,
  type FloorWay,
  type LiningCase,
  type Moved,
} from '@nestplank/core/derive';
import { patchProject, type Lined, type Operation, type PriceBook, type Project } from '@nestplank/core/document';
import { applyOperation } from '@nestplank/core/furniture';
import { buildUpFigures, type BuildUpFigures } from '@nestplank/core/layers';
import { bookAsBought, buildUpsAsBought } from '@nestplank/core/materials';
import { toldByName, toldByPlace, type ByPlace, type ListKey } from './news.js';

/** The day it is here: nothing is planned before it. */
const today = (): string => formatISO(new Date(), { representation: 'date' });
const deriver = createDeriver(DERIVE_KIT, today);
let project: Project | null = null;
let book: PriceBook | null = null;

function loaded(): { project: Project; book: PriceBook } {
  if (!project || !book) throw new Error('No project is loaded.');
  return { project, book };
}

/** What the page has been told last, by reference: only what differs from it crosses over. */
let told: Partial<Derived> = {};
/** What follows from the project now; each value is worked out when it is first asked for. */
let now: Derived | null = null;
/** Counts the changes, so that what is worked out in idle time for one is given up when the next comes. */
let change = 0;

function newsOf<T extends object>(next: T, keys: readonly (keyof T)[]): Partial<T> {
  const before = told as Partial<T>;
  return Object.fromEntries(
    keys.filter((key) => before[key] !== next[key]).map((key) => [key, next[key]]),
  ) as Partial<T>;
}

/** Works out some values of the project as it is, and gives those that changed. */
function tellNow(keys: readonly (keyof Derived)[]): Partial<Derived> {
  const { project: held, book: prices } = loaded();
  now ??= deriver.pull(held, prices);
  const changed = newsOf(now, keys);
  told = { ...told, ...changed };
  return changed;
}

/** Counts what was asked for to be told one by one; a later one, or a stop, ends the one before. */
let asked = 0;

/** Tells each as soon as it is there, and lets other questions in between. */
async function inTurn<T>(made: Iterable<T>, each: (found: T) => void): Promise<void> {
  asked += 1;
  const mine = asked;
  for (const found of made) {
    if (mine !== asked) return;
    each(found);
    await new Promise((resolve) => setTimeout(resolve));
  }
}

/** What a preview changes. What of its lists stayed as it was is told by its place in the last whole result. */
export type PreviewNews = Partial<Omit<DerivedShape, ListKey>> & {
  readonly [Key in ListKey]?: ByPlace<DerivedShape[Key][number]>;
};

/** No search for arrangements goes on longer than this by itself. */
const SUGGEST_STEPS = 600;

/** Holds the project, so that only changes cross over, both ways, and every step's memory stays good. */
const service = {
  load(nextProject: Project, nextBook: PriceBook): Partial<Derived> {
    project = nextProject;
    book = nextBook;
    told = {};
    now = null;
    change += 1;
    return tellNow(DERIVED_KEYS);
  },
  /** Takes a change in and gives what is looked at first; the rest is asked for next, and follows when idle. */
  patch(patches: readonly Patch[], first: readonly (keyof Derived)[]): Partial<Derived> {
    project = patchProject(loaded().project, patches);
    now = null;
    change += 1;
    return tellNow(first);
  },
  /** The rest of what follows from the last change; null when another change came meanwhile. */
  async rest(): Promise<Partial<Derived> | null> {
    const own = change;
    for (const key of DERIVED_KEYS) {
      if (!now) return null;
      void now[key];
      await new Promise((resolve) => setTimeout(resolve));
      if (own !== change) return null;
    }
    return tellNow(DERIVED_KEYS);
  },
  /** What moved because a reading was taken again. */
  moved(address: string): Moved | null {
    const held = loaded();
    return whatMoved(held.project, held.book, address, createDeriver());
  },
  /** What a set of build-ups gives and costs; the present one without an id. */
  buildUps(id: string | null): BuildUpFigures | null {
    const held = loaded();
    const { shell, bareRoom, ribs } = deriver.shape(held.project, held.book);
    const variant = held.project.buildUpVariants.find((candidate) => candidate.id === id);
    const { measured, buildUps } = held.project;
    const set = buildUpsAsBought(variant?.buildUps ?? buildUps, held.book, measured);
    return shell && bareRoom
      ? buildUpFigures(held.project, set, shell, bareRoom, ribs, bookAsBought(held.book, measured))
      : null;
  },
  /** Ways to line a surface, told one by one. */
  linings(surface: Lined, each: (found: LiningCase) => void): Promise<void> {
    const held = loaded();
    return inTurn(eachLining(held.project, held.book, surface), each);
  },
  /** The floor board laid both ways, told one by one. */
  floorWays(each: (found: FloorWay) => void): Promise<void> {
    const held = loaded();
    return inTurn(eachFloorWay(held.project, held.book), each);
  },
  /** Mends that together leave nothing failing: the best so far, again and again, the last being what was found. */
  mends(each: (found: MendedAll) => void): Promise<void> {
    const held = loaded();
    return inTurn(mendSearch(held.project, held.book), each);
  },
  /** What a mend of a check would make worse. */
  worsens(operations: readonly Operation[], check: string): readonly Worse[] {
    const held = loaded();
    return worsenedBy(held.project, held.book, operations, check, deriver);
  },
  /** Arrangements of what has to be in, told after each that was built. */
  proposals(wishes: Wishes, seed: number, each: (found: Suggested) => void): Promise<void> {
    const held = loaded();
    return inTurn(suggestSearch(held.project, held.book, wishes, { seed, steps: SUGGEST_STEPS }), each);
  },
  /** What a kept layout comes to, beside the one that stands. */
  layouts(): readonly LayoutCase[] {
    const held = loaded();
    return layoutCases(held.project, held.book);
  },
  /** Ends what is being told one by one. */
  stop(): void {
    asked += 1;
  },
  /** What a change would give, as far as parts and checks, without keeping it. */
  preview(operations: readonly Operation[]): PreviewNews {
    const held = loaded();
    const next = operations.reduce((p, operation) => applyOperation(p, operation).project, held.project);
    const dragging = operations.every((operation) => operation.name === 'changeUnit');
    const shape: Partial<DerivedShape> = newsOf(
      deriver.pull(next, held.book, dragging && 'by-hand') as DerivedShape,
      dragging ? SHAPE_KEYS.filter((key) => key !== 'problems') : SHAPE_KEYS,
    );
    const { parts, made, checks, lying, ...rest } = shape;
    return {
      ...rest,
      ...(parts ? { parts: toldByPlace(parts, told.parts) } : {}),
      ...(made ? { made: toldByPlace(made, told.made) } : {}),
      ...(checks ? { checks: toldByName(checks, told.checks, ({ id }) => id) } : {}),
      ...(lying ? { lying: toldByName(lying, told.lying, ({ unit }) => unit.id) } : {}),
    };
  },
};

export type DeriveService = typeof service;
Comlink.expose(service);
