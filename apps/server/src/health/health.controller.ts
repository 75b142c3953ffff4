import { Controller, Get } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { Transactions } from '../database/transactions.js';

@ApiTags('health')
@Controller('health')
export class HealthController {
  constructor(private readonly transactions: Transactions) {}

  @Get()
  @ApiOperation({ summary: 'Whether the server answers and its database can be read' })
  async health() {
    const [row] = await this.transactions.read((manager) =>
      manager.query<{ journal: string }[]>(`SELECT journal_mode AS journal FROM pragma_journal_mode`),
    );
    return { status: 'ok', journal: row?.journal ?? 'unknown', memoryMb: Math.round(process.memoryUsage().rss / 1e6) };
  }
}
