import { HttpStatus, Injectable } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { strFromU8, strToU8, unzip, zip, type AsyncZippable, type Unzipped } from 'fflate';
import { z } from 'zod';
import type { TakenIn } from '@nestplank/contract';
import type { PriceBook, Project } from '@nestplank/core/document';
import { FormatError, readProjectFile } from '@nestplank/core/formats';
import { PhotoEntity, ProjectEntity, VersionEntity } from '../database/entities.js';
import { Transactions } from '../database/transactions.js';
import { ProjectsService } from '../projects/projects.service.js';
import { RefusedError } from '../refusals.js';

/** No archive holds more than this once it is unpacked, bytes. */
const MOST_BYTES = 1_000_000_000;

/** As many projects, and photos and versions of each, as one archive holds. */
const MOST = { projects: 2000, photos: 1000, versions: 2000 };

const indexSchema = z.strictObject({
  format: z.literal('nest-plank-everything'),
  version: z.literal(1),
  at: z.iso.datetime(),
  projects: z
    .array(
      z.strictObject({
        file: z.string(),
        photos: z
          .array(
            z.strictObject({
              id: z.string(),
              width: z.int(),
              height: z.int(),
              at: z.string(),
              large: z.string(),
              small: z.string(),
            }),
          )
          .max(MOST.photos),
        versions: z
          .array(
            z.strictObject({
              file: z.string(),
              name: z.string().max(200),
              automatic: z.boolean(),
              revision: z.int().nonnegative(),
              at: z.string(),
            }),
          )
          .max(MOST.versions)
          .default([]),
      }),
    )
    .max(MOST.projects),
});
type Index = z.infer<typeof indexSchema>;
type Entry = Index['projects'][number];
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

/** What is read of a file of an archive; null, and named with the reason, when it cannot be read. */
function readOr<T>(refused: Refused[], file: string, read: () => T): T | null {
  try {
    return read();
  } catch (problem) {
    if (!(problem instanceof FormatError)) throw problem;
    refused.push({ file, why: problem.message });
    return null;
  }
}

