import { readFileSync, statSync, writeFileSync } from 'node:fs';
import type { Project, ProjectFile } from '@nestplank/core/document';
import { FormatError, readProjectFile } from '@nestplank/core/formats';
import { PLAIN_VOICE, say, type Message } from '@nestplank/core/words';
import { CommandFailure } from './failure.js';

const LARGEST_FILE = 20 * 1024 * 1024;
export const print = (text: string): void => void process.stdout.write(text.endsWith('\n') ? text : `${text}\n`);

/** The text of a file, or of standard input for `-`. */
export function load(path: string): string {
  try {
    if (path !== '-' && statSync(path).size > LARGEST_FILE)
      throw new CommandFailure(2, `${path}: larger than 20 MB, which no project is.`);
    return readFileSync(path === '-' ? 0 : path, 'utf8');
  } catch (problem) {
    if (problem instanceof CommandFailure) throw problem;
    throw new CommandFailure(
      2,
      `${path}: cannot be read (${problem instanceof Error && 'code' in problem ? String(problem.code) : 'unknown'}).`,
    );
  }
}

/** Reads a file in some format; a bad one ends the command with one line that names the place. */
export function read<T>(path: string, reader: (text: string) => T): T {
  const text = load(path);
  try {
    return reader(text);
  } catch (problem) {
    if (problem instanceof FormatError) throw new CommandFailure(2, `${path}: ${problem.message}`);
    throw problem;
  }
}

/** Writes a file. */
export function save(path: string, content: string | Uint8Array): void {
  try {
    writeFileSync(path, content);
  } catch {
    throw new CommandFailure(2, `${path}: cannot be written.`);
  }
}

export const put = (path: string | undefined, text: string): void =>
  path === undefined ? print(text) : save(path, text);
export const openProject = (path: string): ProjectFile => read(path, readProjectFile);

/** Texts with the names of the units and in the project's own lengths. */
export const speaker =
  ({ layout, settings }: Project) =>
  (said: Message): string =>
    say(said, {
      ...PLAIN_VOICE,
      lengths: { units: settings.units, fraction: settings.fraction },
      units: (id) => layout.units.find((unit) => unit.id === id)?.name ?? null,
    });
