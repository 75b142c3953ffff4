import type {
  BackupsView,
  BackupView,
  BinItem,
  CreateProjectDto,
  ConnectDto,
  InstrumentKind,
  InstrumentState,
  PhotoView,
  PostStepsDto,
  ProjectListItem,
  ProjectView,
  Refusal,
  StepsResult,
  TakenIn,
  VersionView,
  RepriceDto,
} from '@nestplank/contract';
import type { VehicleMeasures, SmallFoldOut } from '@nestplank/core/derive';
import type { PriceBook, PriceItem, Project } from '@nestplank/core/document';

/** The server said no, in its own words. */
export class RefusedError extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.message);
  }
}
/** The server was not heard at all. */
export class UnreachableError extends Error {}

async function answerOf<T>(response: Response): Promise<T> {
  if (response.status === 204 || response.status === 202) return undefined as T;
  let answer: unknown;
  try {
    const text = await response.text();
    answer = text === '' ? null : JSON.parse(text);
  } catch {
    // an answer that was cut short says nothing, whatever its status: what was asked is asked again
    throw new UnreachableError(`status ${response.status}, cut short`);
  }
  if (response.ok) return answer as T;
  if (answer === null) throw new UnreachableError(`status ${response.status}`);
  throw new RefusedError(answer as Refusal);
}

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api/${path}`, {
      method,
      headers: body === undefined ? {} : { 'content-type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch (problem) {
    throw new UnreachableError(problem instanceof Error ? problem.message : '');
  }
  return answerOf<T>(response);
}

/** Fetches a file that the server makes. @throws RefusedError with what stands in the way */
export async function fetched(address: string, signal: AbortSignal): Promise<{ name: string; content: Blob }> {
  const response = await fetch(address, { signal });
  if (!response.ok) return answerOf<never>(response);
  const name = /filename="?([^";]+)"?/.exec(response.headers.get('content-disposition') ?? '')?.[1];
  return { name: name ?? 'file', content: await response.blob() };
}

/** Sends a file in a field of its own. */
async function upload<T>(path: string, field: string, file: File): Promise<T> {
  const body = new FormData();
  body.append(field, file);
  let response: Response;
  try {
    response = await fetch(`/api/${path}`, { method: 'POST', body });
  } catch (problem) {
    throw new UnreachableError(problem instanceof Error ? problem.message : '');
  }
  return answerOf<T>(response);
}

const at = (id: string): string => `projects/${encodeURIComponent(id)}`;

export const api = {
  list: () => call<ProjectListItem[]>('GET', 'projects'),
  create: (wanted: CreateProjectDto) => call<{ id: string }>('POST', 'projects', wanted),
  import: (text: string) => call<{ id: string }>('POST', 'projects/import', { text }),
  bin: () => call<BinItem[]>('GET', 'projects/bin'),
  bringBack: (id: string) => call<undefined>('POST', `${at(id)}/bring-back`),
  backups: () => call<BackupsView>('GET', 'backups'),
  makeBackup: () => call<BackupView>('POST', 'backups'),
  restoreBackup: (name: string) => call<BackupView | null>('POST', `backups/${encodeURIComponent(name)}/restore`),
  backupAddress: (name: string) => `/api/backups/${encodeURIComponent(name)}`,
  remove: (id: string) => call<undefined>('DELETE', at(id)),
  /** @param steps steps of which it is not known whether they are done: the answer names those that are */
  view: (id: string, steps: readonly string[] = []) =>
    steps.length === 0 ? call<ProjectView>('GET', at(id)) : call<ProjectView>('POST', `${at(id)}/view`, { steps }),
  post: (id: string, steps: PostStepsDto) => call<StepsResult>('POST', `${at(id)}/operations`, steps),
  versions: (id: string) => call<VersionView[]>('GET', `${at(id)}/versions`),
  keepVersion: (id: string, name: string) => call<VersionView>('POST', `${at(id)}/versions`, { name }),
  version: (id: string, version: string) => call<Project>('GET', `${at(id)}/versions/${version}`),
  putPrice: (book: string, item: PriceItem) =>
    call<PriceBook>('PUT', `price-books/${book}/items/${encodeURIComponent(item.id)}`, item),
  removePrice: (book: string, id: string) =>
    call<PriceBook>('DELETE', `price-books/${book}/items/${encodeURIComponent(id)}`),
  takePrices: (book: string, items: readonly PriceItem[]) =>
    call<PriceBook>('PUT', `price-books/${book}/items`, { items }),
  reprice: (book: string, level: RepriceDto) => call<PriceBook>('PUT', `price-books/${book}/level`, level),
  small: (id: string) => call<{ small: SmallFoldOut | null }>('GET', `compare/small/${encodeURIComponent(id)}`),
  compare: (ids: readonly string[]) =>
    call<VehicleMeasures[]>('GET', `compare?ids=${ids.map(encodeURIComponent).join(',')}`),
  link: (id: string, kind: InstrumentKind, options: ConnectDto = {}) =>
    call<InstrumentState>('POST', `${at(id)}/devices/${kind}/link`, options),
  unlink: (id: string, kind: InstrumentKind) => call<undefined>('DELETE', `${at(id)}/devices/${kind}/link`),
  click: (id: string, kind: InstrumentKind, address: string) =>
    call<undefined>('POST', `${at(id)}/devices/${kind}/click`, { address }),
  streamAddress: (id: string, kind: InstrumentKind) => `/api/${at(id)}/devices/${kind}/stream`,
  addPhoto: (id: string, file: File) => upload<PhotoView>(`${at(id)}/photos`, 'photo', file),
  everythingAddress: '/api/everything',
  wholeAddress: (id: string) => `/api/everything/${encodeURIComponent(id)}`,
  takeEverything: (file: File) => upload<TakenIn>('everything', 'archive', file),
  photoAddress: (photo: string, small: boolean) => `/api/photos/${photo}${small ? '?size=small' : ''}`,
  fileAddress: (id: string, format: string) => `/api/${at(id)}/files/${format}`,
  /** The days ahead as a calendar file, as they are on a day. */
  calendarAddress: (id: string, date: string) => `/api/${at(id)}/files/ics?date=${date}`,
};
