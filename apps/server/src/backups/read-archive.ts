import { randomUUID } from 'node:crypto';
import { strFromU8, unzipSync, type Unzipped } from 'fflate';
import { z } from 'zod';
import type { TakenIn } from '@nestplank/contract';
import type { Project } from '@nestplank/core/document';
import { FormatError, readProjectFile } from '@nestplank/core/formats';

/** As many bytes as the files of one project, one picture, and all of an archive unpacked may have. */
const MOST_BYTES = { file: 24_000_000, photo: 24_000_000, index: 48_000_000, all: 1_000_000_000 };
/** As many projects, and photos and versions of each, as one archive holds. */
const MOST = { projects: 2000, photos: 1000, versions: 2000 };
/** A project that has been changed more often than this is none; steps after it are still counted exactly. */
const MOST_REVISION = 1_000_000_000;
/** No picture is larger than this on a side, pixels. */
const MOST_PIXELS = 20_000;
const side = z.int().min(1).max(MOST_PIXELS);
const at = z.iso.datetime();
const name = z.string().min(1).max(300);

const photoSchema = z.strictObject({ id: name, width: side, height: side, at, large: name, small: name });
const versionSchema = z.strictObject({
  file: name,
  name: z.string().max(200),
  automatic: z.boolean(),
  revision: z.int().min(0).max(MOST_REVISION),
  at,
});
const entrySchema = z.strictObject({
  file: name,
  photos: z.array(z.unknown()).max(MOST.photos),
  versions: z.array(z.unknown()).max(MOST.versions).default([]),
});
/** The list of what an archive holds. What is wrong with one photo or version is named by itself. */
const indexSchema = z.strictObject({
  format: z.literal('nest-plank-everything'),
  version: z.literal(1),
  at,
  projects: z.array(z.unknown()).max(MOST.projects),
});
export interface Index {
  readonly format: 'nest-plank-everything';
  readonly version: 1;
  readonly at: string;
  readonly projects: Entry[];
}
export interface Entry {
  readonly file: string;
  readonly photos: readonly z.infer<typeof photoSchema>[];
  readonly versions: readonly z.infer<typeof versionSchema>[];
}
type Refused = TakenIn['refused'][number];

/** An archive that holds nothing that can be taken in; says why, and of which file. */
export class ArchiveError extends Error {
  constructor(
    message: string,
    readonly file: string,
  ) {
    super(message);
  }
}

/** A project out of an archive, its photos under ids of their own. */
export interface ReadProject {
  readonly file: ReturnType<typeof readProjectFile>;
  readonly revision: number;
  readonly photos: readonly {
    readonly id: string;
    readonly width: number;
    readonly height: number;
    readonly at: string;
    readonly large: Uint8Array;
    readonly small: Uint8Array;
  }[];
  readonly versions: readonly {
    readonly name: string;
    readonly automatic: boolean;
    readonly revision: number;
    readonly at: string;
    readonly document: string;
  }[];
}
/** What is read of an archive next: a project with what belongs to it, or what of it cannot be read. */
export type Read =
  { readonly kind: 'project'; readonly project: ReadProject } | { readonly kind: 'refused'; readonly refused: Refused };

/** What is wrong with a value of the list, and where in it. */
const wrong = (error: z.ZodError): string =>
  error.issues
    .slice(0, 3)
    .map(({ path, message }) => `${path.join('.') || 'entry'}: ${message}`)
    .join('; ');
const fileOf = (entry: unknown, fallback: string): string => {
  const { file, large } = (typeof entry === 'object' && entry !== null ? entry : {}) as Record<string, unknown>;
  return typeof file === 'string' ? file : typeof large === 'string' ? large : fallback;
};

const isPicture = (bytes: Uint8Array): boolean =>
  strFromU8(bytes.subarray(0, 4), true) === 'RIFF' && strFromU8(bytes.subarray(8, 12), true) === 'WEBP';

/** The files of an archive, unpacked as they are asked for and no larger than they may be. */
class Files {
  private readonly sizes = new Map<string, number>();

  constructor(private readonly archive: Uint8Array) {
    let all = 0;
    unzipSync(archive, {
      filter: ({ name: own, originalSize }) => {
        all += originalSize;
        this.sizes.set(own, originalSize);
        return false;
      },
    });
    if (all > MOST_BYTES.all)
      throw new ArchiveError(
        `Unpacked it is ${Math.ceil(all / 1e6)} MB; at most ${MOST_BYTES.all / 1e6} are taken in at once.`,
        'archive',
      );
  }

  /** Those of the files named that are there and not too large. */
  read(names: readonly string[], most: number): Unzipped {
    const wanted = new Set(names.filter((own) => (this.sizes.get(own) ?? Infinity) <= most));
    return wanted.size === 0 ? {} : unzipSync(this.archive, { filter: ({ name: own }) => wanted.has(own) });
  }

