#!/usr/bin/env node
import { createProgram, failed } from './program.js';

// a reader that has seen enough, such as `| head`, is no fault
process.stdout.on('error', (problem: NodeJS.ErrnoException) => {
  if (problem.code !== 'EPIPE') throw problem;
  process.exit(0);
});

try {
  await createProgram().parseAsync(process.argv);
} catch (problem) {
  process.exitCode = failed(problem);
}
