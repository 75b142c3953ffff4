// @vitest-environment jsdom
import { cleanup, configure, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import DateEntry from './DateEntry.js';

// what is loaded when it is asked for takes its time on a busy machine
configure({ asyncUtilTimeout: 20_000 });

afterEach(cleanup);

describe('a day', () => {
  const shown = (onTake: (day: string) => string | null, onNoDay?: () => void) =>
    render(<DateEntry label="First day" value="2026-05-31" onTake={onTake} onNoDay={onNoDay} />);
  const part = (name: string): HTMLElement => screen.getByRole('spinbutton', { name });

  it('is typed part by part and taken when it is whole', async () => {
    const onTake = vi.fn(() => null);
    const user = userEvent.setup();
    shown(onTake);
    await user.click(part('Month'));
    await user.keyboard('04');
    await user.click(part('Day'));
    await user.keyboard('09');
    await waitFor(() => expect(onTake).toHaveBeenLastCalledWith('2026-04-09'));
  });
  it('that is refused keeps what was typed, with the reason beside it', async () => {
    const user = userEvent.setup();
    shown(() => 'No work on that day.');
    await user.click(part('Day'));
    await user.keyboard('12');
    expect(await screen.findByText('No work on that day.')).toBeTruthy();
    expect(part('Day').textContent).toBe('12');
  });
  it('that is not whole says what is needed and takes nothing', async () => {
    const [onTake, onNoDay] = [vi.fn(() => null), vi.fn()];
    const user = userEvent.setup();
    shown(onTake, onNoDay);
    await user.click(part('Year'));
    await user.keyboard('{Backspace}');
    expect(await screen.findByText(/A date such as/)).toBeTruthy();
    expect([onTake.mock.calls.length, onNoDay.mock.calls.length > 0]).toEqual([0, true]);
  });
});
