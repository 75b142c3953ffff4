import { applyOperationIn, OperationError } from '../document/editing.js';
import type { Operation } from '../document/operation.js';
import type { PriceBook, Project } from '../document/schema.js';
import type { Check } from '../furniture/scene.js';
import type { Message } from '../words/message.js';
import { createDeriver, type Deriver } from './derive.js';
import { DERIVE_KIT, type DeriveKit } from './kit.js';

const ORDER = ['good', 'unknown', 'tight', 'fails'];
/** What is worse by less is the same, mm. */
const SAME_MM = 0.5;

/** What a change makes worse than good. */
export interface Worse {
  readonly id: string;
  readonly grade: Check['grade'];
  /** As it is then. */
  readonly said: Message;
}

/**
 * What a change to a project would make worse than good, or worse than it is, apart from the check it is to mend: the failing
 * first. Nothing of the project is changed; a change that is refused makes nothing worse.
 */
export function worsenedBy(
  project: Project,
  book: PriceBook,
  operations: readonly Operation[],
  mended: string,
  deriver: Deriver = createDeriver(),
  kit: DeriveKit = DERIVE_KIT,
): readonly Worse[] {
  const before = new Map(deriver.pull(project, book, true).checks.map((check) => [check.id, check]));
  let then: Project;
  try {
    then = operations.reduce((p, operation) => applyOperationIn(p, operation, { kit, book }).project, project);
  } catch (problem) {
    if (problem instanceof OperationError) return [];
    throw problem;
  }
  const worse = (check: Check): boolean => {
    if (check.id === mended || check.grade === 'good' || check.aside !== null) return false;
    const was = before.get(check.id);
    if (!was || was.grade === 'good') return true;
    if (was.grade !== check.grade) return ORDER.indexOf(check.grade) > ORDER.indexOf(was.grade);
    return was.spare !== null && check.spare !== null && check.spare < was.spare - SAME_MM;
  };
  return deriver
    .pull(then, book, true)
    .checks.filter(worse)
    .sort((a, b) => ORDER.indexOf(b.grade) - ORDER.indexOf(a.grade))
    .map(({ id, grade, said }) => ({ id, grade, said }));
}
