import { afterEach, describe, expect, it, vi } from 'vitest';
import { api, RefusedError, UnreachableError } from './api.js';

const answers = (body: BodyInit | null, status = 200): void =>
  void vi.stubGlobal('fetch', () => Promise.resolve(new Response(body, { status })));
afterEach(() => vi.unstubAllGlobals());

describe('an answer of the server', () => {
  it('that is cut short is no answer, whatever its status', async () => {
    for (const status of [200, 201, 409, 500]) {
      answers('{"revision": 4, "hist', status);
      await expect(api.view('p')).rejects.toBeInstanceOf(UnreachableError);
    }
    // the connection ends while it is read
    const torn = new ReadableStream({
      start: (controller) => {
        controller.enqueue(new TextEncoder().encode('{"revision"'));
        controller.error(new TypeError('network error'));
      },
    });
    answers(torn);
    await expect(api.view('p')).rejects.toBeInstanceOf(UnreachableError);
  });
  it('is taken when it is whole, empty where nothing is to be said, and refused in its own words', async () => {
    answers('{"revision": 4}');
    expect(await api.view('p')).toEqual({ revision: 4 });
    answers('', 201);
    await expect(api.bringBack('p')).resolves.toBeNull();
    answers('{"message": "No.", "code": "unsound"}', 422);
    await expect(api.view('p')).rejects.toBeInstanceOf(RefusedError);
  });
});
