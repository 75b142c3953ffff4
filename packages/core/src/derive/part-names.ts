import type { KeptPlan, PriceBook, Project } from '../document/schema.js';
import { fingerprint } from '../numeric/fingerprint.js';
import type { Part } from '../parts/part.js';
import { createDeriver } from './derive.js';

/** What a part was called up to version 4: by its role and a count. */
function formerName(part: Part): string {
  const { role, number, unit, surface } = part;
  if (unit !== null) return role === 'bed-front' ? `${unit}-front` : `${unit}-${role.replace(/^bed-/, '')}-${number}`;
  if (role === 'subfloor' || role === 'floor-batten') return `${role}-${number}`;
  if (surface === undefined) return role === 'noggin' ? `floor-noggin-${number}` : part.id;
  return `${surface}-${role}-${number}`;
}

/** A kept plan found for this very job stays known as found for it, though its parts have other names now. */
function withKey(kept: KeptPlan, search: object, key: string, former: ReadonlyMap<string, string>): KeptPlan {
  const text = JSON.stringify(search);
  const before = [...former].reduce(
    (all, [now, then]) => all.replaceAll(JSON.stringify(now), JSON.stringify(then)),
    text,
  );
  return fingerprint(before) === kept.job ? { ...kept, job: key } : kept;
}

/**
 * Gives what is kept of parts the names that last: up to version 4 parts were counted, so what is cut, waited for or
 * scribed was kept under their counts. A name that no part had stays as it is, and is told as no longer wanted.
 */
export function renamedParts(project: Project, book: PriceBook): Project {
  const kept = project.waits.length + project.scribes.length + project.keptPlans.length + project.patterns.length;
  if (kept + project.waste.length === 0) return project;
  const deriver = createDeriver();
  const now = new Map<string, string>();
  const former = new Map<string, string>();
  for (const part of deriver.pull(project, book).parts) {
    const then = formerName(part);
    // of several pieces of one batten the first had the name that the others were counted from
    if (!now.has(then)) now.set(then, part.id);
    former.set(part.id, then);
  }
  const named = <T extends { part: string }>(item: T): T => ({ ...item, part: now.get(item.part) ?? item.part });
  const renamed: Project = {
    ...project,
    waits: project.waits.map(named),
    scribes: project.scribes.map(named),
    waste: project.waste.map(named),
    patterns: project.patterns.map((pattern) => ({ ...pattern, made: pattern.made.map(named) })),
    keptPlans: project.keptPlans.map((plan) => ({
      ...plan,
      sheets: plan.sheets.map((sheet) => ({ ...sheet, placements: sheet.placements.map(named) })),
    })),
  };
  const { plans } = deriver.pull(renamed, book);
  return {
    ...renamed,
    keptPlans: renamed.keptPlans.map((plan) => {
      const item = plans.find((candidate) => candidate.material.id === plan.material);
      return item ? withKey(plan, item.search, item.key, former) : plan;
    }),
  };
}
