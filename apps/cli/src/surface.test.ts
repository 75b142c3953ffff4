import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('../../../', import.meta.url));
const core = join(root, 'packages/core');

/** Every source outside the core. */
function sources(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (name === 'node_modules' || name.startsWith('dist')) return [];
    if (statSync(path).isDirectory()) return sources(path);
    return /\.(tsx?|mjs)$/.test(name) ? [path] : [];
  });
}

/** The names in the braces of an import or export, without `type` and what they are called here. */
const namesIn = (braces: string): string[] =>
  braces
    .replace(/\/\*.*?\*\/|\/\/.*$/gms, '')
    .split(',')
    .map((name) => name.trim().replace(/^type /, ''))
    .filter((name) => name !== '');

const text = ['apps', 'packages/contract', 'packages/solids', 'bench', 'scripts', 'demo']
  .flatMap((folder) => sources(join(root, folder)))
  .map((path) => readFileSync(path, 'utf8'))
  .join('\n');
const asked = new Set([
  ...[...text.matchAll(/\{([^{}]*)\}\s+from\s+'@nestplank\/core\/([\w-]+)'/g)].flatMap(([, braces, path]) =>
    namesIn(braces ?? '').map((name) => `${path ?? ''}: ${name.split(/ as |:/)[0]?.trim() ?? ''}`),
  ),
  ...[...text.matchAll(/\{([^{}]*)\}\s*=\s*await import\('@nestplank\/core\/([\w-]+)'\)/g)].flatMap(
    ([, braces, path]) => namesIn(braces ?? '').map((name) => `${path ?? ''}: ${name.split(':')[0]?.trim() ?? ''}`),
  ),
]);
/** Asked of a whole subpath that is loaded late: `(await import('…/export')).partDxf`, `writers().then(({ partDxf }) …`. */
const late = new Set([...text.matchAll(/import\('@nestplank\/core\/([\w-]+)'\)/g)].map((match) => match[1]));

const { exports } = JSON.parse(readFileSync(join(core, 'package.json'), 'utf8')) as {
  exports: Record<string, { default: string }>;
};

describe('what the core gives', () => {
  it.each(Object.entries(exports).map(([path, { default: file }]) => [path.slice(2), file] as const))(
    '%s: every name is used outside it',
    (path, file) => {
      const source = readFileSync(join(core, file.replace('dist', 'src').replace(/\.js$/, '.ts')), 'utf8');
      expect(source).not.toContain('export *');
      const given = [...source.matchAll(/export\s+(?:type\s+)?\{([^{}]*)\}/g)].flatMap(([, braces]) =>
        namesIn(braces ?? '').map((name) => name.split(' as ').at(-1)?.trim() ?? ''),
      );
      expect(given.length).toBeGreaterThan(0);
      const used = (name: string): boolean =>
        asked.has(`${path}: ${name}`) || (late.has(path) && new RegExp(`[.{ ]${name}\\b`).test(text));
      // a type that another name's type cannot be written down without
      expect(given.filter((name) => !used(name) && name !== 'Division')).toEqual([]);
    },
  );
});
