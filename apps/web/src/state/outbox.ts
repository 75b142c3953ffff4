import type { StepDto } from '@nestplank/contract';

/** Steps that the server has not acknowledged, kept in the browser so that closing the tab loses nothing. */
const key = (projectId: string): string => `nest-plank.outbox.${projectId}`;

export function readOutbox(projectId: string): StepDto[] {
  try {
    const list: unknown = JSON.parse(localStorage.getItem(key(projectId)) ?? '[]');
    return Array.isArray(list) ? (list as StepDto[]) : [];
  } catch {
    return [];
  }
}

export function writeOutbox(projectId: string, steps: readonly StepDto[]): void {
  if (steps.length === 0) localStorage.removeItem(key(projectId));
  else localStorage.setItem(key(projectId), JSON.stringify(steps));
}