  /** Why a file cannot be read that was not. */
  why(own: string, most: number): string {
    const size = this.sizes.get(own);
    if (size === undefined) return 'It is not in the archive.';
    return size > most
      ? `It is ${Math.ceil(size / 1e6)} MB; at most ${most / 1e6} are read.`
      : 'It cannot be unpacked.';
  }
}

/** A project that speaks of its photos by their new ids; of one that is not there it speaks no more. */
function renamed(project: Project, ids: ReadonlyMap<string, string>): Project {
  return {
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
  };
}

/** The photos of a project that are whole, by the ids they had. */
function* photosOf(
  list: readonly unknown[],
  files: Files,
  of: string,
): Generator<Refused, Map<string, ReadProject['photos'][number]>> {
  const found = new Map<string, ReadProject['photos'][number]>();
  for (const [i, one] of list.entries()) {
    const read = photoSchema.safeParse(one);
    const named = fileOf(one, `${of}, photo ${i + 1}`);
    if (!read.success) {
      yield { file: named, why: wrong(read.error) };
      continue;
    }
    const { id, width, height, at: taken, large, small } = read.data;
    const bytes = files.read([large, small], MOST_BYTES.photo);
    const missing = [large, small].find((own) => !Object.hasOwn(bytes, own));
    const [a, b] = [bytes[large], bytes[small]];
    if (missing !== undefined || !a || !b) {
      yield { file: missing ?? large, why: files.why(missing ?? large, MOST_BYTES.photo) };
      continue;
    }
    const odd = [large, small].find((own) => !isPicture(bytes[own] ?? new Uint8Array()));
    if (odd === undefined) found.set(id, { id: randomUUID(), width, height, at: taken, large: a, small: b });
    else yield { file: odd, why: 'It is not a picture as the application keeps them.' };
  }
  return found;
}

/**
 * Reads an archive one project after another, so that no more than one is held at a time: what of it cannot be read is named,
 * the rest is read.
 * @throws ArchiveError where nothing can be read at all
 */
export function* readArchive(archive: Uint8Array): Generator<Read> {
  let files: Files;
  try {
    files = new Files(archive);
  } catch (problem) {
    if (problem instanceof ArchiveError) throw problem;
    throw new ArchiveError('This is not an archive that can be read.', 'archive');
  }
  const list = files.read(['index.json'], MOST_BYTES.index)['index.json'];
  if (!list) throw new ArchiveError(files.why('index.json', MOST_BYTES.index), 'index.json');
  let value: unknown;
  try {
    value = JSON.parse(strFromU8(list));
  } catch {
    throw new ArchiveError('index.json is not JSON.', 'index.json');
  }
  const index = indexSchema.safeParse(value);
  if (!index.success) throw new ArchiveError('index.json is none of Nest Plank.', 'index.json');
  /** What a file holds as a project; the reason where it cannot be read. */
  const opened = (own: string): ReturnType<typeof readProjectFile> | string => {
    const bytes = files.read([own], MOST_BYTES.file)[own];
    if (!bytes) return files.why(own, MOST_BYTES.file);
    try {
      return readProjectFile(strFromU8(bytes));
    } catch (problem) {
      if (!(problem instanceof FormatError)) throw problem;
      return problem.message;
    }
  };
  for (const [i, one] of index.data.projects.entries()) {
    const entry = entrySchema.safeParse(one);
    const named = fileOf(one, `project ${i + 1}`);
    if (!entry.success) {
      yield { kind: 'refused', refused: { file: named, why: wrong(entry.error) } };
      continue;
    }
    const file = opened(entry.data.file);
    if (typeof file === 'string') {
      yield { kind: 'refused', refused: { file: named, why: file } };
      continue;
    }
    const refused: Refused[] = [];
    const reading = photosOf(entry.data.photos, files, named);
    let step = reading.next();
    for (; !step.done; step = reading.next()) refused.push(step.value);
    const photos = step.value;
    const ids = new Map([...photos].map(([before, { id }]) => [before, id]));
    const versions = entry.data.versions.flatMap((each, k) => {
      const read = versionSchema.safeParse(each);
      const own = fileOf(each, `${named}, version ${k + 1}`);
      const version = read.success ? opened(read.data.file) : wrong(read.error);
      if (typeof version === 'string' || !read.success) {
        refused.push({ file: own, why: typeof version === 'string' ? version : '' });
        return [];
      }
      const { name: called, automatic, revision, at: kept } = read.data;
      const document = JSON.stringify(renamed(version.project, ids));
      return [{ name: called, automatic, revision, at: kept, document }];
    });
    yield {
      kind: 'project',
      project: {
        file: { ...file, project: renamed(file.project, ids) },
        revision: versions.reduce((most, { revision }) => Math.max(most, revision), 0),
        photos: [...photos.values()],
        versions,
      },
    };
    for (const each of refused) yield { kind: 'refused', refused: each };
  }
}
