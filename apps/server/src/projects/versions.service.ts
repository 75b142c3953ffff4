import { randomUUID } from 'node:crypto';
import { HttpStatus, Injectable } from '@nestjs/common';
import { In, IsNull, type EntityManager } from 'typeorm';
import { KEPT_OF_PAST, type VersionView } from '@nestplank/contract';
import type { Project } from '@nestplank/core/document';
import { openStored } from '@nestplank/core/formats';
import { ProjectEntity, VersionEntity } from '../database/entities.js';
import { Transactions } from '../database/transactions.js';
import { PricesService } from '../prices/prices.service.js';
import { notFound, RefusedError } from '../refusals.js';
import { StepStore } from './step-store.js';

@Injectable()
export class VersionsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly prices: PricesService,
    private readonly steps: StepStore,
  ) {}

  list(projectId: string): Promise<VersionView[]> {
    return this.transactions.read(async (manager) => {
      const rows = await manager.find(VersionEntity, {
        select: { id: true, name: true, automatic: true, revision: true, at: true },
        where: { projectId },
        order: { at: 'DESC' },
      });
      return rows.map(({ id, name, automatic, revision, at }) => ({
        id,
        name,
        automatic: Boolean(automatic),
        revision,
        at,
      }));
    });
  }

  keep(projectId: string, name: string): Promise<VersionView> {
    return this.transactions.run(async (manager) => {
      const row = await manager.findOneBy(ProjectEntity, { id: projectId, deletedAt: IsNull() });
      if (!row) throw notFound('project', projectId);
      return this.insert(manager, row, name, false);
    });
  }

  document(projectId: string, id: string): Promise<Project> {
    return this.transactions.read(async (manager) => {
      const row = await manager.findOneBy(VersionEntity, { projectId, id });
      if (!row) throw notFound('version', id);
      const owner = await manager.findOneBy(ProjectEntity, { id: projectId });
      const book = owner ? await this.prices.bookIn(manager, owner.bookId) : { currency: 'EUR', items: [] };
      const { project, faults } = openStored(JSON.parse(row.document), book);
      if (!project)
        throw new RefusedError(
          HttpStatus.UNPROCESSABLE_ENTITY,
          'unsound',
          `The version ${row.name} cannot be opened.`,
          {
            faults,
          },
        );
      return project;
    });
  }

  /** Keeps the project as it was, when enough has happened since the last version. */
  async keepAutomatic(manager: EntityManager, row: ProjectEntity): Promise<void> {
    const [last] = await manager.find(VersionEntity, {
      select: { id: true, revision: true },
      where: { projectId: row.id },
      order: { revision: 'DESC' },
      take: 1,
    });
    if (row.revision - (last?.revision ?? 0) < KEPT_OF_PAST.between) return;
    await this.insert(manager, row, `After ${row.revision} steps`, true);
    const older = await manager.find(VersionEntity, {
      select: { id: true },
      where: { projectId: row.id, automatic: true },
      order: { at: 'DESC' },
      skip: KEPT_OF_PAST.automatic,
    });
    if (older.length > 0) await manager.delete(VersionEntity, { id: In(older.map(({ id }) => id)) });
    await this.steps.limit(manager, row.id);
  }

  /** Keeps a document as an earlier version of the program wrote it. */
  async keepBefore(manager: EntityManager, row: ProjectEntity, from: number | null): Promise<void> {
    await this.insert(manager, row, `As version ${from ?? '?'} wrote it`, false);
  }

  private async insert(
    manager: EntityManager,
    row: ProjectEntity,
    name: string,
    automatic: boolean,
  ): Promise<VersionView> {
    const version = {
      id: randomUUID(),
      projectId: row.id,
      name,
      automatic,
      revision: row.revision,
      document: row.document,
      at: new Date().toISOString(),
    };
    await manager.insert(VersionEntity, version);
    return { id: version.id, name, automatic, revision: version.revision, at: version.at };
  }
}
