import { Global, Module } from '@nestjs/common';
import { LongWork } from './long-work.js';

/** The thread for long work, for every module that has some. */
@Global()
@Module({ providers: [LongWork], exports: [LongWork] })
export class LongWorkModule {}
