import * as Comlink from 'comlink';
import {
  applyOperation,
  buildUpFigures,
  createDeriver,
  eachFloorWay,
  eachLining,
  patchProject,
  whatMoved,
  type BuildUpFigures,
  type Derived,
  type DerivedShape,
  type FloorWay,
  type Lined,
  type LiningCase,
  type Moved,
  type Operation,
  type Part,
  type Patch,
  type PriceBook,
  type Project,
} from '@nestplank/core';

const deriver = createDeriver();
let project: Project | null = null;
let book: PriceBook | null = null;

function loaded(): { project: Project; book: PriceBook } {
  if (!project || !book) throw new Error('No project is loaded.');
  return { project, book };
}

/** What the page has been told last, by reference: only what differs from it crosses over. */
let told: Derived | null = null;

function news<T extends DerivedShape>(next: T): Partial<T> {
  const before = told as Partial<T> | null;
  return Object.fromEntries(
    Object.entries(next).filter(([key, value]) => before?.[key as keyof T] !== value),
  ) as Partial<T>;
}

function whole(): Partial<Derived> {
  const now = loaded();
  const next = deriver.derive(now.project, now.book);
  const changed = news(next);
  told = next;
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

/** What a preview changes. Parts that stayed as they were are told by their place in the last whole result. */
export type PreviewNews = Partial<Omit<DerivedShape, 'parts'>> & { readonly parts?: readonly (Part | number)[] };

/** Holds the project, so that only changes cross over, both ways, and every step's memory stays good. */
const service = {
  load(nextProject: Project, nextBook: PriceBook): Partial<Derived> {
    project = nextProject;
    book = nextBook;
    told = null;
    return whole();
  },
  patch(patches: readonly Patch[]): Partial<Derived> {
    project = patchProject(loaded().project, patches);
    return whole();
  },
  /** What moved because a reading was taken again. */
  moved(address: string): Moved | null {
    const now = loaded();
    return whatMoved(now.project, now.book, address, createDeriver());
  },
  /** What a set of build-ups gives and costs; the present one without an id. */
  buildUps(id: string | null): BuildUpFigures | null {
    const now = loaded();
    const { shell, bareRoom, ribDepth } = deriver.shape(now.project, now.book);
    const variant = now.project.buildUpVariants.find((candidate) => candidate.id === id);
    return shell && bareRoom
      ? buildUpFigures(now.project, variant?.buildUps ?? now.project.buildUps, shell, bareRoom, ribDepth, now.book)
      : null;
  },
  /** Ways to line a surface, told one by one. */
  linings(surface: Lined, each: (found: LiningCase) => void): Promise<void> {
    const now = loaded();
    return inTurn(eachLining(now.project, now.book, surface), each);
  },
  /** The floor board laid both ways, told one by one. */
  floorWays(each: (found: FloorWay) => void): Promise<void> {
    const now = loaded();
    return inTurn(eachFloorWay(now.project, now.book), each);
  },
  /** Ends what is being told one by one. */
  stop(): void {
    asked += 1;
  },
  /** What a change would give, as far as parts and checks, without keeping it. */
  preview(operations: readonly Operation[]): PreviewNews {
    const now = loaded();
    const next = operations.reduce((p, operation) => applyOperation(p, operation).project, now.project);
    const dragging = operations.every((operation) => operation.name === 'changeUnit');
    const shape = news(deriver.shape(next, now.book, dragging));
    const known = new Map(told?.parts.map((part, i) => [part, i]));
    const { parts, ...rest } = shape;
    return parts ? { ...rest, parts: parts.map((part) => known.get(part) ?? part) } : rest;
  },
};

export type DeriveService = typeof service;
Comlink.expose(service);
