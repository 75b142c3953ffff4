import { Controller, Get, HttpStatus, Query } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { createDeriver, vehicleMeasures, type VehicleMeasures } from '@nestplank/core/derive';
import { RefusedError } from '../refusals.js';
import { ProjectsService } from './projects.service.js';

const MOST = 12;

@ApiTags('projects')
@Controller('compare')
export class CompareController {
  constructor(private readonly projects: ProjectsService) {}

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
    return views.map(({ project, priceBook }) =>
      vehicleMeasures(project, createDeriver().shape({ ...project, layout: { units: [] } }, priceBook)),
    );
  }
}
