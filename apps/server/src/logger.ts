import { pino } from 'pino';

/** One log for the whole server: warnings and worse unless LOG_LEVEL says otherwise. */
export const logger = pino({ level: process.env['LOG_LEVEL'] ?? 'warn' });
