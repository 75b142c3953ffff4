// @vitest-environment jsdom
import { cleanup, configure, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { CreateProjectDto, ProjectListItem } from '@nestplank/contract';
import { createDeriver, smallFoldOut } from '@nestplank/core/derive';
import { readProjectFile } from '@nestplank/core/formats';
import wrenFile from '../../../../demo/wren.json?raw';

configure({ asyncUtilTimeout: 20_000 });

const item = (id: string, kind: ProjectListItem['kind'] = 'van'): ProjectListItem =>
  ({
    id,
    name: id[0]?.toUpperCase() + id.slice(1),
    kind,
    model: '',
    updatedAt: '2026-11-20T10:00:00.000Z',
  }) as ProjectListItem;
const server = {
  projects: [] as ProjectListItem[],
  bin: [] as { id: string; name: string; until: string }[],
  created: [] as CreateProjectDto[],
  removed: [] as string[],
  back: [] as string[],
  imported: [] as string[],
  refuses: null as string | null,
};
vi.mock('../state/api.js', async (original) => {
  const real = await original<typeof import('../state/api.js')>();
  const answer = <T,>(value: T): Promise<T> =>
    server.refuses === null
      ? Promise.resolve(value)
      : Promise.reject(Object.assign(Object.create(real.RefusedError.prototype) as Error, { message: server.refuses }));
  return {
    ...real,
    api: {
      list: () => Promise.resolve(server.projects),
      bin: () => Promise.resolve(server.bin),
      small: (id: string) =>
        id === 'wren' ? Promise.resolve({ small: small() }) : Promise.reject(new Error('cannot be drawn')),
      create: (wanted: CreateProjectDto) => {
        server.created.push(wanted);
        return answer({ id: 'new' });
      },
      import: (text: string) => {
        server.imported.push(text);
        return answer({ id: 'wren-2' });
      },
      remove: (id: string) => {
        server.removed.push(id);
        server.projects = server.projects.filter((project) => project.id !== id);
        return answer(undefined);
      },
      bringBack: (id: string) => {
        server.back.push(id);
        return answer(undefined);
      },
    },
  };
});
const small = () => {
  const { project, priceBook } = readProjectFile(wrenFile);
  return smallFoldOut(project, createDeriver().derive(project, priceBook));
};
const { Home } = await import('./Home.js');

function Where() {
  return <p data-testid="where">{useLocation().pathname}</p>;
}
/** A file that can be read: the page of the tests knows none of that. */
const fileOf = (name: string, text: string): File =>
  Object.assign(new File([text], name, { type: 'application/json' }), { text: () => Promise.resolve(text) });
const show = () =>
  render(
    <MemoryRouter>
      <Where />
      <Routes>
        <Route path="*" element={<Home />} />
      </Routes>
    </MemoryRouter>,
  );
const where = (): string => screen.getByTestId('where').textContent ?? '';

beforeEach(() =>
  Object.assign(server, { projects: [], bin: [], created: [], removed: [], back: [], imported: [], refuses: null }),
);
afterEach(cleanup);

describe('the first page', () => {
  it('says how one begins while there is nothing', async () => {
    show();
    expect(await screen.findByText(/first|begin|no build/i, { selector: '.empty' })).toBeTruthy();
    expect(screen.queryByRole('list')).toBeNull();
  });
  it('lists builds with their drawing and how far they have got; one that cannot be drawn is listed all the same', async () => {
    server.projects = [item('wren'), item('rook', 'bus')];
    show();
    const [wren, rook] = await screen.findAllByRole('listitem');
    if (!wren || !rook) throw new Error('there are two');
    const state = small()?.state;
    if (!state) throw new Error('Wren is measured');
    expect(await within(wren).findByText(new RegExp(`${state.readings} `))).toBeTruthy();
    expect(wren.querySelectorAll('svg path').length).toBeGreaterThan(5);
    expect(rook.querySelectorAll('svg rect')).toHaveLength(3);
    expect(within(wren).getByRole('link').getAttribute('href')).toBe('/build/wren/layout');
  });
  it('puts a build into the bin only after it was asked, and brings it back', async () => {
    const user = userEvent.setup();
    server.projects = [item('wren')];
    server.bin = [{ id: 'old', name: 'Old', until: '2026-12-20T00:00:00.000Z' }];
    show();
    await user.click(await screen.findByRole('button', { name: /Wren$/ }));
    expect(server.removed).toEqual([]);
    await user.click(within(screen.getByRole('dialog')).getByRole('button', { name: /^Remove|^Delete|bin/i }));
    expect(server.removed).toEqual(['wren']);
    await user.click(screen.getByRole('button', { name: /Old$/ }));
    expect(server.back).toEqual(['old']);
  });
  it('opens a file, and says which one was refused and why', async () => {
    const user = userEvent.setup();
    show();
    const input = document.querySelector<HTMLInputElement>('input[type=file]');
    if (!input) throw new Error('a file can be chosen');
    await user.upload(input, fileOf('van.json', '{"a":1}'));
    await vi.waitFor(() => expect(where()).toBe('/build/wren-2/layout'));
    expect(server.imported).toEqual(['{"a":1}']);
    server.refuses = 'That is no project.';
    await user.upload(input, fileOf('torn.json', 'x'));
    expect(await screen.findByText(/torn\.json: That is no project\./)).toBeTruthy();
  });
  it('does not even read a file that is far too large', async () => {
    show();
    const input = document.querySelector<HTMLInputElement>('input[type=file]');
    const large = new File(['x'], 'large.json', { type: 'application/json' });
    Object.defineProperty(large, 'size', { value: 25 * 1024 * 1024 });
    await userEvent.upload(input as HTMLInputElement, large);
    expect(await screen.findByText(/25/)).toBeTruthy();
    expect(server.imported).toEqual([]);
  });
});

describe('a new build', () => {
  const begin = async () => {
    const user = userEvent.setup();
    show();
    await user.click(await screen.findByRole('button', { name: /^(New|Begin|Start)/ }));
    return { user, dialog: screen.getByRole('dialog') };
  };
  const create = (dialog: HTMLElement): HTMLElement =>
    within(dialog)
      .getAllByRole('button')
      .filter((button) => button.getAttribute('type') === 'submit')[0] as HTMLElement;

  it('wants a name, at its field, and is not sent without', async () => {
    const { user, dialog } = await begin();
    await user.click(create(dialog));
    const name = within(dialog).getAllByRole('textbox')[0] as HTMLInputElement;
    await vi.waitFor(() => expect(name.getAttribute('aria-invalid')).toBe('true'));
    expect(server.created).toEqual([]);
  });
  it('begins with the measuring, in the units that were chosen', async () => {
    const { user, dialog } = await begin();
    const [name] = within(dialog).getAllByRole('textbox');
    await user.type(name as HTMLElement, 'Heron');
    await user.click(create(dialog));
    await vi.waitFor(() => expect(where()).toBe('/build/new/measure'));
    expect(server.created).toEqual([expect.objectContaining({ name: 'Heron', kind: 'van', units: 'mm' })]);
    expect(server.created[0]).not.toHaveProperty('practiceSeed');
  });
  it('keeps what was typed when it is refused, and says why', async () => {
    const { user, dialog } = await begin();
    server.refuses = 'There is one of that name.';
    const [name] = within(dialog).getAllByRole('textbox');
    await user.type(name as HTMLElement, 'Heron');
    await user.click(create(dialog));
    expect(await within(dialog).findByText('There is one of that name.')).toBeTruthy();
    expect((name as HTMLInputElement).value).toBe('Heron');
    expect(where()).toBe('/');
  });
  it('for practice asks for a number, and refuses what is none', async () => {
    const { user, dialog } = await begin();
    await user.type(within(dialog).getAllByRole('textbox')[0] as HTMLElement, 'Try');
    await user.click(within(dialog).getByRole('checkbox'));
    const seed = within(dialog).getAllByRole('textbox').at(-1) as HTMLInputElement;
    await user.clear(seed);
    await user.type(seed, 'seven');
    await user.click(create(dialog));
    await vi.waitFor(() => expect(seed.getAttribute('aria-invalid')).toBe('true'));
    await user.clear(seed);
    await user.type(seed, '7');
    await user.click(create(dialog));
    await vi.waitFor(() => expect(server.created).toEqual([expect.objectContaining({ practiceSeed: 7 })]));
  });
});
