import { Module } from '@nestjs/common';
import { ProjectsModule } from '../projects/projects.module.js';
import { EverythingController } from './everything.controller.js';
import { EverythingService } from './everything.service.js';
import { BackupsController } from './backups.controller.js';
import { BackupsService } from './backups.service.js';

@Module({
  imports: [ProjectsModule],
  controllers: [BackupsController, EverythingController],
  providers: [BackupsService, EverythingService],
  exports: [BackupsService],
})
export class BackupsModule {}
