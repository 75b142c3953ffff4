import { Body, Controller, Delete, HttpCode, Param, ParseEnumPipe, Post, Sse } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { map, type Observable } from 'rxjs';
import { ClickDto, ConnectDto, INSTRUMENTS, type InstrumentKind, type InstrumentMessage } from '@nestplank/contract';
import { DevicesService } from './devices.service.js';

const KIND = Object.fromEntries(INSTRUMENTS.map((kind) => [kind, kind])) as Record<InstrumentKind, InstrumentKind>;

@ApiTags('devices')
@Controller('projects/:id/devices/:kind')
export class DevicesController {
  constructor(private readonly devices: DevicesService) {}

  @Post('link')
  @HttpCode(200)
  @ApiOperation({ summary: 'Link a simulated laser or angle finder to a practice vehicle, or link it again' })
  connect(
    @Param('id') id: string,
    @Param('kind', new ParseEnumPipe(KIND)) kind: InstrumentKind,
    @Body() options: ConnectDto,
  ) {
    return this.devices.connect(id, kind, options);
  }

  @Delete('link')
  @HttpCode(204)
  @ApiOperation({ summary: 'Switch the instrument off' })
  disconnect(@Param('id') id: string, @Param('kind', new ParseEnumPipe(KIND)) kind: InstrumentKind): void {
    this.devices.disconnect(id, kind);
  }

  @Post('click')
  @HttpCode(202)
  @ApiOperation({ summary: 'Measure a place; the figure comes over the stream' })
  click(
    @Param('id') id: string,
    @Param('kind', new ParseEnumPipe(KIND)) kind: InstrumentKind,
    @Body() { address }: ClickDto,
  ): Promise<void> {
    return this.devices.click(id, kind, address);
  }

  @Sse('stream')
  @ApiOperation({ summary: 'Its state and figures as server-sent events' })
  stream(
    @Param('id') id: string,
    @Param('kind', new ParseEnumPipe(KIND)) kind: InstrumentKind,
  ): Observable<{ data: InstrumentMessage }> {
    return this.devices.stream(id, kind).pipe(map((data) => ({ data })));
  }
}
