import { Controller, Get, HttpStatus, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { VehicleMeasures } from '@nestplank/core/derive';
import { LongWork } from '../files/long-work.js';
import { RefusedError } from '../refusals.js';
import { ProjectsService } from './projects.service.js';

const MOST = 12;

@ApiTags('projects')
@Controller('compare')
export class CompareController {
  constructor(
    private readonly projects: ProjectsService,
    private readonly longWork: LongWork,
  ) {}

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
