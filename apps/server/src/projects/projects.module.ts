import { Module } from '@nestjs/common';
import { PricesModule } from '../prices/prices.module.js';
import { CompareController } from './compare.controller.js';
import { ProjectsController } from './projects.controller.js';
import { ProjectsService } from './projects.service.js';
import { StepStore } from './step-store.js';
import { VersionsService } from './versions.service.js';

@Module({
  imports: [PricesModule],
  controllers: [ProjectsController, CompareController],
  providers: [ProjectsService, StepStore, VersionsService],
  exports: [ProjectsService],
})
export class ProjectsModule {}
