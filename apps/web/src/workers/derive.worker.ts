import * as Comlink from 'comlink';
import {
  applyOperation,
  createDeriver,
  patchProject,
  type Derived,
  type DerivedShape,
  type Operation,
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

function whole(): Derived {
  const now = loaded();
  return deriver.derive(now.project, now.book);
}

/** Holds the project, so that only changes cross over and every step's memory stays good. */
const service = {
  load(nextProject: Project, nextBook: PriceBook): Derived {
    project = nextProject;
    book = nextBook;
    return whole();
  },
  patch(patches: readonly Patch[]): Derived {
    project = patchProject(loaded().project, patches);
    return whole();
  },
  /** What a change would give, as far as parts and checks, without keeping it. */
  preview(operations: readonly Operation[]): DerivedShape {
    const now = loaded();
    const next = operations.reduce((p, operation) => applyOperation(p, operation).project, now.project);
    return deriver.shape(next, now.book);
  },
};

export type DeriveService = typeof service;
Comlink.expose(service);
