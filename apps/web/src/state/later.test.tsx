// @vitest-environment jsdom
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import { useLater } from './later.js';

afterEach(cleanup);
const at = (x: number, previewing: boolean) => ({ x, previewing });

it('follows a change as soon as there is time, and a drag to where it rests', async () => {
  const { result, rerender } = renderHook(({ scene }) => useLater(scene), {
    initialProps: { scene: at(0, false) as ReturnType<typeof at> | null },
  });
  expect(result.current?.x).toBe(0);
  act(() => rerender({ scene: at(1, false) }));
  await waitFor(() => expect(result.current?.x).toBe(1));
  for (let x = 2; x < 9; x += 1) rerender({ scene: at(x, true) });
  // what the hand moves is not waited for: this is drawn in a turn of its own
  expect(result.current?.x).toBe(1);
  await waitFor(() => expect(result.current?.x).toBe(8));
  // let go while a turn is set: what came of it is shown, not what was dragged
  rerender({ scene: at(9, true) });
  act(() => rerender({ scene: at(10, false) }));
  await waitFor(() => expect(result.current?.x).toBe(10));
  act(() => rerender({ scene: null }));
  await waitFor(() => expect(result.current).toBeNull());
});
