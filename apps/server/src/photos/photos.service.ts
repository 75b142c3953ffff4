import { randomUUID } from 'node:crypto';
import { HttpStatus, Injectable } from '@nestjs/common';
import { IsNull } from 'typeorm';
import type { PhotoView } from '@nestplank/contract';
import { PhotoEntity, ProjectEntity } from '../database/entities.js';
import { Transactions } from '../database/transactions.js';
import { notFound, RefusedError } from '../refusals.js';

const LARGE_PX = 1600;
const SMALL_PX = 320;
/** As many photos as one project keeps; each is at most a few hundred kB once it is made smaller. */
export const MOST_PHOTOS = 1000;

/** Photos of a project: turned upright, made small enough, and freed of where they were taken. */
@Injectable()
export class PhotosService {
  constructor(private readonly transactions: Transactions) {}

  async add(projectId: string, file: Buffer): Promise<PhotoView> {
    // loaded when the first photo comes: the library is large
    const { default: sharp } = await import('sharp');
    let large: { data: Buffer; info: { width: number; height: number } };
    let small: Buffer;
    try {
      const upright = sharp(file, { limitInputPixels: 120_000_000 }).rotate();
      large = await upright
        .clone()
        .resize({ width: LARGE_PX, height: LARGE_PX, fit: 'inside', withoutEnlargement: true })
        .webp({ quality: 82 })
        .toBuffer({ resolveWithObject: true });
      small = await upright.clone().resize({ width: SMALL_PX, height: SMALL_PX, fit: 'inside' }).webp().toBuffer();
    } catch {
      throw new RefusedError(HttpStatus.BAD_REQUEST, 'invalid', 'This is not a picture that can be read.', {
        place: 'photo',
      });
    }
    const view: PhotoView = {
      id: randomUUID(),
      width: large.info.width,
      height: large.info.height,
      at: new Date().toISOString(),
    };
    await this.transactions.run(async (manager) => {
      if (!(await manager.existsBy(ProjectEntity, { id: projectId, deletedAt: IsNull() })))
        throw notFound('project', projectId);
      if ((await manager.countBy(PhotoEntity, { projectId })) >= MOST_PHOTOS)
        throw new RefusedError(
          HttpStatus.PAYLOAD_TOO_LARGE,
          'too-large',
          `A project keeps at most ${MOST_PHOTOS} photos. Nothing was changed.`,
          { place: 'photo' },
        );
      await manager.insert(PhotoEntity, { ...view, projectId, large: large.data, small });
    });
    return view;
  }

  async image(id: string, small: boolean): Promise<Buffer> {
    const photo = await this.transactions.read((manager) =>
      manager.findOne(PhotoEntity, {
        where: { id },
        select: small ? { id: true, small: true } : { id: true, large: true },
      }),
    );
    if (!photo) throw notFound('photo', id);
    return small ? photo.small : photo.large;
  }
}
