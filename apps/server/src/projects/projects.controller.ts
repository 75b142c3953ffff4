import { Body, Controller, Delete, Get, Header, HttpCode, Param, Post } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { AskedStepsDto, CreateProjectDto, CreateVersionDto, ImportProjectDto, PostStepsDto } from '@nestplank/contract';
import { ProjectsService } from './projects.service.js';
import { VersionsService } from './versions.service.js';

@ApiTags('projects')
@Controller('projects')
export class ProjectsController {
  constructor(
    private readonly projects: ProjectsService,
    private readonly versions: VersionsService,
  ) {}

  @Get()
  @ApiOperation({ summary: 'All projects, last changed first' })
  list() {
    return this.projects.list();
  }

  @Post()
  @ApiOperation({ summary: 'Start an empty project' })
  create(@Body() wanted: CreateProjectDto) {
    return this.projects.create(wanted);
  }

  @Get('bin')
  @ApiOperation({ summary: 'Projects in the bin, each with the day on which it goes for good' })
  bin() {
    return this.projects.bin();
  }

  @Post('import')
  @ApiOperation({ summary: 'Take in a project file' })
  import(@Body() { text }: ImportProjectDto) {
    return this.projects.import(text);
  }

  @Get(':id')
  @ApiOperation({ summary: 'A project with its revision, history and price book' })
  view(@Param('id') id: string) {
    return this.projects.view(id);
  }

  @Post(':id/view')
  @HttpCode(200)
  @ApiOperation({ summary: 'The same, and which of the steps named are done already' })
  viewAsking(@Param('id') id: string, @Body() { steps }: AskedStepsDto) {
    return this.projects.view(id, steps);
  }

  @Post(':id/bring-back')
  @HttpCode(204)
  @ApiOperation({ summary: 'Take a project out of the bin again' })
  bringBack(@Param('id') id: string) {
    return this.projects.bringBack(id);
  }

  @Delete(':id')
  @HttpCode(204)
  @ApiOperation({ summary: 'Put a project into the bin, from which it can be brought back for 30 days' })
  remove(@Param('id') id: string) {
    return this.projects.remove(id);
  }

  @Post(':id/operations')
  @HttpCode(200)
  @ApiOperation({ summary: 'Apply named operations, undo and redo, in order; all or none' })
  post(@Param('id') id: string, @Body() steps: PostStepsDto) {
    return this.projects.post(id, steps);
  }

  @Get(':id/log')
  @ApiOperation({ summary: 'What happened to the project, newest first' })
  log(@Param('id') id: string) {
    return this.projects.log(id);
  }

  @Get(':id/stored')
  @Header('content-type', 'application/json')
  @Header('content-disposition', 'attachment; filename="stored.json"')
  @ApiOperation({ summary: 'The document exactly as it is stored, whatever is wrong with it' })
  stored(@Param('id') id: string) {
    return this.projects.stored(id);
  }

  @Get(':id/versions')
  @ApiOperation({ summary: 'Versions, newest first' })
  versionList(@Param('id') id: string) {
    return this.versions.list(id);
  }

  @Post(':id/versions')
  @ApiOperation({ summary: 'Keep the project as it is under a name' })
  keep(@Param('id') id: string, @Body() { name }: CreateVersionDto) {
    return this.versions.keep(id, name);
  }

  @Get(':id/versions/:version')
  @ApiOperation({ summary: 'The project as it was in a version' })
  version(@Param('id') id: string, @Param('version') version: string) {
    return this.versions.document(id, version);
  }
}
