// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import type { Project } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import type { Scene } from '../state/scene.js';
import { look, useView } from '../state/view.js';

let scene: Scene;
vi.mock('../state/later.js', () => ({ useLater: () => scene }));
vi.mock('../kit/use-size.js', () => ({ useSize: () => ({ ref: () => undefined, width: 340, height: 300 }) }));
const { Slice } = await import('./Slice.js');

function open(text: string, change: (project: Project) => Project = (project) => project): Scene {
  const { project: first, priceBook: book } = readProjectFile(text);
  const project = change(first);
  const derived = createDeriver().derive(project, book);
  scene = { project, book, shape: derived, derived, room: derived.inner, previewing: false };
  return scene;
}
afterEach(() => {
  cleanup();
  look({ mode: null, sliceX: null });
});
/** From left to right on the screen, what a part's cut covers, px. */
function across(part: string): readonly [number, number] {
  const d = document.querySelector(`[data-part="${part}"]`)?.getAttribute('d') ?? '';
  const xs = [...d.matchAll(/[ML]\s*(-?[\d.]+)/g)].map(([, x]) => Number(x));
  return [Math.min(...xs), Math.max(...xs)];
}
const cutParts = (): string[] =>
  [...document.querySelectorAll('[data-part]')].map((path) => path.getAttribute('data-part') ?? '');

describe('the slice in a mode', () => {
  it('draws the bed as it is drawn out at night, with who sits on it, and shut by day, with who stands beside it', () => {
    const { project, derived } = open(thimbleFile);
    const [night, day] = ['night', 'day'].map((use) => project.layout.modes?.find((mode) => mode.use === use));
    const [lies] = derived.lying;
    if (!night || !day || !lies?.out) throw new Error('the trailer has a bed that is drawn out at night');
    const { unit, out } = lies;
    look({ sliceX: unit.body.x + unit.body.length / 2, mode: day.id });
    const { rerender } = render(<Slice />);
    const moving = derived.made
      .find((made) => made.unit === unit.id)
      ?.skeleton?.boards.filter(({ moves }) => moves !== undefined && `${unit.id}.${moves}` === out.motion)
      .map(({ name }) => `${unit.id}.${name}`)
      .filter((id) => cutParts().includes(id));
    const part = moving?.[0];
    if (!part) throw new Error('the slice goes through what is drawn out');
    const shut = across(part);
    const standing = screen.getByRole('img', { name: /^Sorrel: / }).getAttribute('aria-label');
    look({ mode: night.id });
    rerender(<Slice />);
    const drawn = across(part);
    // the bed is at the right wall and is drawn out to the left
    expect(drawn[0]).toBeLessThan(shut[0] - 20);
    expect(drawn[1] - drawn[0]).toBeCloseTo(shut[1] - shut[0], 0);
    expect(screen.getByRole('img', { name: /^Sorrel: / }).getAttribute('aria-label')).not.toBe(standing);
    // while no mode is shown it is as when she lies there
    look({ mode: null });
    rerender(<Slice />);
    expect(across(part)[0]).toBeCloseTo(drawn[0], 3);
  });
});

describe('the slice', () => {
  it('goes from station to station by its buttons, and tells where it is', async () => {
    const { derived } = open(wrenFile);
    const at = derived.shell?.at ?? [];
    look({ sliceX: at[2] ?? 0 });
    const { rerender } = render(<Slice />);
    expect(screen.getByText(`3 / ${at.length}`)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: /next/i }));
    expect(useView.getState().sliceX).toBe(at[3]);
    rerender(<Slice />);
    expect(screen.getByText(`4 / ${at.length}`)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: /previous/i }));
    expect(useView.getState().sliceX).toBe(at[2]);
    look({ sliceX: (at[2] ?? 0) + 40 });
    rerender(<Slice />);
    expect(screen.getByText(/between/)).toBeTruthy();
  });
  it('cuts through the layers, the floor and what stands there, each once', () => {
    const { derived } = open(wrenFile);
    look({ sliceX: 1000 });
    render(<Slice />);
    const named = screen.getAllByRole('img').map((one) => one.getAttribute('aria-label'));
    expect(named).toContain('Kitchen');
    // of what is cut through no part is drawn that the plan has not got
    for (const id of cutParts()) expect(derived.parts.some((part) => part.id === id)).toBe(true);
    expect(screen.getByText(/↕/).textContent).toMatch(/^1.\d{3}/);
  });
});
