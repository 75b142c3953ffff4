// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { useHand, type Hand } from './use-hand.js';

// the page that is tried in knows no pointers unless it says so
vi.hoisted(() => Object.assign(window, { onpointerdown: null, onpointermove: null, onpointerup: null }));

interface Told {
  readonly by: Hand;
  readonly first: boolean;
  readonly last: boolean;
  readonly tap: boolean;
}
const told: Told[] = [];
function Thing() {
  const hand = useHand((by, { first, last, tap }) => void told.push({ by, first, last, tap }));
  return <div data-testid="thing" {...hand()} />;
}
const at = (type: 'pointerdown' | 'pointermove' | 'pointerup', clientX: number, clientY: number): void => {
  fireEvent(
    screen.getByTestId('thing'),
    new MouseEvent(type, { bubbles: true, clientX, clientY, buttons: type === 'pointerup' ? 0 : 1 }),
  );
};
beforeEach(() => {
  told.splice(0);
  render(<Thing />);
  const thing = screen.getByTestId('thing');
  thing.setPointerCapture = () => undefined;
  thing.releasePointerCapture = () => undefined;
  thing.hasPointerCapture = () => false;
});
afterEach(cleanup);

it('keeps what is drawn under the hand, from its beginning to where it began', () => {
  at('pointerdown', 100, 100);
  at('pointermove', 101, 100);
  // as near as this it may be a press yet
  expect(told).toEqual([]);
  at('pointermove', 110, 100);
  at('pointermove', 103, 100);
  at('pointermove', 100, 100);
  at('pointermove', 90, 100);
  at('pointerup', 90, 100);
  expect(told.map(({ by }) => by)).toEqual([
    [10, 0],
    [3, 0],
    [0, 0],
    [-10, 0],
    [-10, 0],
  ]);
  expect(told.map(({ first, last }) => [first, last])).toEqual([
    [true, false],
    [false, false],
    [false, false],
    [false, false],
    [false, true],
  ]);
});

it('does not draw across what is drawn along with a hand that trembles, until it is meant', () => {
  at('pointerdown', 100, 100);
  at('pointermove', 120, 102);
  at('pointermove', 140, 98);
  at('pointermove', 140, 94);
  at('pointermove', 140, 99);
  at('pointerup', 140, 99);
  expect(told.map(({ by }) => by)).toEqual([
    [20, 0],
    [40, 0],
    [40, -6],
    [40, -1],
    [40, -1],
  ]);
  // the next time it is to be meant again
  told.splice(0);
  at('pointerdown', 100, 100);
  at('pointermove', 100, 120);
  expect(told.map(({ by }) => by)).toEqual([[0, 20]]);
  at('pointerup', 100, 120);
});

it('tells a press from a drag, also after one', () => {
  at('pointerdown', 100, 100);
  at('pointermove', 120, 120);
  at('pointerup', 120, 120);
  told.splice(0);
  at('pointerdown', 100, 100);
  at('pointerup', 101, 100);
  expect(told.map(({ tap, by }) => [tap, by])).toEqual([[true, [0, 0]]]);
});
