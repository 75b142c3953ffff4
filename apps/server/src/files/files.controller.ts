import { Controller, Get, HttpStatus, Param, Query, Req, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { projectFileText } from '@nestplank/core/formats';
import { ProjectsService } from '../projects/projects.service.js';
import { RefusedError } from '../refusals.js';
import { LongWork } from './long-work.js';
import { FILE_FORMATS, type Made } from './make-file.js';

@ApiTags('files')
@Controller('projects/:id/files')
export class FilesController {
  constructor(
    private readonly projects: ProjectsService,
    private readonly longWork: LongWork,
  ) {}

  @Get(':format')
  @ApiOperation({
    summary:
      'The project as an open file: json, csv (cut list), dxf or svg (parts, zipped), pdf (cut diagrams), labels (PDF), sheets (DXF and SVG, zipped), template (PDF; part and paper in the query), readings (CSV), survey (sheet to write on, PDF)',
  })
  async file(
    @Param('id') id: string,
    @Param('format') format: string,
    @Query() query: Record<string, unknown>,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    if (!FILE_FORMATS.includes(format))
      throw new RefusedError(
        HttpStatus.BAD_REQUEST,
        'invalid',
        `“${format}” cannot be written; ${FILE_FORMATS.join(', ')} can.`,
        { place: 'format' },
      );
    const { project, priceBook } = await this.projects.view(id);
    const left = new AbortController();
    response.once('close', () => left.abort());
    const base = `${request.protocol}://${request.get('host') ?? 'localhost'}`;
    const made: Made =
      // a project can be taken out whatever can be worked out from it
      format === 'json'
        ? { name: `${project.id}.json`, type: 'application/json', content: projectFileText(project, priceBook) }
        : await this.longWork.run<Made>(
            { kind: 'file', job: { format, base, query, project, priceBook } },
            left.signal,
          );
    response
      .type(made.type)
      .attachment(made.name)
      .send(typeof made.content === 'string' ? made.content : Buffer.from(made.content));
  }
}
