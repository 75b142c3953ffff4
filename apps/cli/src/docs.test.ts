import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('../../../', import.meta.url));
const FROM = ['', 'packages', 'packages/core', 'packages/core/src', 'packages/core/src/lining', 'apps', 'apps/web/src'];

describe.each(['docs/maintainer.md', 'CONTRIBUTING.md', 'README.md'])('%s', (page) => {
  const text = readFileSync(join(root, page), 'utf8');
  it('names files and folders that are there', () => {
    const named = [...text.matchAll(/`([\w.-]+(?:\/[\w.-]+)+\/?)`/g)].map((match) => match[1] ?? '');
    const lost = named.filter(
      (path) =>
        !/^station\/|N\.ts$/.test(path) &&
        !FROM.some((from) => existsSync(join(root, from, path)) || existsSync(join(root, from, `${path}.ts`))),
    );
    expect(lost).toEqual([]);
  });
  it('links to what is there', () => {
    const links = [...text.matchAll(/\]\((?!http|#)([^)#]+)/g)].map((match) => match[1] ?? '');
    expect(links.filter((link) => !existsSync(join(root, page, '..', link)))).toEqual([]);
  });
});
