import { existsSync } from 'node:fs';
import { setPriority } from 'node:os';
import { isMainThread } from 'node:worker_threads';

const BEHIND = 10;

/**
 * The built script of a thread: it stands beside whoever starts it, or where that is built to.
 * @param from the address of the module that starts it
 * @param name its path from there, without an ending
 * @param built the same from the folder of all that is built
 */
export function threadScript(from: string, name: string, built: string): URL {
  const beside = new URL(`${name}.js`, from);
  return existsSync(beside) ? beside : new URL(`../dist/${built}.js`, import.meta.url);
}

/** Puts the thread it is called in behind the others: whoever saves goes first. Where that cannot be, nothing is lost. */
export function stepBack(): void {
  try {
    // on Linux a priority is a thread's own
    if (!isMainThread) setPriority(0, BEHIND);
  } catch {
    // it runs beside the others then
  }
}
