import { mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { createApp } from './app.js';

const database = resolve(process.env['NEST_PLANK_DB'] ?? 'data/nest-plank.sqlite');
const port = Number(process.env['PORT'] ?? 4310);
mkdirSync(dirname(database), { recursive: true });
const app = await createApp({ database, pages: process.env['NEST_PLANK_PAGES'], demo: process.env['NEST_PLANK_DEMO'] });
await app.listen(port, '127.0.0.1');
process.stdout.write(`Nest Plank is at ${(await app.getUrl()).replace('[::1]', '127.0.0.1')}\n`);
