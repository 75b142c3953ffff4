// @vitest-environment jsdom
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { create } from 'zustand';
import type { Scene } from './scene.js';

interface Shape {
  readonly inner: null;
  readonly shell: null;
}
interface State {
  readonly project: { readonly at: number } | null;
  readonly preview: { readonly project: { readonly at: number }; readonly shape: Shape | null } | null;
  readonly derived: Shape | null;
  readonly priceBook: object | null;
}
const NOTHING: State = { project: null, preview: null, derived: null, priceBook: null };
const store = create<State>(() => NOTHING);
vi.mock('./session.js', () => ({ useSession: store }));
const { beside } = await import('./later.js');
const { sceneNow } = await import('./scene.js');

const derived: Shape = { inner: null, shell: null };
const rests = (at: number): void =>
  act(() => store.setState({ project: { at }, preview: null, derived, priceBook: derived }));
const dragged = (at: number): void => store.setState({ preview: { project: { at }, shape: null } });

const seen: number[] = [];
const Note = beside(function Note({ scene, of }: { readonly scene: Scene; of: string }) {
  const { at } = scene.project as unknown as { readonly at: number };
  seen.push(at);
  return (
    <p>
      {of} {at}
    </p>
  );
});
const shown = (): string | null => screen.queryByText(/^Note/)?.textContent ?? null;

afterEach(() => {
  cleanup();
  store.setState(NOTHING);
  seen.splice(0);
});

it('comes with what is opened, follows a change, and a drag to where it rests', async () => {
  render(<Note of="Note" />);
  expect(shown()).toBeNull();
  rests(1);
  expect(shown()).toBe('Note 1');
  rests(2);
  await waitFor(() => expect(shown()).toBe('Note 2'));
  for (let x = 3; x < 9; x += 1) dragged(x);
  // what the hand moves is not waited for: this is drawn in a turn of its own, once for all the steps before it
  expect(shown()).toBe('Note 2');
  await waitFor(() => expect(shown()).toBe('Note 8'));
  expect(seen).toEqual([1, 2, 8]);
  // let go while a turn is set: what came of it is shown, and what was dragged is not shown after it
  dragged(9);
  rests(10);
  await waitFor(() => expect(shown()).toBe('Note 10'));
  dragged(11);
  await waitFor(() => expect(shown()).toBe('Note 11'));
  expect(seen).toEqual([1, 2, 8, 10, 11]);
  act(() => store.setState(NOTHING));
  await waitFor(() => expect(shown()).toBeNull());
});

it('gives up its turn when it is taken away, and takes nothing more', async () => {
  rests(1);
  const { unmount } = render(<Note of="Note" />);
  render(<Note of="Another Note" />);
  dragged(2);
  unmount();
  await waitFor(() => expect(screen.getByText('Another Note 2')).toBeTruthy());
  expect(seen.filter((at) => at === 2)).toHaveLength(1);
});

it('is one scene for everybody who asks between two changes', () => {
  rests(1);
  const before = sceneNow();
  expect(sceneNow()).toBe(before);
  dragged(2);
  expect(sceneNow()).not.toBe(before);
  expect(sceneNow()?.previewing).toBe(true);
});
