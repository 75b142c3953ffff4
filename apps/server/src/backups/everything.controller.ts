import { Controller, Get, HttpStatus, Param, Post, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { RefusedError } from '../refusals.js';
import { EverythingService } from './everything.service.js';

const LARGEST_ARCHIVE = 500 * 1024 * 1024;

@ApiTags('backups')
@Controller('everything')
export class EverythingController {
  constructor(private readonly everything: EverythingService) {}

  @Get()
  @ApiOperation({ summary: 'All projects with prices, photos and versions as a zip of open files' })
  async archive(@Res() response: Response): Promise<void> {
    const content = await this.everything.archive();
    response.type('application/zip').attachment('nest-plank-everything.zip').send(Buffer.from(content));
  }

  @Get(':id')
  @ApiOperation({ summary: 'One project in the same way' })
  async one(@Param('id') id: string, @Res() response: Response): Promise<void> {
    const content = await this.everything.archive(id);
    response.type('application/zip').attachment(`${id}.zip`).send(Buffer.from(content));
  }

  @Post()
  @ApiConsumes('multipart/form-data')
  @ApiOperation({
    summary: 'Take such a zip in (field `archive`): its projects are added; those that cannot be read are named',
  })
  @UseInterceptors(FileInterceptor('archive', { limits: { fileSize: LARGEST_ARCHIVE, files: 1 } }))
  takeIn(@UploadedFile() file: Express.Multer.File | undefined) {
    if (!file) throw new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', 'No archive was sent.', { place: 'archive' });
    return this.everything.takeIn(file.buffer);
  }
}
