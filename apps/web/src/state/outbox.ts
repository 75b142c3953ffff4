import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { StepDto } from '@nestplank/contract';

/** A step that could not be done, with the reason: it is kept until the person is done with it. */
export interface Aside {
  readonly project: string;
  readonly step: StepDto;
  readonly why: string;
  /** When it was set aside, ISO. */
  readonly at: string;
}

/** Where steps are kept that the server has not acknowledged, so that closing the tab loses nothing. */
export interface Outbox {
  /** The steps of this tab kept for a project, and those that a tab that is gone left, in the order in which they were done. */
  readonly read: (projectId: string) => Promise<StepDto[]>;
  /**
   * Keeps exactly these steps of this tab; what another tab keeps stays.
   * Writes come to rest in the order in which they were asked for.
   */
  readonly write: (projectId: string, steps: readonly StepDto[]) => Promise<void>;
  /** The projects that have steps kept here which no other tab sends. */
  readonly projects: () => Promise<string[]>;
  /** What was set aside for a project. */
  readonly aside: (projectId: string) => Promise<Aside[]>;
  readonly setAside: (entries: readonly Aside[]) => Promise<void>;
  /** Lets go of steps that were set aside: they are done, or the person does not want them. */
  readonly dropAside: (projectId: string, steps: readonly string[]) => Promise<void>;
}

/** This tab among the tabs of the browser. */
export interface OwnTab {
  readonly id: string;
  /** The tabs that are there now. */
  readonly alive: () => Promise<ReadonlySet<string>>;
}

interface Row {
  readonly project: string;
  readonly step: StepDto;
  /** Whose it is; none for rows of a release that did not tell tabs apart. */
  readonly tab?: string;
}
interface Shape extends DBSchema {
  readonly steps: { readonly key: number; readonly value: Row; readonly indexes: { readonly project: string } };
  readonly aside: {
    readonly key: [string, string];
    readonly value: Aside & { readonly id: string };
    readonly indexes: { readonly project: string };
  };
}

/** Steps that an earlier release kept in the browser's plain storage. */
const formerKey = (projectId: string): string => `nest-plank.outbox.${projectId}`;
const LOCK = 'nest-plank.tab.';

/** This tab, known to the others by a lock that it holds for as long as it is there. */
export function ownTab(locks: LockManager | undefined, id: string): OwnTab {
  void locks?.request(`${LOCK}${id}`, () => new Promise(() => undefined));
  return {
    id,
    alive: async () => {
      const { held = [] } = (await locks?.query()) ?? {};
      return new Set(held.flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : [])));
    },
  };
}

function takeFormer(projectId: string, plain: Pick<Storage, 'getItem' | 'removeItem'> | null): StepDto[] {
  const text = plain?.getItem(formerKey(projectId)) ?? null;
  if (text === null) return [];
  plain?.removeItem(formerKey(projectId));
  try {
    const list: unknown = JSON.parse(text);
    return Array.isArray(list) ? (list as StepDto[]) : [];
  } catch {
    return [];
  }
}

/**
 * An outbox in the browser's database, one row for each step.
 * @param plain where an earlier release kept its steps: they are taken over once
 */
export function createOutbox(
  tab: OwnTab,
  name = 'nest-plank',
  plain: Pick<Storage, 'getItem' | 'removeItem'> | null = typeof localStorage === 'undefined' ? null : localStorage,
): Outbox {
  let database: Promise<IDBPDatabase<Shape>> | null = null;
  const opened = (): Promise<IDBPDatabase<Shape>> =>
    (database ??= openDB<Shape>(name, 2, {
      upgrade: (fresh, from) => {
        if (from < 1) fresh.createObjectStore('steps', { autoIncrement: true }).createIndex('project', 'project');
        if (from < 2)
          fresh.createObjectStore('aside', { keyPath: ['project', 'id'] }).createIndex('project', 'project');
      },
    }));
  /** The rows of this tab, by project and step. */
  const rows = new Map<string, Map<string, number>>();
  const mine = (projectId: string): Map<string, number> => {
    const known = rows.get(projectId) ?? new Map<string, number>();
    rows.set(projectId, known);
    return known;
  };
  let last: Promise<unknown> = Promise.resolve();
  const write: Outbox['write'] = (projectId, steps) => {
    const own = [...steps];
    const written = last.then(async () => {
      const known = mine(projectId);
      const kept = new Set(own.map((step) => step.id));
      const done = (await opened()).transaction('steps', 'readwrite');
      for (const [id, row] of [...known])
        if (!kept.has(id)) {
          await done.store.delete(row);
          known.delete(id);
        }
      for (const step of own)
        if (!known.has(step.id)) known.set(step.id, await done.store.add({ project: projectId, step, tab: tab.id }));
      await done.done;
    });
    last = written.catch(() => undefined);
    return written;
  };
  return {
    write,
    read: async (projectId) => {
      await last;
      const former = takeFormer(projectId, plain);
      if (former.length > 0) await write(projectId, [...former]);
      const alive = await tab.alive();
      const known = mine(projectId);
      const steps: StepDto[] = [];
      // in one go, so that of two tabs only one takes over what a third has left
      const open = (await opened()).transaction('steps', 'readwrite');
      for await (const row of open.store.index('project').iterate(projectId)) {
        const { value } = row;
        if (value.tab !== tab.id) {
          if (value.tab !== undefined && alive.has(value.tab)) continue;
          await row.update({ ...value, tab: tab.id });
        }
        known.set(value.step.id, row.primaryKey);
        steps.push(value.step);
      }
      await open.done;
      return steps;
    },
    projects: async () => {
      await last;
      const alive = await tab.alive();
      const all = await (await opened()).getAll('steps');
      const free = all.filter((row) => row.tab === undefined || row.tab === tab.id || !alive.has(row.tab));
      return [...new Set(free.map(({ project }) => project))];
    },
    aside: async (projectId) => {
      const found = await (await opened()).getAllFromIndex('aside', 'project', projectId);
      return found
        .map(({ project, step, why, at }): Aside => ({ project, step, why, at }))
        .sort((a, b) => a.at.localeCompare(b.at));
    },
    setAside: async (entries) => {
      const open = (await opened()).transaction('aside', 'readwrite');
      for (const entry of entries) await open.store.put({ ...entry, id: entry.step.id });
      await open.done;
    },
    dropAside: async (projectId, steps) => {
      const open = (await opened()).transaction('aside', 'readwrite');
      for (const step of steps) await open.store.delete([projectId, step]);
      await open.done;
    },
  };
}
