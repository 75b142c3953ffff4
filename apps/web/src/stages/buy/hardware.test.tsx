// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { PriceBook, PriceItem } from '@nestplank/core/document';
import { startPriceBook } from '@nestplank/core/materials';

const taken: PriceItem[] = [];
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  takePrices: (items: readonly PriceItem[]) => {
    taken.push(...items);
    return Promise.resolve(true);
  },
}));
const { HardwareFields, UsualHardware } = await import('./HardwareFields.js');

const book = startPriceBook();
const item = (id: string): PriceItem => {
  const found = book.items.find((one) => one.id === id);
  if (!found) throw new Error(`no ${id}`);
  return found;
};
const user = userEvent.setup();
afterEach(() => {
  cleanup();
  taken.splice(0);
});

describe('the hardware of the price book', () => {
  it('is offered where a book has none of its kinds, and only those', async () => {
    const old: PriceBook = { ...book, items: book.items.filter(({ hardware }) => hardware?.kind !== 'strut') };
    const { rerender } = render(<UsualHardware book={old} />);
    await user.click(screen.getByRole('button', { name: 'Take in 6 usual materials' }));
    expect(new Set(taken.map(({ hardware }) => hardware?.kind))).toEqual(new Set(['strut']));
    rerender(<UsualHardware book={book} />);
    expect(screen.queryByRole('button')).toBeNull();
  });
  it('has a length and a load for slides, a force for struts, neither for a catch', async () => {
    const changes: unknown[] = [];
    const put = (change: Partial<PriceItem> | ((now: PriceItem) => Partial<PriceItem>)) => {
      changes.push(typeof change === 'function' ? change(item('slides-400')) : change);
      return null;
    };
    const { rerender } = render(<HardwareFields item={item('slides-400')} put={put} />);
    const load = screen.getByLabelText('A pair bears, kg');
    await user.clear(load);
    await user.type(load, '45{Enter}');
    expect(changes).toEqual([{ hardware: { kind: 'slides', length: 400, bears: 45 } }]);
    expect(screen.getByLabelText(/^Length of the slides/)).toHaveProperty('value', '400');
    rerender(<HardwareFields item={item('strut-80')} put={put} />);
    expect(screen.getByLabelText('Force, N')).toHaveProperty('value', '80');
    rerender(<HardwareFields item={item('catch-push')} put={put} />);
    expect(screen.queryAllByRole('textbox')).toHaveLength(0);
    rerender(<HardwareFields item={item('cable-2-5')} put={put} />);
    const copper = screen.getByLabelText('Copper of each core, mm²');
    await user.clear(copper);
    await user.type(copper, '4{Enter}');
    expect(changes.at(-1)).toEqual({ hardware: { kind: 'slides', length: 400, bears: 30, copper: 4 } });
    rerender(<HardwareFields item={item('water-15')} put={put} />);
    expect(screen.getByLabelText(/^Width outside/)).toHaveProperty('value', '15');
    expect(screen.queryByLabelText('Copper of each core, mm²')).toBeNull();
    rerender(<HardwareFields item={item('birch-15')} put={put} />);
    expect(screen.queryByRole('combobox')).toBeNull();
  });
});
