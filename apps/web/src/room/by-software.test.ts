// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const LOSE = { loseContext: vi.fn() };
/** What draws, by the name it gives itself; null where it gives none. */
const inkOf = (name: string | null) => ({
  getExtension: (extension: string): unknown =>
    extension === 'WEBGL_lose_context' ? LOSE : name === null ? null : { UNMASKED_RENDERER_WEBGL: 1 },
  getParameter: () => name,
});
const fresh = async () => {
  vi.resetModules();
  return import('./by-software.js');
};

/** A worker that says what it is told to, or fails. */
let said: boolean | null | 'fails' = null;
let made = 0;
let ended = 0;
class Says {
  onmessage: ((event: { readonly data: boolean | null }) => void) | null = null;
  onerror: (() => void) | null = null;
  constructor() {
    made += 1;
    queueMicrotask(() => {
      if (said === 'fails') this.onerror?.();
      else this.onmessage?.({ data: said });
    });
  }
  terminate(): void {
    ended += 1;
  }
}
const here = (ink: unknown) => vi.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(ink as null);

beforeEach(() => {
  said = null;
  made = 0;
  ended = 0;
  vi.stubGlobal('Worker', Says);
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

describe('who draws', () => {
  it('is told by its name, and what it was asked of is given back', async () => {
    const { bySoftware } = await fresh();
    const by = (name: string | null) => bySoftware(inkOf(name) as unknown as WebGL2RenderingContext);
    expect(by('ANGLE (Google, Vulkan 1.3.0 (SwiftShader Device))')).toBe(true);
    expect(by('llvmpipe (LLVM 15.0.6, 256 bits)')).toBe(true);
    expect(by('A graphics card of some maker')).toBe(false);
    expect(by(null)).toBe(false);
    expect(LOSE.loseContext).toHaveBeenCalledTimes(4);
  });
  it('is asked of a worker, once, which is ended then', async () => {
    said = true;
    const { drawnBySoftware } = await fresh();
    expect(await Promise.all([drawnBySoftware(), drawnBySoftware()])).toEqual([true, true]);
    expect([made, ended]).toEqual([1, 1]);
  });
  it.each([
    ['a worker has nothing to draw on', null],
    ['it fails', 'fails'],
  ] as const)('is asked on the page where %s', async (_what, how) => {
    said = how;
    here(inkOf('SwiftShader'));
    const { drawnBySoftware } = await fresh();
    expect(await drawnBySoftware()).toBe(true);
    expect(ended).toBe(1);
  });
  it('is asked on the page where there are no workers; where nothing is drawn it is no software', async () => {
    vi.stubGlobal('Worker', undefined);
    here(null);
    const { drawnBySoftware } = await fresh();
    expect(await drawnBySoftware()).toBe(false);
  });
});
