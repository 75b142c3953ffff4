import { randomUUID } from 'node:crypto';
import { HttpStatus, Injectable } from '@nestjs/common';
import { Semaphore } from 'async-mutex';
import { IsNull } from 'typeorm';
import type { PhotoView } from '@nestplank/contract';
import { PhotoEntity, ProjectEntity } from '../database/entities.js';
import { Transactions } from '../database/transactions.js';
import { notFound, RefusedError } from '../refusals.js';

const LARGE_PX = 1600;
const SMALL_PX = 320;
/** What a camera or a phone writes; a drawing is worked out by whoever opens it, and may take as long as it likes. */
const DRAWINGS = ['VipsForeignLoadSvg', 'VipsForeignLoadPdf', 'VipsForeignLoadMagick', 'VipsForeignLoadOpenslide'];
/** No picture takes longer to be made smaller, s; so many are at it at once, and so many wait. */
const LONGEST_S = 20;
const AT_ONCE = 2;
const MOST_WAITING = 12;
/** As many photos as one project keeps; each is at most a few hundred kB once it is made smaller. */
export const MOST_PHOTOS = 1000;

/** Photos of a project: turned upright, made small enough, and freed of where they were taken. */
@Injectable()
export class PhotosService {
  private readonly turns = new Semaphore(AT_ONCE);
  private waiting = 0;

  constructor(private readonly transactions: Transactions) {}

  async add(projectId: string, file: Buffer): Promise<PhotoView> {
    if (this.waiting >= AT_ONCE + MOST_WAITING)
      throw new RefusedError(
        HttpStatus.TOO_MANY_REQUESTS,
        'failed',
        'Too many pictures are being made smaller. Send it again shortly.',
      );
    this.waiting += 1;
    try {
      return await this.turns.runExclusive(() => this.smaller(projectId, file));
    } finally {
      this.waiting -= 1;
    }
  }

  private async smaller(projectId: string, file: Buffer): Promise<PhotoView> {
    // loaded when the first photo comes: the library is large
    const { default: sharp } = await import('sharp');
    sharp.block({ operation: DRAWINGS });
    let large: { data: Buffer; info: { width: number; height: number } };
    let small: Buffer;
    try {
      const upright = sharp(file, { limitInputPixels: 120_000_000 }).timeout({ seconds: LONGEST_S }).rotate();
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
