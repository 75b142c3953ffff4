// Tells where the time of the last whole check went: the ten slowest test files of each kind.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const read = (name) => {
  const path = join(root, 'test-results', name);
  return existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null;
};
const show = (title, files) => {
  const total = files.reduce((sum, { seconds }) => sum + seconds, 0);
  process.stdout.write(`${title}: ${total.toFixed(0)} s in ${files.length} files\n`);
  for (const { name, seconds, tests } of [...files].sort((a, b) => b.seconds - a.seconds).slice(0, 10))
    process.stdout.write(`${seconds.toFixed(1).padStart(8)} s  ${String(tests).padStart(4)} tests  ${name}\n`);
};

const unit = read('unit.json');
const browser = read('browser.json');
if (!unit && !browser) {
  process.stderr.write('There is no check to tell of: run npm test first.\n');
  process.exit(1);
}
if (unit)
  show(
    'Unit tests',
    unit.testResults.map(({ name, startTime, endTime, assertionResults }) => ({
      name: name.replace(root, ''),
      seconds: (endTime - startTime) / 1000,
      tests: assertionResults.length,
    })),
  );
/** What the tests of a suite and of those within it took, ms. */
const tookIn = (suite) => [
  ...(suite.specs ?? []).flatMap(({ tests }) =>
    tests.flatMap(({ results }) => results.reduce((sum, { duration }) => sum + duration, 0)),
  ),
  ...(suite.suites ?? []).flatMap(tookIn),
];
if (browser)
  show(
    'Browser tests',
    browser.suites.map((suite) => {
      const took = tookIn(suite);
      return { name: suite.file, seconds: took.reduce((sum, one) => sum + one, 0) / 1000, tests: took.length };
    }),
  );
