import { applyOperationIn, OperationError } from '../document/editing.js';
import type { Operation } from '../document/operation.js';
import type { PriceBook, Project } from '../document/schema.js';
import type { Check } from '../furniture/scene.js';
import { isOpen } from '../layout/checks/checks.js';
import type { Message } from '../words/message.js';
import { createDeriver, type Deriver } from './derive.js';
import { DERIVE_KIT, type DeriveKit } from './kit.js';

/** A set of mends that goes together. */
export interface MendedAll {
  readonly project: Project;
  readonly operations: readonly Operation[];
  /** What was changed, in order: the check that asked for it, and what was done. */
  readonly done: readonly {
    readonly check: Check;
    readonly said: Message;
    readonly operations: readonly Operation[];
  }[];
  /** What still fails. */
  readonly left: readonly Check[];
  readonly tried: number;
}

interface Node {
  readonly project: Project;
  readonly operations: readonly Operation[];
  readonly done: MendedAll['done'];
  readonly fails: readonly Check[];
  readonly cost: number;
  /** What of it cannot be made. */
  readonly unmade: number;
}

/** So many plans are looked at before the best so far is given, and for so long, ms. */
const MOST_TRIED = 300;
const LONGEST_MS = 120_000;
/** Of each plan the first so many failing checks are mended, each in every way it offers. */
const AT_ONCE = 3;

interface MendOptions {
  readonly deriver?: Deriver;
  /** So many plans are looked at. */
  readonly most?: number;
  /** It ends after so long with the best so far, ms. */
  readonly longest?: number;
  readonly now?: () => number;
}

/**
 * Searches for mends that together leave nothing failing, best first: fewest failing checks, then fewest changes, then
 * fewest tight ones. A check that one mend breaks is mended by another, or the way is given up. Tells the best so far every
 * few plans, so that somebody who waits sees how far it is and can stop it; the last it tells is what it found.
 */
export function* mendSearch(
  project: Project,
  book: PriceBook,
  kit: DeriveKit = DERIVE_KIT,
  {
    deriver = createDeriver(kit),
    most = MOST_TRIED,
    longest = LONGEST_MS,
    now = () => performance.now(),
  }: MendOptions = {},
): Generator<MendedAll, void> {
  const look = (candidate: Project): { fails: readonly Check[]; tight: number; unmade: number } => {
    const { checks, made } = deriver.pull(candidate, book, true);
    return {
      unmade: made.reduce((sum, { problems }) => sum + problems.length, 0),
      fails: checks.filter(isOpen),
      tight: checks.filter(({ grade, aside }) => grade === 'tight' && aside === null).length,
    };
  };
  const nodeOf = (candidate: Project, operations: Node['operations'], done: Node['done']): Node => {
    const { fails, tight, unmade } = look(candidate);
    return { project: candidate, operations, done, fails, unmade, cost: fails.length * 100 + done.length * 6 + tight };
  };
  const end = now() + longest;
  const first = nodeOf(project, [], []);
  const seen = new Set([JSON.stringify([project.layout, project.stored])]);
  const open: Node[] = [first];
  let best = first;
  let tried = 1;
  const told = (node: Pick<Node, 'project' | 'operations' | 'done' | 'fails'>): MendedAll => ({
    project: node.project,
    operations: node.operations,
    done: node.done,
    left: node.fails,
    tried,
  });
  while (open.length > 0 && best.fails.length > 0 && tried < most && now() < end) {
    open.sort((a, b) => a.cost - b.cost);
    const node = open.shift();
    if (!node) break;
    for (const check of node.fails.filter(({ mends }) => mends.length > 0).slice(0, AT_ONCE))
      for (const mend of check.mends) {
        if (tried >= most || now() >= end) break;
        const next = apply(node.project, mend.operations, book, kit);
        if (!next) continue;
        const key = JSON.stringify([next.layout, next.stored]);
        if (seen.has(key)) continue;
        seen.add(key);
        tried += 1;
        // what leaves something that cannot be made mends nothing
        const made = nodeOf(
          next,
          [...node.operations, ...mend.operations],
          [...node.done, { check, said: mend.said, operations: mend.operations }],
        );
        if (made.unmade > first.unmade) continue;
        if (made.fails.length < best.fails.length || (made.fails.length === best.fails.length && made.cost < best.cost))
          best = made;
        open.push(made);
        if (tried % TELL_EVERY === 0) yield told(best);
      }
  }
  yield told(without(best, look, (operations) => apply(project, operations, book, kit), project));
}
const TELL_EVERY = 5;

/** The same to its end. */
export function mendAll(
  project: Project,
  book: PriceBook,
  kit: DeriveKit = DERIVE_KIT,
  options: MendOptions = {},
): MendedAll {
  let last: MendedAll | null = null;
  for (const told of mendSearch(project, book, kit, options)) last = told;
  return last ?? { project, operations: [], done: [], left: [], tried: 0 };
}

/** A project after operations; null where one of them cannot be done. */
function apply(project: Project, operations: readonly Operation[], book: PriceBook, kit: DeriveKit): Project | null {
  try {
    return operations.reduce((p, operation) => applyOperationIn(p, operation, { kit, book }).project, project);
  } catch (problem) {
    if (problem instanceof OperationError) return null;
    throw problem;
  }
}

/** The same without the mends that turned out not to be needed once others were made. */
function without(
  node: Node,
  look: (candidate: Project) => { readonly fails: readonly Check[]; readonly unmade: number },
  after: (operations: readonly Operation[]) => Project | null,
  first: Project,
): Pick<MendedAll, 'project' | 'operations' | 'done'> & { readonly fails: readonly Check[] } {
  let { done } = node;
  let kept: Pick<Node, 'project' | 'fails'> = node;
  for (const one of node.done) {
    const rest = done.filter((other) => other !== one);
    const project = rest.length === 0 ? first : after(rest.flatMap(({ operations }) => operations));
    if (!project) continue;
    const { fails, unmade } = look(project);
    if (fails.length <= kept.fails.length && unmade <= node.unmade) {
      kept = { project, fails };
      done = rest;
    }
  }
  return { project: kept.project, fails: kept.fails, done, operations: done.flatMap(({ operations }) => operations) };
}
