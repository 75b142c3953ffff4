import { createRequire } from 'node:module';
import { readFile } from 'node:fs/promises';
import { strToU8, zipSync } from 'fflate';
import { derive, DERIVE_KIT, type Derived } from '@nestplank/core/derive';
import type { PriceBook, Project } from '@nestplank/core/document';
import { floorCards, floorOutlines } from '@nestplank/core/layout';
import { templateParts } from '@nestplank/core/lining';
import { sheetLetter } from '@nestplank/core/plan';
import { projectFileText } from '@nestplank/core/formats';
import { PLAIN_VOICE } from '@nestplank/core/words';

/** A file that cannot be made as it was asked for. */
export class MakeError extends Error {
  constructor(
    message: string,
    readonly place: string,
  ) {
    super(message);
  }
}

/** The writers are loaded when a file is asked for: the PDF library is large. */
const writers = () => import('@nestplank/core/export');

export interface Made {
  readonly name: string;
  readonly type: string;
  readonly content: string | Uint8Array;
}
interface Source {
  /** Where the application is reached, for codes that are scanned. */
  readonly base: string;
  readonly query: Readonly<Record<string, unknown>>;
  readonly project: Project;
  readonly priceBook: PriceBook;
  /** Worked out when a file asks for it: a project can be taken out whatever follows from it. */
  readonly derived: Derived;
}

