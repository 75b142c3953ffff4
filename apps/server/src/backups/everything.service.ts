import { HttpStatus, Injectable } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import type { EntityManager } from 'typeorm';
import { strToU8, zip, type AsyncZippable } from 'fflate';
import type { TakenIn } from '@nestplank/contract';
import type { PriceBook } from '@nestplank/core/document';
import { PhotoEntity, ProjectEntity, VersionEntity } from '../database/entities.js';
import { Transactions } from '../database/transactions.js';
import { ProjectsService } from '../projects/projects.service.js';
import { RefusedError } from '../refusals.js';
import { threadScript } from '../threads.js';
import type { ArchiveAnswer } from './archive.worker.js';
import type { Entry, Index, ReadProject } from './read-archive.js';

type Refused = TakenIn['refused'][number];

const refuse = (why: string, place: string): never => {
  throw new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', why, { place });
};

/** A document as it is stored, with the prices, as a project file. */
function fileOf(document: string, priceBook: PriceBook): Uint8Array {
  const project = JSON.parse(document) as { version?: number };
  const file = { format: 'nest-plank-file', version: project.version ?? null, project, priceBook };
  return strToU8(`${JSON.stringify(file, null, 1)}\n`);
}

/** Where an archive of a damaged database names what is not in it. */
export const NOT_READ = 'not-read.txt';

/** Versions and photos of one project go in by parts of so many bytes: saves take their turn between them. */
const PART_BYTES = 4_000_000;
/** Lists cut into parts, each of about so many bytes. */
function parted<T>(all: readonly T[], bytes: (one: T) => number): T[][] {
  const parts: T[][] = [];
  let left = 0;
  for (const one of all) {
    const size = bytes(one);
    if (parts.length === 0 || size > left) {
      parts.push([]);
      left = PART_BYTES;
    }
    parts.at(-1)?.push(one);
    left -= size;
  }
  return parts;
}

/** A thread that reads an archive, asked for one thing of it after another. */
class ArchiveReader {
  private readonly worker: Worker;

  constructor(archive: Uint8Array) {
    // a copy of its own: the thread takes it over
    const own = archive.slice();
    this.worker = new Worker(threadScript(import.meta.url, './archive.worker', 'backups/archive.worker'), {
      workerData: { archive: own },
      transferList: [own.buffer],
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
    });
  }

  next(): Promise<ArchiveAnswer> {
    const { worker } = this;
    return new Promise((resolve) => {
      const answered = (answer: ArchiveAnswer): void => {
        worker.off('error', broken).off('exit', gone);
        resolve(answer);
      };
      const none = (message: string): void => {
        worker.off('message', answered).off('error', broken).off('exit', gone);
        resolve({ kind: 'none', message, file: null });
      };
      const broken = (problem: unknown): void => none(`This archive cannot be read: ${String(problem)}.`);
      const gone = (): void => none('The thread that reads the archive ended.');
      worker.once('message', answered).once('error', broken).once('exit', gone);
      worker.postMessage(null);
    });
  }

  async end(): Promise<void> {
    this.worker.removeAllListeners();
    await this.worker.terminate();
  }
}
/** A thread that reads an archive takes no more than this, MB. */
const MOST_MEMORY_MB = 1500;

/** All projects with their prices, photos and versions as an archive of open files, and such an archive taken in. */
@Injectable()
export class EverythingService {
  constructor(
    private readonly transactions: Transactions,
    private readonly projects: ProjectsService,
  ) {}

  /** @param only the id of one project; all of them without it */
  async archive(only?: string): Promise<Uint8Array> {
    const files: AsyncZippable = {};
    const index: Index = { format: 'nest-plank-everything', version: 1, at: new Date().toISOString(), projects: [] };
    // what of a damaged database cannot be read is named, and the rest goes out
    const lost: string[] = [];
    const damaged = this.transactions.trouble() === 'damaged';
    const ids =
      only !== undefined
        ? [only]
        : damaged
          ? await this.projects.ids()
          : (await this.projects.list()).map(({ id }) => id);
    for (const id of ids)
      try {
        index.projects.push(await this.packed(id, files, lost));
      } catch (problem) {
        if (!damaged || !(problem instanceof RefusedError)) throw problem;
        // one in the bin stays there
        if (only === undefined && problem.code === 'not-found') continue;
        if (problem.more.trouble !== 'damaged') throw problem;
        lost.push(`projects/${id}.json`);
      }
    if (lost.length > 0)
      files[NOT_READ] = strToU8(
        `The database is damaged. This could not be read and is not in here:\n\n${lost.join('\n')}\n`,
      );
    files['index.json'] = strToU8(JSON.stringify(index, null, 2));
    // packed in threads: saves go on meanwhile
    return new Promise((resolve, reject) =>
      zip(files, (problem, archive) => (problem ? reject(problem) : resolve(archive))),
    );
  }

