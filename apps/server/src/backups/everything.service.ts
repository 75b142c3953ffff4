import { HttpStatus, Injectable } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { strFromU8, strToU8, unzip, zip, type AsyncZippable, type Unzipped } from 'fflate';
import { z } from 'zod';
import { projectFileText, readProjectFile } from '@nestplank/core/formats';
import { PhotoEntity } from '../database/entities.js';
import { Transactions } from '../database/transactions.js';
import { ProjectsService } from '../projects/projects.service.js';
import { RefusedError } from '../refusals.js';

/** No archive holds more than this once it is unpacked, bytes. */
const MOST_BYTES = 1_000_000_000;

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
          .max(1000),
      }),
    )
    .max(2000),
});
type Index = z.infer<typeof indexSchema>;

const refuse = (why: string, place: string): never => {
  throw new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', why, { place });
};

/** All projects with their prices and photos as an archive of open files, and such an archive taken in. */
@Injectable()
export class EverythingService {
  constructor(
    private readonly transactions: Transactions,
    private readonly projects: ProjectsService,
  ) {}

  async archive(): Promise<Uint8Array> {
    const files: AsyncZippable = {};
    const index: Index = { format: 'nest-plank-everything', version: 1, at: new Date().toISOString(), projects: [] };
    for (const { id } of await this.projects.list()) {
      const { project, priceBook } = await this.projects.view(id);
      const photos = await this.transactions.read((manager) => manager.findBy(PhotoEntity, { projectId: id }));
      const file = `projects/${id}.json`;
      files[file] = strToU8(projectFileText(project, priceBook));
      index.projects.push({
        file,
        photos: photos.map((photo) => {
          const [large, small] = [`photos/${id}/${photo.id}.webp`, `photos/${id}/${photo.id}-small.webp`];
          // pictures are packed already
          files[large] = [new Uint8Array(photo.large), { level: 0 }];
          files[small] = [new Uint8Array(photo.small), { level: 0 }];
          return { id: photo.id, width: photo.width, height: photo.height, at: photo.at, large, small };
        }),
      });
    }
    files['index.json'] = strToU8(JSON.stringify(index, null, 2));
    // packed in threads: saves go on meanwhile
    return new Promise((resolve, reject) =>
      zip(files, (problem, archive) => (problem ? reject(problem) : resolve(archive))),
    );
  }

  /** Takes an archive in: every project of it under an id that is free, with its photos; all or none. */
  async takeIn(archive: Uint8Array): Promise<{ ids: string[] }> {
    const files = await this.unpacked(archive);
    const at = (name: string): Uint8Array => files[name] ?? refuse(`${name} is not in the archive.`, name);
    const read = indexSchema.safeParse(this.json(at('index.json')));
    if (!read.success) return refuse('index.json is none of Nest Plank.', 'index.json');
    const made = read.data.projects.map(({ file, photos }) => {
      const { project, priceBook } = readProjectFile(strFromU8(at(file)));
      const ids = new Map(photos.map((photo) => [photo.id, randomUUID()]));
      const found = project.survey.found.map((find) => ({
        ...find,
        photo: find.photo === null ? null : (ids.get(find.photo) ?? null),
      }));
      return {
        text: projectFileText({ ...project, survey: { ...project.survey, found } }, priceBook),
        photos: photos.map((photo) => ({
          id: ids.get(photo.id) ?? randomUUID(),
          width: photo.width,
          height: photo.height,
          at: photo.at,
          large: Buffer.from(at(photo.large)),
          small: Buffer.from(at(photo.small)),
        })),
      };
    });
    const ids = await this.projects.importAll(
      made.map(({ text }) => text),
      async (manager, taken) => {
        for (const [i, { photos }] of made.entries())
          for (const photo of photos) await manager.insert(PhotoEntity, { ...photo, projectId: taken[i] ?? '' });
      },
    );
    return { ids };
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
