import { Controller, Get, HttpStatus, Res } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { Transactions } from '../database/transactions.js';

@ApiTags('health')
@Controller('health')
export class HealthController {
  constructor(private readonly transactions: Transactions) {}

  @Get()
  @ApiOperation({
    summary:
      'Whether the database can be read and written: ok, or what keeps it (full, read-only, damaged, gone, failed; then 503)',
  })
  async health(@Res({ passthrough: true }) response: Response) {
    let journal = 'unknown';
    let unread = false;
    try {
      const [row] = await this.transactions.read((manager) =>
        manager.query<{ journal: string }[]>(`SELECT journal_mode AS journal FROM pragma_journal_mode`),
      );
      journal = row?.journal ?? journal;
    } catch {
      unread = true;
    }
    const trouble = this.transactions.trouble() ?? (unread ? 'failed' : null);
    if (trouble !== null) response.status(HttpStatus.SERVICE_UNAVAILABLE);
    return { status: trouble ?? 'ok', journal, memoryMb: Math.round(process.memoryUsage().rss / 1e6) };
  }
}
