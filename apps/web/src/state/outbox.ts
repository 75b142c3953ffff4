import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { StepDto } from '@nestplank/contract';

/** Where steps are kept that the server has not acknowledged, so that closing the tab loses nothing. */
export interface Outbox {
  /** All steps kept for a project, in the order in which they were done: those of other tabs too. */
  readonly read: (projectId: string) => Promise<StepDto[]>;
  /**
   * Keeps exactly these steps of this tab; what another tab keeps stays.
   * Writes come to rest in the order in which they were asked for.
   */
  readonly write: (projectId: string, steps: readonly StepDto[]) => Promise<void>;
}

interface Shape extends DBSchema {
  readonly steps: {
    readonly key: number;
    readonly value: { readonly project: string; readonly step: StepDto };
    readonly indexes: { readonly project: string };
  };
}

/** Steps that an earlier release kept in the browser's plain storage. */
const formerKey = (projectId: string): string => `nest-plank.outbox.${projectId}`;

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
  name = 'nest-plank',
  plain: Pick<Storage, 'getItem' | 'removeItem'> | null = typeof localStorage === 'undefined' ? null : localStorage,
): Outbox {
  let database: Promise<IDBPDatabase<Shape>> | null = null;
  const opened = (): Promise<IDBPDatabase<Shape>> =>
    (database ??= openDB<Shape>(name, 1, {
      upgrade: (fresh) =>
        void fresh.createObjectStore('steps', { autoIncrement: true }).createIndex('project', 'project'),
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
        if (!known.has(step.id)) known.set(step.id, await done.store.add({ project: projectId, step }));
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
      const known = mine(projectId);
      const steps: StepDto[] = [];
      const open = (await opened()).transaction('steps');
      for await (const row of open.store.index('project').iterate(projectId)) {
        known.set(row.value.step.id, row.primaryKey);
        steps.push(row.value.step);
      }
      return steps;
    },
  };
}
