import { Controller, Get, HttpCode, Param, Post, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import type { BackupsView } from '@nestplank/contract';
import { KEPT } from './backup-files.js';
import { BackupsService } from './backups.service.js';

@ApiTags('backups')
@Controller('backups')
export class BackupsController {
  constructor(private readonly backups: BackupsService) {}

  @Get()
  @ApiOperation({ summary: 'The backups there are, newest first' })
  list() {
    return { kept: KEPT, backups: this.backups.list(), damaged: this.backups.isDamaged() } satisfies BackupsView;
  }

  @Post()
  @ApiOperation({ summary: 'Make a backup of everything now' })
  make() {
    return this.backups.make('hand');
  }

  @Get(':name')
  @ApiOperation({ summary: 'One backup as a file' })
  file(@Param('name') name: string, @Res() response: Response): void {
    response
      .type('application/vnd.sqlite3')
      .attachment(name)
      .sendFile(this.backups.pathOf(name), { dotfiles: 'allow' });
  }

  @Post(':name/restore')
  @HttpCode(200)
  @ApiOperation({ summary: 'Put a backup in place of everything; what was there is kept as a backup' })
  restore(@Param('name') name: string) {
    return this.backups.restore(name);
  }
}