/** A project of an archive, its photos under ids of their own. @throws FormatError */
function unpackedProject(entry: Entry, at: (name: string) => Uint8Array, refused: Refused[]) {
  const file = readProjectFile(strFromU8(at(entry.file)));
  const ids = new Map(entry.photos.map((photo) => [photo.id, randomUUID()]));
  /** Speaks of photos by their new ids; one that is not in the archive is let go. */
  const renamed = (project: Project): Project => ({
    ...project,
    survey: {
      ...project.survey,
      found: project.survey.found.map((find) => ({
        ...find,
        photo: find.photo === null ? null : (ids.get(find.photo) ?? null),
      })),
      ...(project.survey.before
        ? {
            before: {
              ...project.survey.before,
              photos: Object.fromEntries(
                Object.entries(project.survey.before.photos).flatMap(([surface, photo]) => {
                  const kept = ids.get(photo);
                  return kept === undefined ? [] : [[surface, kept]];
                }),
              ),
            },
          }
        : {}),
      readings: Object.fromEntries(
        Object.entries(project.survey.readings).map(([address, readings]) => [
          address,
          readings.map(({ photo, ...reading }) => {
            const kept = photo === undefined ? undefined : ids.get(photo);
            return kept === undefined ? reading : { ...reading, photo: kept };
          }),
        ]),
      ),
    },
  });
  return {
    file: { ...file, project: renamed(file.project) },
    revision: entry.versions.reduce((most, version) => Math.max(most, version.revision), 0),
    photos: entry.photos.map((photo) => ({
      id: ids.get(photo.id) ?? randomUUID(),
      width: photo.width,
      height: photo.height,
      at: photo.at,
      large: Buffer.from(at(photo.large)),
      small: Buffer.from(at(photo.small)),
    })),
    versions: entry.versions.flatMap(({ file: kept, ...version }) => {
      const project = readOr(refused, kept, () => readProjectFile(strFromU8(at(kept))).project);
      return project ? [{ ...version, document: JSON.stringify(renamed(project)) }] : [];
    }),
  };
}

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
    const ids = only === undefined ? (await this.projects.list()).map(({ id }) => id) : [only];
    for (const id of ids) index.projects.push(await this.packed(id, files));
    files['index.json'] = strToU8(JSON.stringify(index, null, 2));
    // packed in threads: saves go on meanwhile
    return new Promise((resolve, reject) =>
      zip(files, (problem, archive) => (problem ? reject(problem) : resolve(archive))),
    );
  }

  /** Puts what belongs to a project among the files. */
  private async packed(id: string, files: AsyncZippable): Promise<Entry> {
    const { document, priceBook } = await this.projects.whole(id);
    const file = `projects/${id}.json`;
    files[file] = fileOf(document, priceBook);
    const [photos, versions] = await this.transactions.read((manager) =>
      Promise.all([
        manager.findBy(PhotoEntity, { projectId: id }),
        manager.find(VersionEntity, { where: { projectId: id }, order: { revision: 'ASC' } }),
      ]),
    );
    return {
      file,
      photos: photos.map((photo) => {
        const [large, small] = [`photos/${id}/${photo.id}.webp`, `photos/${id}/${photo.id}-small.webp`];
        // pictures are packed already
        files[large] = [new Uint8Array(photo.large), { level: 0 }];
        files[small] = [new Uint8Array(photo.small), { level: 0 }];
        return { id: photo.id, width: photo.width, height: photo.height, at: photo.at, large, small };
      }),
      versions: versions.map((version, i) => {
        const kept = `versions/${id}/${i + 1}.json`;
        files[kept] = fileOf(version.document, priceBook);
        const { name, revision, at } = version;
        return { file: kept, name, automatic: Boolean(version.automatic), revision, at };
      }),
    };
  }

  /**
   * Takes an archive in: every project of it that can be read, under an id that is free, with its photos and versions;
   * those that cannot be read are named with the reason.
   */
  async takeIn(archive: Uint8Array): Promise<TakenIn> {
    const files = await this.unpacked(archive);
    const at = (name: string): Uint8Array =>
      (Object.hasOwn(files, name) ? files[name] : undefined) ?? refuse(`${name} is not in the archive.`, name);
    const read = indexSchema.safeParse(this.json(at('index.json')));
    if (!read.success) return refuse('index.json is none of Nest Plank.', 'index.json');
    const refused: Refused[] = [];
    const made = read.data.projects.flatMap(
      (entry) => readOr(refused, entry.file, () => unpackedProject(entry, at, refused)) ?? [],
    );
    const [first] = refused;
    if (made.length === 0 && first) return refuse(`${first.file}: ${first.why}`, first.file);
    const ids = await this.projects.importAll(
      made.map(({ file }) => file),
      async (manager, taken) => {
        for (const [i, { photos, versions, revision }] of made.entries()) {
          const projectId = taken[i] ?? '';
          for (const photo of photos) await manager.insert(PhotoEntity, { ...photo, projectId });
          for (const version of versions)
            await manager.insert(VersionEntity, { ...version, id: randomUUID(), projectId });
          // what comes now comes after the versions there are
          await manager.update(ProjectEntity, { id: projectId }, { revision });
        }
      },
    );
    return { ids, refused };
  }

  private unpacked(archive: Uint8Array): Promise<Unzipped> {
    let bytes = 0;
    return new Promise((resolve, reject) => {
      const none = (): void =>
        reject(
          new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', 'This is not an archive that can be read.', {
            place: 'archive',
          }),
        );
      const filter = ({ originalSize }: { readonly originalSize: number }): boolean =>
        (bytes += originalSize) <= MOST_BYTES;
      try {
        unzip(archive, { filter }, (problem, files) => (problem ? none() : resolve(files)));
      } catch {
        none();
      }
    });
  }

  private json(bytes: Uint8Array): unknown {
    try {
      return JSON.parse(strFromU8(bytes)) as unknown;
    } catch {
      return refuse('index.json is not JSON.', 'index.json');
    }
  }
}