const font = (weight: 400 | 700): Promise<Uint8Array> =>
  readFile(
    createRequire(import.meta.url).resolve(
      `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
    ),
  );
const zipped = (
  parts: Derived['parts'],
  ending: string,
  write: (part: Derived['parts'][number]) => string,
): Uint8Array => zipSync(Object.fromEntries(parts.map((part) => [`${part.id}.${ending}`, strToU8(write(part))])));

const fonts = async () => ({ regular: await font(400), bold: await font(700) });

function refuse(why: string, place: string): never {
  throw new MakeError(why, place);
}

/** One part, or what a unit covers of the floor, at full size; which part and which paper stand in the query. */
async function template({ project, derived, query }: Source): Promise<Made> {
  const { PAPERS, TEMPLATE_PAGES, templatePages, templatePdf } = await writers();
  const room = derived.inner ?? derived.shell;
  const cards = room ? floorCards(floorOutlines(project.layout.units, room)) : [];
  const part = [...templateParts(derived), ...cards].find((candidate) => candidate.id === query['part']);
  if (!part) refuse(`There is no part “${String(query['part'] ?? '')}”.`, 'part');
  const wanted = query['paper'] ?? 'a4';
  const paper = (Object.keys(PAPERS) as (keyof typeof PAPERS)[]).find((name) => name === wanted);
  if (!paper) refuse(`“${String(wanted)}” is no paper; ${Object.keys(PAPERS).join(', ')} are.`, 'paper');
  const pages = templatePages(part, paper);
  if (pages > TEMPLATE_PAGES.most)
    refuse(
      `Its template takes ${pages} pages; no more than ${TEMPLATE_PAGES.most} are made. Take a larger paper, or plot it by its offsets.`,
      'paper',
    );
  if (pages > TEMPLATE_PAGES.asked && query['pages'] !== String(pages))
    refuse(`Its template takes ${pages} pages. Ask for pages=${pages} to have them made.`, 'pages');
  return {
    name: `${project.id}-${part.id}-template.pdf`,
    type: 'application/pdf',
    content: await templatePdf(project, part, derived.parts, paper, await fonts()),
  };
}

/** The files that can be asked for, by their ending. */
const MAKERS: Readonly<Record<string, (source: Source) => Promise<Made> | Made>> = {
  json: ({ project, priceBook }) => ({
    name: `${project.id}.json`,
    type: 'application/json',
    content: projectFileText(project, priceBook),
  }),
  csv: async ({ project, priceBook, derived }) => ({
    name: `${project.id}-cut-list.csv`,
    type: 'text/csv',
    content: (await writers()).cutListCsv(derived.parts, project, priceBook),
  }),
  dxf: async ({ project, derived }) => ({
    name: `${project.id}-parts-dxf.zip`,
    type: 'application/zip',
    content: zipped(derived.parts, 'dxf', (await writers()).partDxf),
  }),
  'dxf-r12': async ({ project, derived }) => {
    const { partDxfR12, sheetDxfR12 } = await writers();
    const files = [
      ...derived.parts.map((part): [string, Uint8Array] => [`parts/${part.id}.dxf`, strToU8(partDxfR12(part))]),
      ...derived.plans.flatMap(({ material, sheets }) =>
        sheets.map((sheet, i): [string, Uint8Array] => [
          `sheets/${material.id}-${sheetLetter(i)}.dxf`,
          strToU8(sheetDxfR12(sheet, derived.parts)),
        ]),
      ),
    ];
    return { name: `${project.id}-dxf-r12.zip`, type: 'application/zip', content: zipSync(Object.fromEntries(files)) };
  },
  svg: async ({ project, derived }) => ({
    name: `${project.id}-parts-svg.zip`,
    type: 'application/zip',
    content: zipped(derived.parts, 'svg', (await writers()).partSvg),
  }),
  sheets: async ({ project, derived }) => {
    const { sheetDxf, sheetSvg } = await writers();
    const files = derived.plans.flatMap(({ material, sheets }) =>
      sheets.flatMap((sheet, i): [string, Uint8Array][] => [
        [`${material.id}-${sheetLetter(i)}.dxf`, strToU8(sheetDxf(sheet, derived.parts))],
        [`${material.id}-${sheetLetter(i)}.svg`, strToU8(sheetSvg(sheet, derived.parts))],
      ]),
    );
    return { name: `${project.id}-sheets.zip`, type: 'application/zip', content: zipSync(Object.fromEntries(files)) };
  },
  readings: async ({ project, derived }) => ({
    name: `${project.id}-readings.csv`,
    type: 'text/csv',
    content: (await import('@nestplank/core/exchange')).readingsCsv(project.survey, derived.walk),
  }),
  survey: async ({ project }) => ({
    name: `${project.id}-survey-sheet.pdf`,
    type: 'application/pdf',
    content: await (await writers()).surveySheetPdf(project, { regular: await font(400), bold: await font(700) }),
  }),
  labels: async ({ project, priceBook, derived, base }) => ({
    name: `${project.id}-labels.pdf`,
    type: 'application/pdf',
    content: await (
      await writers()
    ).labelsPdf(
      project,
      derived.parts,
      (part) => `${base}/build/${project.id}/build?part=${encodeURIComponent(part.id)}`,
      priceBook,
      await fonts(),
    ),
  }),
  shopping: async ({ project, priceBook, derived }) => ({
    name: `${project.id}-to-buy.pdf`,
    type: 'application/pdf',
    content: await (await writers()).shoppingPdf(project, derived.shopping, priceBook, await fonts()),
  }),
  ics: async ({ project, priceBook, query }) => {
    const { date } = query;
    if (
      date !== undefined &&
      !(typeof date === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(date) && !Number.isNaN(Date.parse(date)))
    )
      refuse(`“${String(date)}” is no date such as 2026-12-01.`, 'date');
    const { schedule } = derive(project, priceBook, DERIVE_KIT, date ?? null);
    const { units, fraction } = project.settings;
    return {
      name: `${project.id}-days.ics`,
      type: 'text/calendar',
      content: (await writers()).scheduleIcs(project, schedule, project.settings.startDate, {
        ...PLAIN_VOICE,
        lengths: { units, fraction },
      }),
    };
  },
  template,
  pdf: async ({ project, priceBook, derived }) => ({
    name: `${project.id}-cut-diagrams.pdf`,
    type: 'application/pdf',
    content: await (
      await writers()
    ).cutDiagramsPdf(
      project,
      derived.plans,
      derived.parts,
      priceBook,
      { regular: await font(400), bold: await font(700) },
      derived.floor.finish,
    ),
  }),
};

/** What has to be known to make a file; it can be sent to a thread. */
export interface FileJob {
  readonly format: string;
  readonly base: string;
  readonly query: Readonly<Record<string, unknown>>;
  readonly project: Project;
  readonly priceBook: PriceBook;
}

/** The endings that can be asked for. */
export const FILE_FORMATS: readonly string[] = Object.keys(MAKERS);

/** Makes a file. @throws MakeError when it cannot be made as it was asked for */
export async function makeFile({ format, ...source }: FileJob): Promise<Made> {
  const maker = Object.hasOwn(MAKERS, format) ? MAKERS[format] : undefined;
  if (!maker) refuse(`“${format}” cannot be written; ${FILE_FORMATS.join(', ')} can.`, 'format');
  let derived: Derived | null = null;
  return maker({
    ...source,
    get derived() {
      return (derived ??= derive(source.project, source.priceBook));
    },
  });
}
