import { randomUUID } from 'node:crypto';
import { HttpStatus, Injectable } from '@nestjs/common';
import { In, IsNull, LessThan, LessThanOrEqual, MoreThan, Not, type EntityManager } from 'typeorm';
import {
  KEPT_OF_PAST,
  mayDo,
  OTHER_DATABASE,
  type BinItem,
  type CreateProjectDto,
  type LogView,
  type PostStepsDto,
  type ProjectListItem,
  type ProjectView,
  type StepDto,
  type StepsResult,
} from '@nestplank/contract';
import type { Patch } from '@nestplank/core/document';
import {
  createProject,
  OperationError,
  patchProject,
  readOperation,
  type PriceBook,
  type Project,
  type VehicleKind,
  surveyAsStart,
} from '@nestplank/core/document';
import { applyOperation } from '@nestplank/core/furniture';
import { startPriceBook } from '@nestplank/core/materials';
import { message, say, type Message } from '@nestplank/core/words';
import { openStored, readProjectFile } from '@nestplank/core/formats';
import { LogEntity, PriceBookEntity, ProjectEntity } from '../database/entities.js';
import { Transactions } from '../database/transactions.js';
import { PricesService } from '../prices/prices.service.js';
import { notFound, RefusedError } from '../refusals.js';
import { StepStore } from './step-store.js';
import { VersionsService } from './versions.service.js';

/** A project as it was last read or written, so that a step does not parse the whole document again. */
interface Known {
  readonly revision: number;
  readonly project: Project;
}
const KNOWN_PROJECTS = 24;
/** Names that stand for something else in an address. */
const RESERVED: ReadonlySet<string> = new Set(['bin', 'import']);
const DAY_MS = 86_400_000;
/** What an operation carried is kept beside what it changed, unless it is long: the change says it all. */
const LONGEST_NOTED = 2000;
const noted = (step: StepDto): string => {
  const text = JSON.stringify(step.payload ?? {});
  return text.length > LONGEST_NOTED ? '{}' : text;
};

@Injectable()
export class ProjectsService {
  private readonly known = new Map<string, Known>();

  constructor(
    private readonly transactions: Transactions,
    private readonly steps: StepStore,
    private readonly versions: VersionsService,
    private readonly prices: PricesService,
  ) {
    transactions.whenReplaced(() => this.known.clear());
  }

  async list(): Promise<ProjectListItem[]> {
    return (await this.transactions.readWhole((manager) => this.listed(manager))) ?? (await this.listedSingly());
  }

  /** The ids of all that is not in the bin, by the index alone: it may be whole where the rows are not. */
  ids(): Promise<string[]> {
    return this.transactions.read(async (manager) => {
      const rows = await manager.query<{ id: string }[]>('SELECT id FROM projects ORDER BY id');
      return rows.map(({ id }) => id);
    });
  }

  /** Those of a damaged database that can be read, one by one. */
  private async listedSingly(): Promise<ProjectListItem[]> {
    const found: ProjectListItem[] = [];
    for (const id of await this.ids())
      found.push(...((await this.transactions.readWhole((manager) => this.listed(manager, id))) ?? []));
    return found.sort((a, b) => b.updatedAt.localeCompare(a.updatedAt));
  }

  private async listed(manager: EntityManager, only?: string): Promise<ProjectListItem[]> {
    const rows = await manager.find(ProjectEntity, {
      select: { id: true, name: true, kind: true, model: true, revision: true, updatedAt: true },
      where: { deletedAt: IsNull(), ...(only === undefined ? {} : { id: only }) },
      order: { updatedAt: 'DESC' },
    });
    return rows.map(({ id, name, kind, model, revision, updatedAt }) => ({
      id,
      name,
      kind: kind as VehicleKind,
      model,
      revision,
      updatedAt,
    }));
  }

