import { Controller, Get, HttpStatus, Post, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
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
  @ApiOperation({ summary: 'All projects with prices and photos as a zip of open files' })
  async archive(@Res() response: Response): Promise<void> {
    const content = await this.everything.archive();
    response.type('application/zip').attachment('nest-plank-everything.zip').send(Buffer.from(content));
  }

  @Post()
  @ApiConsumes('multipart/form-data')
  @ApiOperation({ summary: 'Take such a zip in (field `archive`): its projects are added, all or none' })
  @UseInterceptors(FileInterceptor('archive', { limits: { fileSize: LARGEST_ARCHIVE, files: 1 } }))
  takeIn(@UploadedFile() file: Express.Multer.File | undefined) {
    if (!file) throw new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', 'No archive was sent.', { place: 'archive' });
    return this.everything.takeIn(file.buffer);
  }
}
