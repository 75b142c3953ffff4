import { applyOperationIn, type Edit } from '../document/editing.js';
import type { DocumentKit } from '../document/kit.js';
import type { Operation } from '../document/operation.js';
import type { PriceBook, Project } from '../document/schema.js';
import { faultsOf, materialsIn, type Fault } from '../document/soundness.js';
import { SURFACE_LIST } from '../document/surfaces.js';
import type { Family } from './family.js';
import { FAMILIES } from './families/index.js';
import type { School } from './school.js';
import { SCHOOLS } from './schools/index.js';

/** Everything that is listed rather than written into the code that uses it. */
export interface Kit extends DocumentKit {
  readonly families: readonly Family[];
  readonly schools: readonly School[];
}

/** What comes with the application. */
export const KIT: Kit = { families: FAMILIES, schools: SCHOOLS, surfaces: SURFACE_LIST };

/**
 * Does one operation, held against what comes with the application.
 * @param book the project's price book; without it materials are not looked up
 * @throws OperationError when it cannot be done or would leave something unsound
 */
export const applyOperation = (project: Project, operation: Operation, book: PriceBook | null = null): Edit =>
  applyOperationIn(project, operation, { kit: KIT, book });

/** What is not sound in a project as a whole. */
export const faultsIn = (project: Project, book: PriceBook | null): readonly Fault[] =>
  faultsOf(project, { kit: KIT, book }, null);

/** Every material a project speaks of, chosen or used. */
export const materialsOf = (project: Project): ReadonlySet<string> => materialsIn(project, KIT);