  /** @param steps ids of steps whose sender does not know whether they were done; those that are, are named */
  async view(id: string, steps: readonly string[] = []): Promise<ProjectView> {
    const stored = await this.transactions.read((manager) => this.row(manager, id));
    const damaged = this.transactions.trouble() === 'damaged';
    const news = damaged ? [] : [...(await this.settled(stored))];
    return this.transactions.read(async (manager) => {
      const row = await this.row(manager, id);
      return {
        database: await this.database(manager),
        project: await this.opened(manager, row),
        news: this.prices.isLost(row.bookId) ? [...news, message('open.pricesLost')] : news,
        revision: row.revision,
        done: await this.steps.known(manager, id, steps),
        history: await this.steps.history(manager, id),
        priceBookId: row.bookId,
        priceBook: await this.prices.bookIn(manager, row.bookId),
      };
    });
  }

  create(wanted: CreateProjectDto): Promise<{ id: string }> {
    return this.transactions.run(async (manager) => {
      const { from, practiceSeed, ...rest } = wanted;
      const empty = createProject({
        ...rest,
        name: wanted.name.trim() || wanted.name,
        id: await this.freeId(manager, wanted.name),
      });
      const start = from ? await this.opened(manager, await this.row(manager, from)) : null;
      const project: Project = {
        ...empty,
        survey: start ? surveyAsStart(start.survey, new Date().toISOString()) : empty.survey,
        practice: practiceSeed === undefined ? null : { vehicle: wanted.kind, seed: practiceSeed },
      };
      const bookId = await this.prices.addBook(manager, project.name, startPriceBook());
      await this.insert(manager, project, bookId);
      return { id: project.id };
    });
  }

  /** Takes a project file in under an id of its own, with its own price book. */
  import(text: string): Promise<{ id: string }> {
    const file = readProjectFile(text);
    return this.transactions.run((manager) => this.takeIn(manager, file));
  }

  /** Takes a project file in that is not whole yet: it lies in the bin until it is taken out of it. @returns its id */
  importBinned(file: ReturnType<typeof readProjectFile>): Promise<string> {
    return this.transactions.run(async (manager) => {
      const { id } = await this.takeIn(manager, file);
      await manager.update(ProjectEntity, { id }, { deletedAt: new Date().toISOString() });
      return id;
    });
  }

  /**
   * Takes in the demo of a database that has never had a project; all of it or none, so that a first start that was cut
   * short is made good at the next.
   */
  async takeInDemo(texts: () => Promise<readonly string[]>): Promise<void> {
    if (await this.transactions.read((manager) => this.begun(manager))) return;
    const files = (await texts()).map(readProjectFile);
    await this.transactions.run(async (manager) => {
      for (const file of files) await this.takeIn(manager, file);
      await manager.query('PRAGMA user_version = 1');
    });
  }

  /** Whether the database has been in use: it says so itself, or it has a project. */
  private async begun(manager: EntityManager): Promise<boolean> {
    const [row] = await manager.query<{ user_version: number }[]>('PRAGMA user_version');
    return (row?.user_version ?? 0) > 0 || (await manager.countBy(ProjectEntity, {})) > 0;
  }

  private async takeIn(manager: EntityManager, file: ReturnType<typeof readProjectFile>): Promise<{ id: string }> {
    const id = await this.freeId(manager, file.project.id);
    const bookId = await this.prices.addBook(manager, file.project.name, file.priceBook);
    await this.insert(manager, { ...file.project, id }, bookId);
    return { id };
  }

  /** Puts a project into the bin, with all that belongs to it; it can be brought back for `KEPT_OF_PAST.bin` days. */
  remove(id: string): Promise<void> {
    return this.transactions.run(async (manager) => {
      const result = await manager.update(
        ProjectEntity,
        { id, deletedAt: IsNull() },
        { deletedAt: new Date().toISOString() },
      );
      if (!result.affected) throw notFound('project', id);
      this.known.delete(id);
    });
  }

