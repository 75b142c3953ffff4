// Do the tests bite? Changes one thing at a time, drawn by lot from a seed, in a copy of the sources, and asks the tests that
// depend on it: node bench/mutations.mjs --seed 1 --count 20. What is told at the end: killed, survived, and not decided in time.
import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { clearTimeout, setTimeout } from 'node:timers';
import { parseArgs } from 'node:util';
import fc from 'fast-check';
import ts from 'typescript';

const root = fileURLToPath(new URL('..', import.meta.url));
const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    count: { type: 'string', default: '20' },
    // the longest that the tests of one change may take, s
    longest: { type: 'string', default: '240' },
  },
});

/** Where what is changed stands: what is computed, what the page keeps, what the server does. */
const FOLDERS = ['packages/core/src', 'apps/web/src/state', 'apps/server/src'];
/** Words and practice vehicles are no computation that a figure comes from. */
const LEFT_OUT = /\.(test|fixture)\.tsx?$|\/words\/|\/practice\/|\/fixtures\/|index\.ts$/;

const files = FOLDERS.flatMap((folder) =>
  readdirSync(join(root, folder), { recursive: true })
    .map((name) => join(folder, name))
    .filter((name) => name.endsWith('.ts') && !LEFT_OUT.test(name)),
);

const COMPARED = { '<': '<=', '<=': '<', '>': '>=', '>=': '>', '===': '!==', '!==': '===' };
const SIGNED = { '+': '-', '-': '+', '*': '/', '/': '*' };
const JOINED = { '&&': '||', '||': '&&' };

/** All places of a source where one thing can be changed: from where to where, and into what. */
function placesIn(path) {
  const text = readFileSync(join(root, path), 'utf8');
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
  const places = [];
  const put = (kind, node, to) => places.push({ path, kind, from: node.getStart(source), end: node.getEnd(), to });
  const visit = (node) => {
    // types and texts are not run
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) {
      const sign = node.operatorToken.getText(source);
      const [left, right] = [node.left.getText(source), node.right.getText(source)];
      if (COMPARED[sign]) put('comparison', node.operatorToken, COMPARED[sign]);
      if (JOINED[sign]) put('condition', node.operatorToken, JOINED[sign]);
      if (SIGNED[sign] && !/['"`]/.test(left + right)) {
        put('sign', node.operatorToken, SIGNED[sign]);
        put('dropped term', node, left);
      }
    }
    if (ts.isNumericLiteral(node) && !ts.isElementAccessExpression(node.parent))
      put('plus one', node, String(Number(node.text) + 1));
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.MinusToken)
      put('sign', node, node.operand.getText(source));
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      put('condition', node, node.operand.getText(source));
    if (ts.isIfStatement(node) && !node.elseStatement) put('dropped branch', node, ';');
    ts.forEachChild(node, visit);
  };
  visit(source);
  return places;
}

const all = files.flatMap(placesIn);
// more than are wanted: some do not compile
const drawn = fc.sample(fc.noBias(fc.nat(all.length - 1)), {
  seed: Number(values.seed),
  numRuns: 4 * Number(values.count),
});
const copy = mkdtempSync(join(tmpdir(), 'nest-plank-mutations-'));
for (const name of [
  'packages',
  'apps',
  'demo',
  'docs',
  'scripts',
  'package.json',
  'tsconfig.json',
  'tsconfig.base.json',
  'vitest.config.ts',
])
  cpSync(join(root, name), join(copy, name), {
    recursive: true,
    filter: (path) => !/\/node_modules$|\/dist-types$/.test(path),
  });
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));

/** Which sources a source asks for, by their paths from the root. */
const ALIASES = {
  '@nestplank/core': 'packages/core/src/index.ts',
  '@nestplank/core/formats': 'packages/core/src/formats/index.ts',
  '@nestplank/core/export': 'packages/core/src/formats/export.ts',
  '@nestplank/core/exchange': 'packages/core/src/formats/exchange.ts',
  '@nestplank/core/practice': 'packages/core/src/practice/index.ts',
  '@nestplank/core/cutting': 'packages/core/src/cutting/index.ts',
  '@nestplank/contract': 'packages/contract/src/index.ts',
};
const sources = ['packages', 'apps'].flatMap((folder) =>
  readdirSync(join(root, folder), { recursive: true })
    .map((name) => join(folder, name))
    .filter((name) => /\/src\/.*\.tsx?$/.test(name) && !name.includes('node_modules')),
);
const known = new Set(sources);
const askedBy = new Map(sources.map((path) => [path, []]));
for (const path of sources)
  for (const { fileName } of ts.preProcessFile(readFileSync(join(root, path), 'utf8')).importedFiles) {
    const at = fileName.startsWith('.') ? join(dirname(path), fileName).replace(/\.js$/, '') : ALIASES[fileName];
    const found = at && [at, `${at}.ts`, `${at}.tsx`].find((name) => known.has(name));
    if (found) askedBy.get(found).push(path);
  }
