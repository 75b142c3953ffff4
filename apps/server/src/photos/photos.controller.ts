import { Controller, Get, HttpStatus, Param, Post, Query, Res, UploadedFile, UseInterceptors } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { RefusedError } from '../refusals.js';
import { PhotosService } from './photos.service.js';

const LARGEST_PHOTO = 20 * 1024 * 1024;

@ApiTags('photos')
@Controller()
export class PhotosController {
  constructor(private readonly photos: PhotosService) {}

  @Post('projects/:id/photos')
  @ApiConsumes('multipart/form-data')
  @ApiOperation({ summary: 'Keep a photo with a project (field `photo`, up to 20 MB)' })
  @UseInterceptors(FileInterceptor('photo', { limits: { fileSize: LARGEST_PHOTO, files: 1 } }))
  add(@Param('id') id: string, @UploadedFile() file: Express.Multer.File | undefined) {
    if (!file) throw new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', 'No photo was sent.', { place: 'photo' });
    return this.photos.add(id, file.buffer);
  }

  @Get('photos/:id')
  @ApiOperation({ summary: 'A photo, whole or small' })
  async image(
    @Param('id') id: string,
    @Query('size') size: string | undefined,
    @Res() response: Response,
  ): Promise<void> {
    const image = await this.photos.image(id, size === 'small');
    response.type('image/webp').set('Cache-Control', 'private, max-age=31536000, immutable').send(image);
  }
}
