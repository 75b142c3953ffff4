import { Module } from '@nestjs/common';
import { ProjectsModule } from '../projects/projects.module.js';
import { FilesController } from './files.controller.js';

@Module({ imports: [ProjectsModule], controllers: [FilesController] })
export class FilesModule {}
