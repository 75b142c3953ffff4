import { Injectable } from '@nestjs/common';
import { In, LessThanOrEqual, MoreThan, type EntityManager } from 'typeorm';
import { KEPT_OF_PAST, type HistoryView, type StepName } from '@nestplank/contract';
import type { Patch } from '@nestplank/core/document';
import { OperationEntity } from '../database/entities.js';

/** So many steps are named in the history that is sent out. */
const NAMED_STEPS = 500;

/** SQLite takes only so many values in one question. */
const ASKED_AT_ONCE = 500;

/** The stored steps of a project, and what of them can be undone and redone. */
@Injectable()
export class StepStore {
  private rows(
    manager: EntityManager,
    projectId: string,
    state: 'done' | 'undone',
    order: 'ASC' | 'DESC',
    take: number,
  ): Promise<OperationEntity[]> {
    return manager.find(OperationEntity, { where: { projectId, state }, order: { seq: order }, take });
  }

  async history(manager: EntityManager, projectId: string): Promise<HistoryView> {
    const select = { name: true, seq: true } as const;
    const done = await manager.find(OperationEntity, {
      select,
      where: { projectId, state: 'done' },
      order: { seq: 'DESC' },
      take: NAMED_STEPS,
    });
    const undone = await manager.find(OperationEntity, {
      select,
      where: { projectId, state: 'undone' },
      order: { seq: 'DESC' },
      take: NAMED_STEPS,
    });
    return { undo: done.reverse().map((row) => row.name as StepName), redo: undone.map((row) => row.name as StepName) };
  }

  /** The patches of a step that was done before under the same id; null when it is new. */
  async doneBefore(manager: EntityManager, projectId: string, stepId: string): Promise<Patch[] | null> {
    const row = await manager.findOneBy(OperationEntity, { projectId, stepId });
    return row ? (JSON.parse(row.patches) as Patch[]) : null;
  }

  /** Which of these steps are done. */
  async known(manager: EntityManager, projectId: string, steps: readonly string[]): Promise<string[]> {
    const known: string[] = [];
    for (let i = 0; i < steps.length; i += ASKED_AT_ONCE) {
      const rows = await manager.find(OperationEntity, {
        select: { seq: true, stepId: true },
        where: { projectId, stepId: In(steps.slice(i, i + ASKED_AT_ONCE)) },
      });
      known.push(...rows.map((row) => row.stepId));
    }
    return known;
  }

  /** How many of the revisions after one were made by these steps. */
  ownSince(manager: EntityManager, projectId: string, revision: number, steps: readonly string[]): Promise<number> {
    return manager.countBy(OperationEntity, { projectId, revision: MoreThan(revision), stepId: In([...steps]) });
  }

  async add(manager: EntityManager, row: Omit<OperationEntity, 'seq'>): Promise<void> {
    if (row.state === 'done')
      await manager.update(OperationEntity, { projectId: row.projectId, state: 'undone' }, { state: 'dropped' });
    await manager.insert(OperationEntity, row);
  }

  /** Puts every step that could be undone or redone aside; says how many there were. */
  async drop(manager: EntityManager, projectId: string): Promise<number> {
    const open = { projectId, state: In(['done', 'undone']) };
    const steps = await manager.countBy(OperationEntity, open);
    await manager.update(OperationEntity, open, { state: 'dropped' });
    return steps;
  }

  /** Lets go of what it takes to undo the steps that lie too far back; the steps themselves stay in the history. */
  async limit(manager: EntityManager, projectId: string): Promise<void> {
    const [first] = await manager.find(OperationEntity, {
      select: { seq: true },
      where: { projectId, state: 'done' },
      order: { seq: 'DESC' },
      skip: KEPT_OF_PAST.undo,
      take: 1,
    });
    if (!first) return;
    const far = { projectId, state: 'done', seq: LessThanOrEqual(first.seq) };
    await manager.update(OperationEntity, far, { state: 'dropped', inverse: '[]' });
  }

  /** Takes the step that an undo or redo is about and marks it; null when there is none. */
  async turn(manager: EntityManager, projectId: string, which: 'undo' | 'redo'): Promise<Patch[] | null> {
    const [row] = await this.rows(
      manager,
      projectId,
      which === 'undo' ? 'done' : 'undone',
      which === 'undo' ? 'DESC' : 'ASC',
      1,
    );
    if (!row) return null;
    await manager.update(OperationEntity, { seq: row.seq }, { state: which === 'undo' ? 'undone' : 'done' });
    return JSON.parse(which === 'undo' ? row.inverse : row.patches) as Patch[];
  }
}
