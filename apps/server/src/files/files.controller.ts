import { createRequire } from 'node:module';
import { readFile } from 'node:fs/promises';
import { Controller, Get, HttpStatus, Param, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { strToU8, zipSync } from 'fflate';
import { derive, type Derived, type PriceBook, type Project } from '@nestplank/core';
import { projectFileText } from '@nestplank/core/formats';
import { ProjectsService } from '../projects/projects.service.js';
import { RefusedError } from '../refusals.js';

/** The writers are loaded when a file is asked for: the PDF library is large. */
const writers = () => import('@nestplank/core/export');

interface Made {
  readonly name: string;
  readonly type: string;
  readonly content: string | Uint8Array;
}
interface Source {
  readonly project: Project;
  readonly priceBook: PriceBook;
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
  svg: async ({ project, derived }) => ({
    name: `${project.id}-parts-svg.zip`,
    type: 'application/zip',
    content: zipped(derived.parts, 'svg', (await writers()).partSvg),
  }),
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
  pdf: async ({ project, priceBook, derived }) => ({
    name: `${project.id}-cut-diagrams.pdf`,
    type: 'application/pdf',
    content: await (
      await writers()
    ).cutDiagramsPdf(project, derived.plans, priceBook, {
      regular: await font(400),
      bold: await font(700),
    }),
  }),
};

@ApiTags('files')
@Controller('projects/:id/files')
export class FilesController {
  constructor(private readonly projects: ProjectsService) {}

  @Get(':format')
  @ApiOperation({
    summary:
      'The project as an open file: json, csv (cut list), dxf or svg (parts, zipped), pdf (cut diagrams), readings (CSV), survey (sheet to write on, PDF)',
  })
  async file(@Param('id') id: string, @Param('format') format: string, @Res() response: Response): Promise<void> {
    const maker = MAKERS[format];
    if (!maker)
      throw new RefusedError(
        HttpStatus.BAD_REQUEST,
        'invalid',
        `“${format}” cannot be written; json, csv, dxf, svg, pdf, readings and survey can.`,
        { place: 'format' },
      );
    const { project, priceBook } = await this.projects.view(id);
    const made = await maker({ project, priceBook, derived: derive(project, priceBook) });
    response
      .type(made.type)
      .attachment(made.name)
      .send(typeof made.content === 'string' ? made.content : Buffer.from(made.content));
  }
}