  /** Puts what belongs to a project among the files; what of it cannot be read is named. */
  private async packed(id: string, files: AsyncZippable, lost: string[]): Promise<Entry> {
    const { document, priceBook, pricesLost } = await this.projects.whole(id);
    const file = `projects/${id}.json`;
    files[file] = fileOf(document, priceBook);
    if (pricesLost) lost.push(`${file}: its prices; those of a new build stand in for them`);
    const photos = await this.rowsOf('photos', id, (manager, own) =>
      manager.findOneByOrFail(PhotoEntity, { projectId: id, id: own }),
    );
    const versions = await this.rowsOf('versions', id, (manager, own) =>
      manager.findOneByOrFail(VersionEntity, { projectId: id, id: own }),
    );
    lost.push(...photos.lost, ...versions.lost);
    return {
      file,
      photos: photos.rows.map((photo) => {
        const [large, small] = [`photos/${id}/${photo.id}.webp`, `photos/${id}/${photo.id}-small.webp`];
        // pictures are packed already
        files[large] = [new Uint8Array(photo.large), { level: 0 }];
        files[small] = [new Uint8Array(photo.small), { level: 0 }];
        return { id: photo.id, width: photo.width, height: photo.height, at: photo.at, large, small };
      }),
      versions: versions.rows
        .sort((one, other) => one.revision - other.revision)
        .map((version, i) => {
          const kept = `versions/${id}/${i + 1}.json`;
          files[kept] = fileOf(version.document, priceBook);
          const { name, revision, at } = version;
          return { file: kept, name, automatic: Boolean(version.automatic), revision, at };
        }),
    };
  }

  /** The rows of a table that belong to a project, one by one; those of a damaged file that cannot be read are named. */
  private async rowsOf<T>(
    table: 'photos' | 'versions',
    projectId: string,
    read: (manager: EntityManager, id: string) => Promise<T>,
  ): Promise<{ readonly rows: T[]; readonly lost: string[] }> {
    const ids = await this.transactions.readWhole((manager) =>
      manager.query<{ id: string }[]>(`SELECT id FROM "${table}" WHERE "projectId" = ? ORDER BY rowid`, [projectId]),
    );
    if (!ids) return { rows: [], lost: [`${table}/${projectId}`] };
    const rows: T[] = [];
    const lost: string[] = [];
    for (const { id } of ids) {
      const row = await this.transactions.readWhole((manager) => read(manager, id));
      if (row === null) lost.push(`${table}/${projectId}/${id}`);
      else rows.push(row);
    }
    return { rows, lost };
  }

  /**
   * Takes an archive in: every project of it that can be read, under an id that is free, with its photos and versions;
   * what cannot be read is named with the reason. It is read in a thread and goes in by parts, and saves are kept meanwhile.
   */
  async takeIn(archive: Uint8Array): Promise<TakenIn> {
    const reader = new ArchiveReader(archive);
    const ids: string[] = [];
    const refused: Refused[] = [];
    try {
      for (let answer = await reader.next(); answer.kind !== 'done'; answer = await reader.next()) {
        if (answer.kind === 'project') ids.push(await this.put(answer.project));
        else if (answer.kind === 'refused') refused.push(answer.refused);
        else if (ids.length === 0) return refuse(answer.message, answer.file ?? 'archive');
        else {
          refused.push({ file: answer.file ?? 'archive', why: answer.message });
          break;
        }
      }
    } finally {
      await reader.end();
    }
    const [first] = refused;
    if (ids.length === 0 && first) return refuse(`${first.file}: ${first.why}`, first.file);
    return { ids, refused };
  }

  /** One project with what belongs to it. Until all of it is in it lies in the bin: what was cut short is not taken for whole. */
  private async put({ file, photos, versions, revision }: ReadProject): Promise<string> {
    const projectId = await this.projects.importBinned(file);
    for (const part of parted(photos, ({ large, small }) => large.length + small.length))
      await this.transactions.run(async (manager) => {
        for (const { large, small, ...photo } of part)
          await manager.insert(PhotoEntity, {
            ...photo,
            large: Buffer.from(large),
            small: Buffer.from(small),
            projectId,
          });
      });
    for (const part of parted(versions, ({ document }) => document.length))
      await this.transactions.run(async (manager) => {
        for (const version of part) await manager.insert(VersionEntity, { ...version, id: randomUUID(), projectId });
      });
    // what comes now comes after the versions there are
    await this.transactions.run(async (manager) => {
      await manager.update(ProjectEntity, { id: projectId }, { revision, deletedAt: null });
    });
    return projectId;
  }
}
