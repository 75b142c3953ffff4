// @vitest-environment jsdom
import { act, cleanup, createEvent, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { readProjectFile } from '@nestplank/core/formats';
import { message, type Message } from '@nestplank/core/words';
import wrenFile from '../../../../demo/wren.json?raw';
import { pointAt, usePointing, type Pointed } from '../state/pointing.js';
import { useSession } from '../state/session.js';
import { Check } from './Check.js';
import { Fold } from './Fold.js';
import { LineList } from './LineList.js';
import { NamedList } from './NamedList.js';
import { PickField } from './PickField.js';
import { PointButton } from './PointButton.js';
import { PointOverlay } from './PointOverlay.js';

afterEach(() => {
  cleanup();
  usePointing.setState({ now: null });
});
const refused = message('operation.twice', { id: 'lamp' });

interface Thing {
  readonly id: string;
  readonly name: string;
}

function Things({ start, take = () => true }: { readonly start: readonly Thing[]; readonly take?: () => boolean }) {
  const [items, setItems] = useState(start);
  return (
    <LineList
      title="Things"
      none="None yet."
      items={items}
      line={(item) => `${item.name.length} letters`}
      onRemove={(item) => setItems(items.filter((other) => other !== item))}
      addText="Add a thing"
      onAdd={() => {
        if (!take()) return null;
        setItems([...items, { id: 'new', name: 'New thing' }]);
        return 'new';
      }}
    >
      {(item) => <p>inside of {item.name}</p>}
    </LineList>
  );
}

describe('a list of lines', () => {
  const two = [
    { id: 'a', name: 'Ash' },
    { id: 'b', name: 'Beech' },
  ];
  it('says each in one line and opens one at a time in place', async () => {
    const user = userEvent.setup();
    render(<Things start={two} />);
    const [ash, beech] = within(screen.getByRole('list')).getAllByRole('button');
    expect([ash?.textContent, beech?.textContent]).toEqual(['Ash3 letters', 'Beech5 letters']);
    if (!ash || !beech) throw new Error('two lines');
    await user.click(ash);
    expect(screen.getByText('inside of Ash')).toBeTruthy();
    await user.click(beech);
    expect(screen.getByText('inside of Beech')).toBeTruthy();
    expect([ash.ariaExpanded ?? ash.getAttribute('aria-expanded'), beech.getAttribute('aria-expanded')]).toEqual([
      'false',
      'true',
    ]);
  });
  it('opens what is added, and nothing when it was refused', async () => {
    const user = userEvent.setup();
    const take = vi.fn(() => false);
    const { rerender } = render(<Things start={[]} take={take} />);
    expect(screen.getByText('None yet.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Add a thing' }));
    expect(screen.queryByText('inside of New thing')).toBeNull();
    take.mockReturnValue(true);
    rerender(<Things start={[]} take={take} />);
    await user.click(screen.getByRole('button', { name: 'Add a thing' }));
    expect(screen.getByText('inside of New thing')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Remove New thing' }));
    expect(screen.getByText('None yet.')).toBeTruthy();
  });
});

describe('a list of named things', () => {
  it('keeps the name that was refused, with the reason beside it, and opens what was taken', async () => {
    const user = userEvent.setup();
    const answers: (Message | null)[] = [refused, null];
    const onAdd = vi.fn<(id: string, name: string) => Message | null>(() => answers.shift() ?? null);
    const list = (items: readonly Thing[]) => (
      <NamedList
        title="Lamps"
        hint="None."
        items={items}
        nameLabel="Name"
        freeId="ft1"
        line={() => ''}
        onAdd={onAdd}
        onRemove={() => undefined}
      >
        {(item) => <p>figures of {item.name}</p>}
      </NamedList>
    );
    const { rerender } = render(list([]));
    const name = screen.getByLabelText<HTMLInputElement>('Name');
    await user.type(name, ' Reading lamp {Enter}');
    expect(screen.getByText('There is a lamp already.')).toBeTruthy();
    expect(name.value).toBe(' Reading lamp ');
    await user.click(screen.getByRole('button', { name: 'Add' }));
    expect(onAdd).toHaveBeenLastCalledWith('ft1', 'Reading lamp');
    expect(name.value).toBe('');
    rerender(list([{ id: 'ft1', name: 'Reading lamp' }]));
    expect(screen.getByText('figures of Reading lamp')).toBeTruthy();
  });
});

describe('a choice that is refused', () => {
  it('is told, whether a box or a list was used', async () => {
    const user = userEvent.setup();
    const told = (): string | undefined => useSession.getState().notice?.text;
    render(<Check label="glued" checked={false} onCheck={() => refused} />);
    await user.click(screen.getByRole('checkbox', { name: 'glued' }));
    expect(told()).toBe('There is a lamp already.');
    useSession.setState({ notice: null });
    render(
      <PickField
        label="Side"
        value="left"
        choices={[
          { value: 'left', text: 'left' },
          { value: 'right', text: 'right' },
        ]}
        onPick={() => refused}
      />,
    );
    await user.click(screen.getByRole('combobox', { name: 'Side' }));
    await user.click(screen.getByRole('option', { name: 'right' }));
    expect(told()).toBe('There is a lamp already.');
  });
});

describe('pointing at a place', () => {
  const floor: Pointed = { surface: 'floor', x: 1200, along: -300 };
  const wall: Pointed = { surface: 'left', x: 800, along: 950 };
  const button = (onPoint: (place: Pointed) => void) => (
    <PointButton what="Drain" takes={({ surface }) => surface === 'floor'} onPoint={onPoint} />
  );
  it('waits for a place it may have, takes it once, and waits no more', async () => {
    const onPoint = vi.fn();
    const user = userEvent.setup();
    render(button(onPoint));
    expect(pointAt(floor)).toBe(false);
    await user.click(screen.getByRole('button', { name: 'Point at it on the drawing' }));
    expect(screen.getByRole('status').textContent).toContain('Drain');
    expect(pointAt(wall)).toBe(false);
    expect(pointAt(floor)).toBe(true);
    expect(pointAt(floor)).toBe(false);
    expect(onPoint.mock.calls).toEqual([[floor]]);
  });
  it('is left by Escape, by a second press, and when what asked is gone', async () => {
    const user = userEvent.setup();
    const { unmount } = render(button(vi.fn()));
    const press = screen.getByRole('button', { name: 'Point at it on the drawing' });
    const waiting = (): boolean => usePointing.getState().now !== null;
    await user.click(press);
    expect(waiting()).toBe(true);
    await user.keyboard('{Escape}');
    expect(waiting()).toBe(false);
    await user.click(press);
    await user.click(press);
    expect(waiting()).toBe(false);
    await user.click(press);
    unmount();
    expect(waiting()).toBe(false);
  });
  it('the drawing says the place under the pointer and gives it when pressed there; elsewhere nothing', async () => {
    const onPoint = vi.fn();
    const user = userEvent.setup();
    render(button(onPoint));
    const { container } = render(
      <svg>
        <PointOverlay width={400} height={300} placeAt={([x, y]) => (x < 200 ? { ...floor, x: y } : wall)} />
      </svg>,
    );
    expect(container.querySelector('rect')).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Point at it on the drawing' }));
    const svg = container.querySelector('svg');
    const cover = container.querySelector('rect');
    if (!svg || !cover) throw new Error('covered while it waits');
    vi.spyOn(svg, 'getBoundingClientRect').mockReturnValue({ left: 0, top: 0, width: 400, height: 300 } as DOMRect);
    // a pointer event without its place is what this page of a test makes of one: it is given the place by hand
    const at = (kind: 'pointerMove' | 'pointerUp', clientX: number): void => {
      const event = createEvent[kind](cover);
      Object.defineProperties(event, { clientX: { value: clientX }, clientY: { value: 40 } });
      fireEvent(cover, event);
    };
    at('pointerMove', 320);
    expect(container.querySelector('text')).toBeNull();
    at('pointerMove', 120);
    expect(container.querySelector('text')?.textContent).toBe('40, −300');
    at('pointerUp', 320);
    expect(onPoint).not.toHaveBeenCalled();
    at('pointerUp', 120);
    expect(onPoint.mock.calls).toEqual([[{ ...floor, x: 40 }]]);
  });
});

describe('a section that opens', () => {
  it('is not drawn again for a drag while it is shut, and shows how things are when it is opened or let go', async () => {
    let drawn = 0;
    function Inside({ n }: { readonly n: number }) {
      drawn += 1;
      return <p>{n} boards</p>;
    }
    const fold = (n: number) => (
      <Fold title="Boards" line={`${n}`}>
        <Inside n={n} />
      </Fold>
    );
    const { project } = readProjectFile(wrenFile);
    const dragging = (on: boolean) => act(() => useSession.setState({ preview: on ? { project, shape: null } : null }));
    const { rerender } = render(fold(1));
    rerender(fold(2));
    expect([drawn, screen.getByText('2 boards')]).toEqual([2, expect.anything()]);
    dragging(true);
    for (const n of [3, 4, 5]) rerender(fold(n));
    expect([drawn, screen.getByText('5')]).toEqual([2, expect.anything()]);
    dragging(false);
    expect([drawn, screen.getByText('5 boards')]).toEqual([3, expect.anything()]);
    dragging(true);
    rerender(fold(6));
    await userEvent.click(screen.getByText('Boards'));
    await screen.findByText('6 boards');
    rerender(fold(7));
    expect(screen.getByText('7 boards')).toBeTruthy();
    dragging(false);
  });
});