/** The tests that depend on a source, the nearest first: by how many files lie between, then those beside it. */
function testsOf(path) {
  const far = new Map([[path, 0]]);
  for (const one of far.keys())
    for (const next of askedBy.get(one) ?? []) if (!far.has(next)) far.set(next, far.get(one) + 1);
  const beside = (name) => (dirname(name) === dirname(path) ? -0.5 : 0);
  return [...far.keys()]
    .filter((name) => /\.test\.tsx?$/.test(name))
    .sort((a, b) => far.get(a) + beside(a) - far.get(b) - beside(b) || (a < b ? -1 : 1));
}

/** Whether one of some tests fails. Null when that is not known in time. */
function isKilled(tests, seconds) {
  return new Promise((resolve) => {
    const run = spawn(
      'npx',
      ['vitest', 'run', ...tests, '--bail', '1', '--reporter', 'dot', '--testTimeout', '60000'],
      { cwd: copy, stdio: 'ignore', detached: true },
    );
    const limit = setTimeout(
      () => {
        process.kill(-run.pid, 'SIGKILL');
        resolve(null);
      },
      Math.max(1, seconds) * 1000,
    );
    run.on('exit', (code, signal) => {
      clearTimeout(limit);
      if (signal === null) resolve(code !== 0);
    });
  });
}
/** So many test files at a time: the nearest tell most, and the rest is asked only when they do not. */
const AT_ONCE = 12;

const lineOf = (text, at) => text.slice(0, at).split('\n').length;
const found = { killed: 0, survived: 0, undecided: 0 };
try {
  process.stdout.write(`${all.length} places in ${files.length} files; seed ${values.seed}\n`);
  // what fails without any change says nothing
  if ((await isKilled(['packages/core/src/numeric/memo.test.ts'], 100)) !== false)
    throw new Error('The tests do not pass in the copy as it is.');
  for (let i = 0; i < Number(values.count); i += 1) {
    const place = all[drawn.shift()];
    if (!place) break;
    const path = join(copy, place.path);
    const text = readFileSync(path, 'utf8');
    const mutated = text.slice(0, place.from) + place.to + text.slice(place.end);
    // what does not compile is no change that anybody could make
    const { diagnostics = [] } = ts.transpileModule(mutated, { reportDiagnostics: true });
    if (diagnostics.length > 0) {
      i -= 1;
      continue;
    }
    writeFileSync(path, mutated);
    const start = performance.now();
    const tests = testsOf(place.path);
    let killed = tests.length === 0 ? false : null;
    for (let from = 0; from < tests.length && killed !== true; from += AT_ONCE) {
      const left = Number(values.longest) - (performance.now() - start) / 1000;
      killed = left <= 0 ? null : await isKilled(tests.slice(from, from + AT_ONCE), left);
      if (killed === null) break;
    }
    writeFileSync(path, text);
    const how = killed === null ? 'undecided' : killed ? 'killed' : 'survived';
    found[how] += 1;
    const was = text.slice(place.from, place.end).replace(/\s+/g, ' ').slice(0, 60);
    process.stdout.write(
      `${how.padEnd(9)} ${((performance.now() - start) / 1000).toFixed(0).padStart(4)} s  ${place.path}:${lineOf(text, place.from)}  ${place.kind}: ${was} -> ${place.to.replace(/\s+/g, ' ').slice(0, 60)}\n`,
    );
  }
} finally {
  rmSync(copy, { recursive: true, force: true });
}
const decided = found.killed + found.survived;
process.stdout.write(
  `${found.killed} killed, ${found.survived} survived, ${found.undecided} not decided in ${values.longest} s: ${decided === 0 ? '–' : ((found.killed / decided) * 100).toFixed(0)} of 100 decided are killed\n`,
);