  /** What lies in the bin, last thrown away first, each with the day on which it goes for good. */
  bin(): Promise<BinItem[]> {
    return this.transactions.read(async (manager) => {
      const rows = await manager.find(ProjectEntity, {
        select: { id: true, name: true, deletedAt: true },
        where: { deletedAt: Not(IsNull()) },
        order: { deletedAt: 'DESC' },
      });
      return rows.map(({ id, name, deletedAt }) => ({
        id,
        name,
        deletedAt: deletedAt ?? '',
        until: new Date(Date.parse(deletedAt ?? '') + KEPT_OF_PAST.bin * DAY_MS).toISOString(),
      }));
    });
  }

  bringBack(id: string): Promise<void> {
    return this.transactions.run(async (manager) => {
      const result = await manager.update(
        ProjectEntity,
        { id, deletedAt: Not(IsNull()) },
        { deletedAt: null, dueSince: null },
      );
      if (!result.affected) throw notFound('project in the bin', id);
    });
  }

  /** Takes out of the bin for good what has lain there long enough, and was found so a day before too: history, versions, photos, log, and a price book that nothing else uses. */
  emptyBin(now: Date): Promise<number> {
    return this.transactions.run(async (manager) => {
      const due = LessThan(new Date(now.getTime() - KEPT_OF_PAST.bin * DAY_MS).toISOString());
      const today = now.toISOString();
      // what is not due now was found so under another clock
      await manager.update(ProjectEntity, { dueSince: Not(IsNull()), deletedAt: Not(due) }, { dueSince: null });
      await manager.update(ProjectEntity, { dueSince: MoreThan(today) }, { dueSince: null });
      await manager.update(ProjectEntity, { dueSince: IsNull(), deletedAt: due }, { dueSince: today });
      const rows = await manager.find(ProjectEntity, {
        select: { id: true, bookId: true },
        where: { deletedAt: due, dueSince: LessThanOrEqual(new Date(now.getTime() - DAY_MS).toISOString()) },
      });
      if (rows.length === 0) return 0;
      await manager.delete(ProjectEntity, { id: In(rows.map((row) => row.id)) });
      for (const { bookId } of rows)
        if (!(await manager.existsBy(ProjectEntity, { bookId }))) await manager.delete(PriceBookEntity, { id: bookId });
      return rows.length;
    });
  }

