import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { vi } from 'vitest';
import { createProgram, failed } from './program.js';

const entry = join(fileURLToPath(new URL('../../..', import.meta.url)), 'apps/cli/dist/bundle/main.js');

/** What a command wrote, and what it ended with. */
export interface Outcome {
  readonly code: number | null;
  readonly out: string;
  readonly err: string;
}

/** The program as somebody starts it, in a process of its own. */
export function started(...args: string[]): Outcome {
  const run = spawnSync(process.execPath, [entry, ...args], { encoding: 'utf8', maxBuffer: 1e8 });
  return { code: run.status, out: run.stdout, err: run.stderr };
}

/** Commands that do their work later, and those that read what is given to them. */
const LATER: ReadonlySet<string> = new Set(['cut', 'export', 'book', 'import', 'suggest']);

/** The same without the seconds that a process takes to start: the commands themselves, with what they write caught. */
export function plank(...args: string[]): Outcome {
  if (args.some((arg) => arg === '-') || LATER.has(args[0] ?? '')) return started(...args);
  const written = { out: '', err: '' };
  const caught = (['out', 'err'] as const).map((name) =>
    vi.spyOn(name === 'out' ? process.stdout : process.stderr, 'write').mockImplementation((text) => {
      written[name] += String(text);
      return true;
    }),
  );
  const before = process.exitCode;
  process.exitCode = undefined;
  try {
    createProgram().parse(args, { from: 'user' });
    return { code: Number(process.exitCode ?? 0), ...written };
  } catch (problem) {
    const code = failed(problem);
    return { code, ...written };
  } finally {
    process.exitCode = before;
    for (const spy of caught) spy.mockRestore();
  }
}
