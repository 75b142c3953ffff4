import type { PriceBook, Project } from '../document/schema.js';
import { createDeriver } from './derive.js';
import type { Derived } from './derived.js';

/** One for all that only look: what a project has in common with the one before it is not worked out anew. */
const deriver = createDeriver();

/**
 * What `derive` gives, worked out as it is read. That a memory changes nothing is tried in `memory.test.ts`; that everything
 * of a project can be worked out, where projects are drawn by chance.
 */
export const derive = (project: Project, book: PriceBook): Derived => deriver.pull(project, book);