  /**
   * Applies steps in order, in one transaction: all are kept or none. Steps that were done before under the same id are
   * passed over, so that a sender who never heard the answer can ask again.
   */
  async post(id: string, { revision, steps }: PostStepsDto): Promise<StepsResult> {
    const twice = steps.find((step, i) => steps.findIndex((one) => one.id === step.id) < i);
    if (twice)
      throw new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', `Two steps are called ${twice.id}.`, {
        step: twice.id,
      });
    const { result, known } = await this.transactions.run(async (manager) => {
      const row = await this.row(manager, id);
      const own = steps.some((step) => step.database !== undefined) ? await this.database(manager) : null;
      const elsewhere = steps.find((step) => step.database !== undefined && step.database !== own);
      if (elsewhere)
        throw new RefusedError(HttpStatus.UNPROCESSABLE_ENTITY, 'operation', OTHER_DATABASE, { step: elsewhere.id });
      const book = await this.prices.bookIn(manager, row.bookId);
      const before = await Promise.all(steps.map((step) => this.steps.doneBefore(manager, id, step.id)));
      const done = steps.filter((_, i) => before[i] !== null).map((step) => step.id);
      const fresh = steps.length - done.length;
      const ours =
        fresh === 0 || row.revision === revision ? 0 : await this.steps.ownSince(manager, id, revision, done);
      if (!mayDo({ sent: revision, current: row.revision, own: ours, fresh })) {
        throw new RefusedError(HttpStatus.CONFLICT, 'conflict', 'The project was changed elsewhere first.', {
          revision: row.revision,
          done,
        });
      }
      // what cannot be opened can still be returned to a version that can
      let project = steps.every((step) => step.name === 'restore')
        ? await this.asStored(manager, row)
        : await this.opened(manager, row);
      let newRevision = row.revision;
      const told: StepsResult['done'][number][] = [];
      for (const [i, step] of steps.entries()) {
        const past = before[i];
        if (past) {
          told.push({ id: step.id, name: step.name, patches: past });
          continue;
        }
        newRevision += 1;
        const made = await this.step(manager, project, step, book, newRevision);
        project = made.project;
        told.push({ id: step.id, name: step.name, patches: made.patches });
      }
      if (newRevision !== row.revision) {
        await this.versions.keepAutomatic(manager, row);
        await manager.update(
          ProjectEntity,
          { id },
          {
            name: project.name,
            kind: project.vehicle.kind,
            model: project.vehicle.model,
            revision: newRevision,
            document: JSON.stringify(project),
            updatedAt: new Date().toISOString(),
          },
        );
      }
      return {
        result: { revision: newRevision, history: await this.steps.history(manager, id), done: told },
        known: { revision: newRevision, project },
      };
    });
    this.remember(id, known);
    return result;
  }

  private async step(
    manager: EntityManager,
    project: Project,
    step: StepDto,
    book: PriceBook,
    revision: number,
  ): Promise<{ project: Project; patches: readonly Patch[] }> {
    const base = {
      projectId: project.id,
      stepId: step.id,
      name: step.name,
      payload: noted(step),
      revision,
      at: new Date().toISOString(),
    };
    if (step.name === 'undo' || step.name === 'redo') {
      const patches = await this.steps.turn(manager, project.id, step.name);
      if (!patches)
        throw new RefusedError(HttpStatus.UNPROCESSABLE_ENTITY, 'operation', `There is nothing to ${step.name}.`, {
          step: step.id,
        });
      await this.steps.add(manager, { ...base, patches: JSON.stringify(patches), inverse: '[]', state: 'step' });
      return { project: patchProject(project, patches), patches };
    }
    try {
      const edit = applyOperation(project, readOperation({ name: step.name, payload: step.payload }), book);
      await this.steps.add(manager, {
        ...base,
        patches: JSON.stringify(edit.patches),
        inverse: JSON.stringify(edit.inverse),
        state: 'done',
      });
      return edit;
    } catch (problem) {
      if (problem instanceof OperationError)
        throw new RefusedError(HttpStatus.UNPROCESSABLE_ENTITY, 'operation', say(problem.said), {
          place: problem.place,
          step: step.id,
        });
      throw problem;
    }
  }

  /** By what this database is told from others. */
  private async database(manager: EntityManager): Promise<string> {
    const [row] = await manager.query<{ id: string }[]>('SELECT id FROM identity');
    return row?.id ?? '';
  }

  private async row(manager: EntityManager, id: string): Promise<ProjectEntity> {
    const row = await manager.findOneBy(ProjectEntity, { id, deletedAt: IsNull() });
    if (!row) throw notFound('project', id);
    return row;
  }

  /** The project of a row. @throws RefusedError when its document is so unsound that nothing can be worked out from it */
  private async opened(manager: EntityManager, row: ProjectEntity): Promise<Project> {
    const known = this.known.get(row.id);
    if (known?.revision === row.revision) return known.project;
    const book = await this.prices.bookIn(manager, row.bookId);
    const { project, faults } = openStored(JSON.parse(row.document), book);
    if (!project)
      throw new RefusedError(
        HttpStatus.UNPROCESSABLE_ENTITY,
        'unsound',
        `${row.name} cannot be opened as it is stored. Nothing of it is lost: it can be taken out as a file, or returned to a version.`,
        { faults, revision: row.revision },
      );
    this.remember(row.id, { revision: row.revision, project });
    return project;
  }

  /** The document of a row, whether it can be opened or not. */
  private async asStored(manager: EntityManager, row: ProjectEntity): Promise<Project> {
    try {
      return await this.opened(manager, row);
    } catch (problem) {
      if (problem instanceof RefusedError && problem.code === 'unsound') return JSON.parse(row.document) as Project;
      throw problem;
    }
  }

  /** The document exactly as it is stored, to be taken out whatever is wrong with it. */
  stored(id: string): Promise<string> {
    return this.transactions.read(async (manager) => (await this.row(manager, id)).document);
  }

  /** A project with its prices as they are stored, whether it can be opened or not. */
  whole(id: string): Promise<{
    readonly document: string;
    readonly priceBook: PriceBook;
    /** Its prices could not be read: those of a new build stand in for them. */
    readonly pricesLost: boolean;
  }> {
    return this.transactions.read(async (manager) => {
      const row = await this.row(manager, id);
      const priceBook = await this.prices.bookIn(manager, row.bookId);
      return { document: row.document, priceBook, pricesLost: this.prices.isLost(row.bookId) };
    });
  }

  log(id: string): Promise<LogView[]> {
    return this.transactions.read(async (manager) => {
      await this.row(manager, id);
      const rows = await manager.find(LogEntity, { where: { projectId: id }, order: { at: 'DESC' } });
      return rows.map((row) => ({ id: row.id, at: row.at, kind: 'note', said: JSON.parse(row.said) as Message }));
    });
  }

  /**
   * Brings a document of an earlier version to the present one for good, and what can plainly be put right is put right.
   * What it was is kept as a version. Steps from before speak of places that are elsewhere now: they are no longer offered
   * to be undone. All of it is noted in the log, and told once.
   */
  private settled(stored: ProjectEntity): Promise<readonly Message[]> {
    if (this.known.get(stored.id)?.revision === stored.revision) return Promise.resolve([]);
    return this.transactions.run(async (manager) => {
      const row = await this.row(manager, stored.id);
      const book = await this.prices.bookIn(manager, row.bookId);
      const { project, from, repaired } = openStored(JSON.parse(row.document), book);
      if (!project || (from === project.version && repaired.length === 0)) return [];
      await this.versions.keepBefore(manager, row, from);
      const steps = await this.steps.drop(manager, row.id);
      const news: Message[] = [
        ...(from === project.version
          ? []
          : [{ key: 'stored.upgraded' as const, params: { from: from ?? 0, to: project.version, steps } }]),
        ...repaired,
      ];
      const at = new Date().toISOString();
      for (const said of news)
        await manager.insert(LogEntity, {
          id: randomUUID(),
          projectId: row.id,
          at,
          kind: 'note',
          said: JSON.stringify(said),
        });
      await manager.update(
        ProjectEntity,
        { id: row.id },
        { document: JSON.stringify(project), revision: row.revision + 1, updatedAt: at },
      );
      return news;
    });
  }

  private remember(id: string, known: Known): void {
    this.known.delete(id);
    this.known.set(id, known);
    const oldest = this.known.keys().next().value;
    if (this.known.size > KNOWN_PROJECTS && oldest !== undefined) this.known.delete(oldest);
  }

  private async insert(manager: EntityManager, project: Project, bookId: string): Promise<void> {
    const now = new Date().toISOString();
    await manager.insert(ProjectEntity, {
      id: project.id,
      name: project.name,
      kind: project.vehicle.kind,
      model: project.vehicle.model,
      revision: 0,
      document: JSON.stringify(project),
      bookId,
      createdAt: now,
      updatedAt: now,
    });
  }

  private async freeId(manager: EntityManager, name: string): Promise<string> {
    const plain =
      name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-+|-+$/g, '')
        .slice(0, 40) || 'project';
    return RESERVED.has(plain) || (await manager.existsBy(ProjectEntity, { id: plain }))
      ? `${plain}-${randomUUID().slice(0, 8)}`
      : plain;
  }
}
