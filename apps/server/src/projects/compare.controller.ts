import { Controller, Get, HttpStatus, Param, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { SmallFoldOut, VehicleMeasures } from '@nestplank/core/derive';
import { LongWork } from '../files/long-work.js';
import { RefusedError } from '../refusals.js';
import { ProjectsService } from './projects.service.js';

const MOST = 12;
/** Small fold-outs that are kept at most. */
const REMEMBERED = 200;

@ApiTags('projects')
@Controller('compare')
export class CompareController {
  constructor(
    private readonly projects: ProjectsService,
    private readonly longWork: LongWork,
  ) {}

  /** Small fold-outs as they were last drawn, by project, for the revision they are of. */
  private readonly drawn = new Map<string, { readonly revision: number; readonly small: SmallFoldOut | null }>();

  @Get('small/:id')
  @ApiOperation({ summary: 'A build unfolded small, and how far it has got; null before anything is measured' })
  async small(@Param('id') id: string): Promise<{ small: SmallFoldOut | null }> {
    const view = await this.projects.view(id).catch((problem: unknown) => {
      // a build that cannot be opened is listed all the same, and one may have been removed meanwhile; opening it says why
      if (problem instanceof RefusedError) return null;
      throw problem;
    });
    if (!view) return { small: null };
    const { project, priceBook, revision } = view;
    const known = this.drawn.get(id);
    if (known?.revision === revision) return { small: known.small };
    const small = await this.longWork.run<SmallFoldOut | null>({ kind: 'small', project, priceBook });
    if (this.drawn.size >= REMEMBERED) this.drawn.clear();
    this.drawn.set(id, { revision, small });
    return { small };
  }

  @Get()
  @ApiOperation({ summary: 'Net measures of several vehicles: `?ids=a,b,c`, all of them without it' })
  async compare(@Query('ids') ids: unknown): Promise<VehicleMeasures[]> {
    if (ids !== undefined && typeof ids !== 'string')
      throw new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', 'Name the vehicles once: ids=a,b,c.', { place: 'ids' });
    const wanted = ids
      ? [...new Set(ids.split(',').filter(Boolean))]
      : (await this.projects.list()).map((item) => item.id).slice(0, MOST);
    if (wanted.length > MOST)
      throw new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', `At most ${MOST} vehicles are compared.`, {
        place: 'ids',
      });
    const views = await Promise.all(wanted.map((id) => this.projects.view(id)));
    const measures: VehicleMeasures[] = [];
    for (const { project, priceBook } of views)
      measures.push(await this.longWork.run<VehicleMeasures>({ kind: 'measures', project, priceBook }));
    return measures;
  }
}
