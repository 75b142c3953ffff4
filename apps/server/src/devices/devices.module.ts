import { Module } from '@nestjs/common';
import { ProjectsModule } from '../projects/projects.module.js';
import { DevicesController } from './devices.controller.js';
import { DevicesService } from './devices.service.js';

@Module({ imports: [ProjectsModule], controllers: [DevicesController], providers: [DevicesService] })
export class DevicesModule {}
