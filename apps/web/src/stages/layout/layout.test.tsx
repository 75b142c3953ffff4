// @vitest-environment jsdom
import { act as act_, cleanup, configure, fireEvent, render, screen, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Operation, Project, ProjectFile, Unit, Wish } from '@nestplank/core/document';
import {
  createDeriver,
  layoutCases,
  layoutFigures,
  mendAll,
  type MendedAll,
  type Suggested,
  worsenedBy,
} from '@nestplank/core/derive';
import { message } from '@nestplank/core/words';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation, FAMILIES } from '@nestplank/core/furniture';
import type { Scene } from '../../state/scene.js';
import { foldOutFrame } from '../../foldout/geometry.js';
import { grouped, moveTogether } from '../../foldout/UnitLayer.js';
import { speechFor } from '../../words/speech.js';
import { look, useView } from '../../state/view.js';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';

// what is loaded when it is asked for takes its time on a busy machine
configure({ asyncUtilTimeout: 20_000 });

const worseIn = readProjectFile(wrenFile);
const acted: Operation[] = [];
let mends: readonly MendedAll[] = [];
const asked: unknown[] = [];
const proposed: Suggested[] = [];
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  act: (...operations: Operation[]) => {
    acted.push(...operations);
    return null;
  },
  // no worker stands behind the panels here
  stopAsking: () => undefined,
  previewActions: () => undefined,
  askProposals: (wishes: unknown, seed: number, each: (found: Suggested) => void) => {
    asked.push([wishes, seed]);
    for (const found of proposed) each(found);
    return Promise.resolve();
  },
  askLayouts: () => Promise.resolve(layoutCases(wren.project, wren.priceBook)),
  askWorse: (operations: readonly Operation[], check: string) =>
    Promise.resolve(worsenedBy(worseIn.project, worseIn.priceBook, operations, check)),
  askMends: (each: (found: MendedAll) => void) => {
    for (const found of mends) each(found);
    return Promise.resolve();
  },
}));
const { ChecksPanel } = await import('./ChecksPanel.js');
const { GapOffers } = await import('./GapAsk.js');
const { ModesRow, ModeTold } = await import('./ModesRow.js');
const { Weight } = await import('./Weight.js');
const { RunCuts } = await import('../../slice/RunCuts.js');
const { Works } = await import('../../slice/Works.js');
const { Suggest } = await import('./Suggest.js');
const { TryOut } = await import('./TryOut.js');
const { BedScale } = await import('./BedScale.js');
const { TraceLayer } = await import('./TraceLayer.js');
const { Variants } = await import('./Variants.js');
const { WishList } = await import('./WishList.js');
const { Things } = await import('./Things.js');
const { Runs } = await import('./Runs.js');
const { RunLayer } = await import('./RunLayer.js');
const { Goods } = await import('./Goods.js');
const { UnitStrip } = await import('./UnitStrip.js');
const { Bays } = await import('../build/Bays.js');
const { Elevation } = await import('../build/Elevation.js');
const { useSession } = await import('../../state/session.js');

const [wren, bulrush, thimble] = [wrenFile, bulrushFile, thimbleFile].map(readProjectFile) as [
  ProjectFile,
  ProjectFile,
  ProjectFile,
];
function sceneOf({ project, priceBook: book }: ProjectFile, ...operations: Operation[]): Scene {
  const changed = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, project);
  const derived = createDeriver().derive(changed, book);
  return { project: changed, book, shape: derived, derived, room: derived.inner, previewing: false };
}
const speech = speechFor(
  { units: 'mm', fraction: 16 },
  (id) => wren.project.layout.units.find((unit) => unit.id === id)?.name ?? null,
);
const user = userEvent.setup();
beforeEach(() => {
  acted.splice(0);
  look({ unit: null, gap: null, mode: null });
});
afterEach(cleanup);

describe('what does not fit', () => {
  const scene = sceneOf(wren);
  it('has more than one way to be mended: the first by one press, the others in a list', async () => {
    render(<ChecksPanel scene={scene} />, { wrapper: MemoryRouter });
    await user.click(screen.getByRole('button', { name: 'Mend: Move Bench 50 to the front' }));
    expect(acted).toEqual([{ name: 'changeUnit', payload: { id: 'bench', changes: { x: 1450 } } }]);
    await user.click(screen.getByRole('button', { name: /Other ways: Bed and Bench/ }));
    await user.click(screen.getByRole('menuitem', { name: 'Shorten Bench by 50' }));
    expect(acted.at(-1)).toEqual({ name: 'changeUnit', payload: { id: 'bench', changes: { x: 1500, length: 830 } } });
  });
  it('says what a mend would make worse before it is pressed', async () => {
    // the bench moved 500 on stands before nothing it does not stand before now; a bed that is raised costs headroom
    const raised = sceneOf(wren, { name: 'changeUnit', payload: { id: 'bed', changes: { height: 300 } } });
    Object.assign(worseIn, { project: raised.project });
    render(<ChecksPanel scene={raised} />, { wrapper: MemoryRouter });
    const told = raised.shape.checks.flatMap((check) => {
      const [mend] = check.mends;
      const worse = mend ? worsenedBy(raised.project, wren.priceBook, mend.operations, check.id) : [];
      return worse.length > 0 ? [{ check, worse }] : [];
    });
    const [one] = told;
    if (!one) throw new Error('no mend makes anything worse here');
    const note = document.querySelector(`[data-check="${one.check.id}"]`);
    if (!(note instanceof HTMLElement)) throw new Error('no note');
    expect(within(note).queryByText(/But then/)).toBeNull();
    await user.hover(note);
    expect((await within(note).findByText(/But then/)).textContent).toContain(
      speech.said(one.worse[0]?.said ?? one.check.said),
    );
    Object.assign(worseIn, { project: wren.project });
  });
  it('stands beside what cannot be made, in words: eight shelves in 300 leave nothing between them', () => {
    const crowded = sceneOf(
      wren,
      { name: 'changeUnit', payload: { id: 'tall', changes: { height: 300 } } },
      { name: 'changeUnit', payload: { id: 'tall', changes: { shelves: 8 } } },
    );
    const { unmount } = render(<ChecksPanel scene={crowded} />, { wrapper: MemoryRouter });
    expect(screen.getByText(/Tall cupboard, bay-1: 8 shelves leave \d+ between them/)).toBeTruthy();
    unmount();
    render(<ChecksPanel scene={scene} />, { wrapper: MemoryRouter });
    expect(screen.queryByText(/between them/)).toBeNull();
  });
  it('is put aside with a reason, and not without one', async () => {
    render(<ChecksPanel scene={scene} />, { wrapper: MemoryRouter });
    await user.click(screen.getAllByRole('button', { name: 'Put aside' })[0] as HTMLElement);
    const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Put it aside' });
    expect(keep.disabled).toBe(true);
    await user.type(screen.getByLabelText('Why it may stay so'), 'sawn off there');
    await user.click(keep);
    expect(acted[0]).toMatchObject({
      name: 'setAside',
      payload: { check: 'collision:bed:bench', reason: 'sawn off there' },
    });
  });
  it('keeps what was put aside in sight, without a number, and takes it up again', async () => {
    render(
      <ChecksPanel
        scene={sceneOf(wren, {
          name: 'setAside',
          payload: { check: 'collision:bed:bench', reason: 'sawn off there', at: '2026-11-27T09:00:00.000Z' },
        })}
      />,
      { wrapper: MemoryRouter },
    );
    expect(screen.getByText(/Put aside: sawn off there/)).toBeTruthy();
    expect(document.querySelector('[data-check="collision:bed:bench"] .note-mark')?.textContent).toBe('–');
    await user.click(screen.getByRole('button', { name: 'Take it up again' }));
    expect(acted).toEqual([{ name: 'takeUp', payload: { check: 'collision:bed:bench' } }]);
  });
  it('says why, and lets the project judge by figures of its own within their limits', async () => {
    const own = sceneOf(wren, {
      name: 'setFigure',
      payload: { rule: 'bed-edge', figure: 'tight', value: 900 },
    });
    // how it is judged is told by the project that is open
    useSession.setState({ project: own.project, priceBook: own.book, derived: own.derived });
    render(<ChecksPanel scene={own} />, { wrapper: MemoryRouter });
    const note = within(document.querySelector<HTMLElement>('[data-check="bed-edge:bed:joost"]') as HTMLElement);
    await user.click(note.getByRole('button', { name: /^Why/ }));
    expect(note.getByText(/Feet should find the floor or a step/)).toBeTruthy();
    const good = note.getByLabelText<HTMLInputElement>('over the back of the knee, good, mm');
    expect(note.getByLabelText<HTMLInputElement>('tight, mm').value).toBe('900');
    await user.clear(good);
    await user.type(good, '9000{Enter}');
    expect(note.getByText(/Between 0.* and 5.*000/)).toBeTruthy();
    expect(acted).toEqual([]);
    await user.clear(good);
    await user.type(good, '200{Enter}');
    await user.click(note.getByRole('button', { name: 'Take the usual figures' }));
    expect(acted.map(({ payload }) => payload)).toEqual([
      { rule: 'bed-edge', figure: 'over', value: 200 },
      { rule: 'bed-edge', figure: 'tight', value: null },
    ]);
    useSession.setState({ project: null, priceBook: null, derived: null });
  });
  it('is mended all at once only after it was said what that changes', async () => {
    mends = [mendAll(bulrush.project, bulrush.priceBook)];
    render(<ChecksPanel scene={sceneOf(bulrush)} />, { wrapper: MemoryRouter });
    await user.click(screen.getByRole('button', { name: 'Mend all' }));
    expect(acted).toEqual([]);
    expect(screen.getByText(/After these nothing fails/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Make these changes' }));
    expect(acted).toEqual(mends[0]?.operations);
  });
});

/** Wren with room to the left behind the cab. */
const roomy = (): Scene => sceneOf(wren, { name: 'removeUnit', payload: { id: 'tall' } });

describe('a free stretch', () => {
  it('offers what fits there, drawn small, to be taken by a press or by keys', async () => {
    const scene = roomy();
    look({ gap: { surface: 'left', x: 300, along: 400 } });
    render(<GapOffers scene={scene} />);
    expect(screen.getByText(/^690 long/)).toBeTruthy();
    const offers = screen.getAllByRole('button').filter((button) => button.className === 'offer');
    expect(offers.length).toBeGreaterThan(2);
    expect(document.activeElement).toBe(offers[0]);
    await user.keyboard('{ArrowDown}{Enter}');
    expect(acted[0]).toMatchObject({ name: 'placeUnit', payload: { unit: { family: 'seat' } } });
    expect(useView.getState().gap).toBeNull();
  });
  it('closes on Escape, and says nothing where something stands', async () => {
    look({ gap: { surface: 'left', x: 300, along: 400 } });
    render(<GapOffers scene={roomy()} />);
    await user.keyboard('{Escape}');
    expect(useView.getState().gap).toBeNull();
    cleanup();
    look({ gap: { surface: 'left', x: 1000, along: 400 } });
    render(<GapOffers scene={roomy()} />);
    expect(screen.queryByText('Free here')).toBeNull();
  });
});

describe('modes', () => {
  const scene = sceneOf(thimble);
  it('start as four by one press', async () => {
    const { modes, ...layout } = thimble.project.layout;
    void modes;
    render(<ModesRow scene={sceneOf({ ...thimble, project: { ...thimble.project, layout } })} />);
    await user.click(screen.getByRole('button', { name: /Start with night/ }));
    expect(acted.map(({ payload }) => (payload as { mode: { use: string } }).mode.use)).toEqual([
      'night',
      'day',
      'meal',
      'drive',
    ]);
  });
  it('say what moves into them, and what of the chosen unit is open', async () => {
    look({ mode: 'night', unit: 'bed' });
    render(<ModeTold scene={scene} />);
    expect(screen.getByText(/From Drive to Night/).parentElement?.textContent).toMatch(/1 bed, drawn out, 10 s/i);
    const states = within(screen.getByRole('group', { name: /bed, drawn out/i }));
    expect(states.getByRole('button', { name: 'open' }).getAttribute('aria-pressed')).toBe('true');
    await user.click(states.getByRole('button', { name: 'shut' }));
    expect(acted[0]).toMatchObject({ name: 'putMode', payload: { mode: { id: 'night', states: {} } } });
  });
});

describe('weight, data sheets and goods', () => {
  it('shows sides and axles by the same figures as are derived', () => {
    const scene = sceneOf(wren);
    render(<Weight scene={scene} />);
    const { weight } = scene.derived;
    expect(screen.getByText(`Left ${Math.round(weight.left)} kg · right ${Math.round(weight.right)} kg`)).toBeTruthy();
    expect(
      screen.getByText(
        new RegExp(
          `Front ${Math.round(weight.front ?? 0)
            .toString()
            .slice(-3)}|Front .*kg · rear`,
        ),
      ),
    ).toBeTruthy();
  });
  it('enters a mass of the papers, and takes it away again', async () => {
    render(<Weight scene={sceneOf(bulrush)} />);
    const most = screen.getByLabelText('May weigh at most, kg');
    await user.clear(most);
    await user.type(most, '7200{Enter}');
    expect(acted).toEqual([{ name: 'changeLimits', payload: { changes: { most: 7200 } } }]);
  });
  it('begins a data sheet as usual in the trade', async () => {
    render(<Things scene={sceneOf(wren)} />);
    await user.click(screen.getByRole('combobox', { name: 'Usual in the trade', hidden: true }));
    await user.click(screen.getByRole('option', { name: 'Water pump with filter' }));
    expect(acted[0]).toMatchObject({ name: 'putThing', payload: { thing: { id: 'pump', width: 200 } } });
  });
  it('keeps goods in a bay', async () => {
    render(<Goods scene={sceneOf(wren)} />);
    await user.click(screen.getByRole('button', { name: /Nipping press/, hidden: true }));
    await user.click(screen.getByRole('combobox', { name: 'Kept in', hidden: true }));
    await user.click(screen.getByRole('option', { name: 'Tall cupboard, bay-1' }));
    expect(acted[0]).toMatchObject({
      name: 'putStored',
      payload: { stored: { id: 'press', kept: { unit: 'tall', bay: 'bay-1' } } },
    });
  });
});

describe('a unit', () => {
  it('is put in by name where it fits best, copied beside itself and mirrored to the other wall', async () => {
    const scene = roomy();
    look({ unit: 'kitchen' });
    render(<UnitStrip scene={scene} />);
    await user.click(screen.getByRole('button', { name: /Put in by name/ }));
    await user.click(screen.getByRole('menuitem', { name: 'Tall cupboard' }));
    expect(acted[0]).toMatchObject({
      name: 'placeUnit',
      payload: { unit: { family: 'tall-cupboard', body: { stands: 'left', x: 0 } } },
    });
    look({ unit: 'kitchen' });
    await user.click(await screen.findByRole('button', { name: 'To the other side' }));
    expect(acted[1]).toMatchObject({ payload: { unit: { body: { stands: 'right', x: 690 } } } });
    look({ unit: 'kitchen' });
    await user.click(await screen.findByRole('button', { name: 'Copy' }));
    expect(acted[2]).toMatchObject({ payload: { unit: { body: { stands: 'left', x: 690 + 1445 } } } });
  });
  it('that is lowered between seats tells the bed it makes, and how its cushions are cut', () => {
    const bare = { ...wren.project, stored: [], wishes: [], variants: [], keptPlans: [], layout: { units: [] } };
    const { inner } = sceneOf({ ...wren, project: bare }).derived;
    if (!inner) throw new Error('Wren has a room');
    const made = (family: string, id: string, change: (unit: Unit) => Unit): Operation => {
      const found = FAMILIES.find((one) => one.id === family);
      if (!found) throw new Error(`there is no ${family}`);
      const unit = found.start({
        id,
        name: id,
        layout: bare.layout,
        people: bare.people,
        room: inner,
        book: wren.priceBook,
      });
      return { name: 'placeUnit', payload: { unit: change({ ...unit, id }) } };
    };
    const bench = (id: string, side: 'left' | 'right') =>
      made('seat', id, (unit) => ({
        ...unit,
        body: { stands: side, x: 1000, length: 1900, front: 400, from: 0, to: 400 },
        options: { ...unit.options, cushion: 80, backrest: 80 },
      }));
    const table = made('table', 'table', (unit) => ({
      ...unit,
      body: { stands: 'free', x: 1000, length: 1800, y: -380, width: 760, from: 0, to: 720 },
      options: { ...unit.options, stand: 'ledges', low: 400, loose: false },
    }));
    look({ unit: 'table' });
    const { unmount } = render(
      <UnitStrip scene={sceneOf({ ...wren, project: bare }, bench('Left', 'left'), bench('Right', 'right'), table)} />,
    );
    expect(screen.getByText(/Lowered it makes a bed of 1.800 along/).textContent).toMatch(
      /Over the middle: 2 backrests cut 1.800 x 400 x 80, upright behind the seats by day/,
    );
    unmount();
    // without seats it is a table
    render(<UnitStrip scene={sceneOf({ ...wren, project: bare }, table)} />);
    expect(screen.queryByText(/Lowered it makes a bed/)).toBeNull();
  });
  it('has bays that hold and close what is picked, latched from the start', async () => {
    const unit = wren.project.layout.units.find(({ id }) => id === 'tall');
    if (!unit) throw new Error('the demo has a tall cupboard');
    render(<Bays unit={unit} things={wren.project.things ?? []} skeleton={null} />);
    await user.click(screen.getByRole('combobox', { name: /Holds/ }));
    await user.click(screen.getByRole('option', { name: 'drawers' }));
    await user.click(screen.getByRole('combobox', { name: /Closed by/ }));
    await user.click(screen.getByRole('option', { name: 'flap, comes down' }));
    expect(acted).toEqual([
      {
        name: 'changeBay',
        payload: { id: 'tall', bay: 'bay-1', holds: { kind: 'drawers', count: 4, latch: true } },
      },
      { name: 'changeBay', payload: { id: 'tall', bay: 'bay-1', front: { kind: 'flap-down', latch: true } } },
    ]);
  });
});

describe('wishes', () => {
  const wish = (changes: Partial<Wish>): Operation => ({
    name: 'putWish',
    payload: {
      wish: {
        id: 'w9',
        text: 'A worktop for Joost',
        who: 'Joost',
        unit: 'kitchen',
        rule: null,
        signed: null,
        ...changes,
      },
    },
  });
  const open = async (text: string): Promise<void> => {
    await user.click(screen.getByText('Wishes', { selector: 'summary h2' }));
    await user.click(screen.getByRole('button', { name: new RegExp(text) }));
  };
  it('are decided by the checks of their rule, and lead to where it is so', async () => {
    const scene = sceneOf(wren, wish({ rule: 'worktop-height' }));
    const checks = scene.shape.checks.filter(({ rule }) => rule === 'worktop-height');
    expect(checks.length).toBeGreaterThan(0);
    render(<WishList scene={scene} />);
    await open('A worktop for Joost');
    for (const { said } of checks) expect(screen.getByRole('button', { name: speech.said(said) })).toBeTruthy();
    const [worst] = checks;
    if (!worst) throw new Error('the worktop is checked');
    await user.click(screen.getByRole('button', { name: speech.said(worst.said) }));
    expect(useView.getState().sliceX).toBe(worst.x);
  });
  it('are signed off by hand where no rule decides them, and the signature is taken back', async () => {
    const scene = sceneOf(wren, wish({}));
    const { rerender } = render(<WishList scene={scene} />);
    await open('A worktop for Joost');
    await user.click(screen.getByRole('button', { name: 'Sign it off' }));
    expect(acted[0]).toMatchObject({ name: 'putWish', payload: { wish: { id: 'w9' } } });
    rerender(<WishList scene={sceneOf(wren, wish({ signed: '2026-11-05T08:00:00.000Z' }))} />);
    expect(screen.getByText('Signed off on 2026-11-05.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Take the signature back' }));
    expect(acted[1]).toMatchObject({ payload: { wish: { signed: null } } });
  });
  it('stand at the unit they concern, and at the note that decides them', () => {
    const scene = sceneOf(wren, wish({ rule: 'worktop-height' }));
    look({ unit: 'kitchen' });
    render(<UnitStrip scene={scene} />);
    expect(screen.getByRole('list', { name: 'Wishes' }).textContent).toContain('A worktop for Joost');
    cleanup();
    const good = scene.shape.checks.find(({ rule, unit }) => rule === 'worktop-height' && unit === 'kitchen');
    render(<ChecksPanel scene={scene} />, { wrapper: MemoryRouter });
    if (good?.grade === 'good') expect(screen.queryByText(/Wish \(Joost\): A worktop/)).toBeNull();
    else expect(screen.getAllByText(/Wish \(Joost\): A worktop/).length).toBeGreaterThan(0);
  });
});

describe('trying it for real', () => {
  const open = async (scene: Scene, name: string): Promise<void> => {
    render(<TryOut scene={scene} />);
    await user.click(screen.getByText('Try it for real', { selector: 'summary h2' }));
    await user.click(screen.getByRole('button', { name: new RegExp(`^${name}`) }));
  };
  it('tells the corners of an outline and ticks it off with them', async () => {
    await open(sceneOf(wren), 'Kitchen');
    const drawing = screen.getByRole('img', { name: 'Outline of Kitchen on the floor' });
    expect(drawing.textContent).toContain('690 ↕');
    expect(drawing.textContent).toContain('370 ↔');
    await user.click(screen.getByRole('checkbox', { name: 'taped' }));
    expect(acted[0]).toMatchObject({ name: 'putTaped', payload: { unit: 'kitchen' } });
    expect((acted[0]?.payload as { corners: number[][] }).corners[0]).toEqual([690, -370]);
  });
  it('says what has to be taped anew once the unit has moved', async () => {
    const now = sceneOf(wren);
    await open(now, 'Kitchen');
    await user.click(screen.getByRole('checkbox', { name: 'taped' }));
    const taped = acted[0];
    if (!taped) throw new Error('it was ticked off');
    cleanup();
    const later = sceneOf(wren, taped, { name: 'changeUnit', payload: { id: 'kitchen', changes: { x: 700 } } });
    await open(later, 'Kitchen');
    expect(screen.getByText(/has moved since/)).toBeTruthy();
    expect(screen.getAllByText(/10 mm to the rear/)).toHaveLength(4);
    await user.click(screen.getByRole('checkbox', { name: 'taped anew' }));
    expect((acted[1]?.payload as { corners: number[][] }).corners[0]).toEqual([700, -370]);
  });
  it('takes back into the plan what was found on the floor', async () => {
    await open(sceneOf(wren), 'Kitchen');
    const take = screen.getByRole('button', { name: 'Take as found' });
    expect(take.hasAttribute('disabled')).toBe(true);
    const field = screen.getByRole('textbox', { name: /Behind the datum/ });
    await user.clear(field);
    await user.type(field, '720{Enter}');
    await user.click(screen.getByRole('button', { name: 'Take as found' }));
    expect(acted[0]).toMatchObject({
      name: 'replaceUnit',
      payload: { unit: { id: 'kitchen', body: { x: 720, front: 370 } } },
    });
  });
});

describe('files and figures beside the drawing', () => {
  it('take data sheets from a file as one step, and name the row that cannot be right', async () => {
    render(<Things scene={sceneOf(wren)} />);
    await user.click(screen.getByText('Appliances and things', { selector: 'summary h2' }));
    const file = new File([], 'sheets.csv');
    // the page of the tests has no reader of files
    const text = 'id,name,kind,width,depth,height,mass\nkettle,Kettle,own,200,200,250,1\nx,X,own,0,1,1,1\n';
    Object.assign(file, { text: () => Promise.resolve(text) });
    await user.upload(screen.getByLabelText(/Data sheets as a file: /, { selector: 'input' }), file);
    expect((await screen.findByRole('status')).textContent).toMatch(/3/);
    await user.click(screen.getByRole('button', { name: 'Take them' }));
    expect(acted).toMatchObject([{ name: 'putThing', payload: { thing: { id: 'kettle', width: 200 } } }]);
  });
  it('tell what the fixings of every unit hold on the road, the heaviest first', async () => {
    const scene = sceneOf(wren);
    render(<Weight scene={scene} />);
    await user.click(screen.getByText('Weight', { selector: 'summary h2' }));
    const lines = within(screen.getByRole('region', { name: 'To hold on the road' })).getAllByRole('listitem');
    expect(lines).toHaveLength(scene.project.layout.units.length);
    const newtons = lines.map(({ textContent }) => Number(/, (\d+) N/.exec(textContent ?? '')?.[1]));
    expect([...newtons].sort((a, b) => b - a)).toEqual(newtons);
  });
  it('show masses nobody looked up as nothing, not as a figure', async () => {
    const { limits, ...rest } = wren.project;
    expect(limits).toBeDefined();
    render(<Weight scene={sceneOf({ ...wren, project: rest })} />);
    await user.click(screen.getByText('Weight', { selector: 'summary h2' }));
    expect(screen.getByRole('textbox', { name: 'May weigh at most, kg' })).toHaveProperty('value', '');
    expect(screen.getByRole('textbox', { name: /Rear axle, behind the datum/ })).toHaveProperty('value', '');
  });
  it('draw a bed into the heights at which everybody sits up and finds the floor', () => {
    look({ unit: 'bed' });
    const { rerender } = render(<BedScale scene={sceneOf(wren)} />);
    expect(screen.getByText(/Everybody sits up and finds the floor/)).toBeTruthy();
    const slider = screen.getByRole('slider', { name: 'Height of the platform of Bed' });
    expect(slider).toHaveProperty('value', '720');
    fireEvent.change(slider, { target: { value: 480 } });
    expect(acted).toEqual([{ name: 'changeUnit', payload: { id: 'bed', changes: { height: 480 } } }]);
    // it stays where the hand put it until what follows from it is shown
    expect([slider, screen.getByText('480 mm')]).toMatchObject([{ value: '480' }, expect.anything()]);
    const lower = (to: number): ProjectFile => ({
      ...wren,
      project: {
        ...wren.project,
        layout: {
          ...wren.project.layout,
          units: wren.project.layout.units.map((unit) =>
            unit.id === 'bed' ? { ...unit, body: { ...unit.body, to } } : unit,
          ),
        },
      },
    });
    rerender(<BedScale scene={sceneOf(lower(480))} />);
    expect(slider).toHaveProperty('value', '480');
    // taken back from elsewhere it goes with it
    rerender(<BedScale scene={sceneOf(lower(700))} />);
    expect(slider).toHaveProperty('value', '700');
  });

  it('enter what a thing is connected to, from where it is looked after, its air and its cut-out', async () => {
    render(<Things scene={sceneOf(wren)} />);
    await user.click(screen.getByRole('button', { name: /Sink with drainer/, hidden: true }));
    await user.click(
      within(screen.getByRole('group', { name: 'Connected to' })).getByRole('button', { name: 'waste' }),
    );
    expect(acted[0]).toMatchObject({ payload: { thing: { id: 'sink-square', connects: ['water'] } } });
    await user.click(
      within(screen.getByRole('group', { name: 'Looked after from its' })).getByRole('button', { name: 'foot' }),
    );
    expect(acted[1]).toMatchObject({ payload: { thing: { service: ['front', 'foot'] } } });
    const inlet = screen.getByRole('textbox', { name: 'Air in, cm²' });
    expect(inlet).toHaveProperty('value', '');
    await user.type(inlet, '120{Enter}');
    expect(acted[2]).toMatchObject({ payload: { thing: { air: { inlet: 120, outlet: 0 } } } });
    const price = screen.getByRole('textbox', { name: /price/i });
    await user.clear(price);
    await user.type(price, '135.50{Enter}');
    expect(acted.at(-1)).toMatchObject({ payload: { thing: { price: 13550 } } });
    acted.splice(3);
    const cut = screen.getByRole('textbox', { name: /Cut-out along its front/ });
    await user.clear(cut);
    await user.type(cut, '530{Enter}');
    expect(acted[3]).toMatchObject({ payload: { thing: { cutOut: { length: 530, width: 420, radius: 20 } } } });
  });

  it('set kept layouts beside the one that stands: figures, what differs, what is cut already, what is bought otherwise', async () => {
    render(<Variants scene={sceneOf(wren)} />);
    await user.click(screen.getAllByText('Other layouts')[0] as HTMLElement);
    await user.click(screen.getByRole('button', { name: 'Set them beside each other' }));
    const table = within(await screen.findByRole('table'));
    const [now, , , byThings] = layoutCases(wren.project, wren.priceBook);
    if (!now || !byThings) throw new Error('Wren keeps three layouts');
    const row = within(table.getByRole('row', { name: /^money, EUR/ }))
      .getAllByRole('cell')
      .map(({ textContent }) => Number(textContent.replace(/\D/g, '')));
    expect(row).toHaveLength(4);
    expect([row[0], row[3]]).toEqual([now, byThings].map(({ figures }) => Math.round(figures.cost / 100)));
    const text = document.body.textContent;
    // by names, not by addresses, and with the size that tells two sheets of one name apart
    expect(text).toContain('Bench clear of the bed touches what is cut already: Bench top');
    expect(text).not.toContain('bench.top');
    expect(text).toContain('Kitchen by its appliances buys otherwise: ');
    expect(text).toMatch(/Birch plywood 15 \(2.500 × 1.250\): 2, was 4/);
  });
  it('lay a kept layout over the one that stands, and take it off again', async () => {
    const scene = sceneOf(wren);
    const [variant] = scene.project.variants ?? [];
    const { room } = scene;
    if (!variant || !room) throw new Error('Wren has kept layouts');
    render(<Variants scene={scene} />);
    await user.click(screen.getByText('Other layouts'));
    const over = screen.getByRole('button', { name: `Lay ${variant.name} over it` });
    await user.click(over);
    expect(useView.getState().traced).toBe(variant.id);
    const frame = foldOutFrame(room, 900, 600);
    render(
      <svg>
        <TraceLayer frame={frame} scene={scene} />
      </svg>,
    );
    const drawn = screen.getByRole('img', { name: variant.name });
    expect(drawn.querySelectorAll('path')).toHaveLength(variant.layout.units.length);
    await user.click(over);
    expect(useView.getState().traced).toBeNull();
  });
});

describe('what runs through the furniture', () => {
  it('is named first, then led from a bay to a place of its own', async () => {
    const { rerender } = render(<Runs scene={sceneOf(bulrush)} />);
    await user.click(screen.getAllByText('Cables, pipes and ducts')[0] as HTMLElement);
    await user.type(screen.getByLabelText('What runs'), 'Water to the sink{Enter}');
    expect(acted[0]).toMatchObject({
      name: 'putRun',
      payload: { run: { id: 'run1', name: 'Water to the sink', kind: 'cable', from: null, to: null, via: [] } },
    });
    rerender(<Runs scene={sceneOf(bulrush, ...acted)} />);
    expect(screen.getByText('cable, an end of it is nowhere yet')).toBeTruthy();
    await user.click(screen.getByRole('combobox', { name: 'From' }));
    await user.click(screen.getByRole('option', { name: 'Galley, sink' }));
    expect(acted.at(-1)).toMatchObject({ payload: { run: { from: { unit: 'galley', bay: 'sink' } } } });
  });
  it('tells its holes with what is left beside them, by the figures that are checked', async () => {
    const scene = sceneOf(bulrush);
    render(<Runs scene={scene} />);
    await user.click(screen.getAllByText('Cables, pipes and ducts')[0] as HTMLElement);
    await user.click(screen.getByRole('button', { name: /Feed of the lamps/ }));
    const holes = scene.derived.runs.holes.filter(({ runs }) => runs.includes('lamp'));
    expect(holes).toHaveLength(2);
    expect(screen.getAllByText(/through (Galley|Lower bunk), .*of wood left/)).toHaveLength(2);
    expect(screen.getByText(/licensed trades/)).toBeTruthy();
    // a cable is bent without anything being bought for it; a pipe is not
    expect(screen.getByText(/^Bought as .* as it lies/).textContent).not.toContain('bend');
    await user.click(screen.getByRole('button', { name: /Waste of the sink/ }));
    const waste = scene.derived.runs.placed.find(({ run }) => run.id === 'waste');
    expect(screen.getByText(/bends? and what joins/).textContent).toContain(`; ${waste?.bends ?? NaN} bend`);
  });
  it('is led by hand from where it lies, and finds its own way again', async () => {
    const { rerender } = render(<Runs scene={sceneOf(bulrush)} />);
    await user.click(screen.getAllByText('Cables, pipes and ducts')[0] as HTMLElement);
    await user.click(screen.getByRole('button', { name: /Feed of the lamps/ }));
    await user.click(screen.getByRole('button', { name: 'Add a place on its way' }));
    const led = acted.at(-1) as Extract<Operation, { name: 'putRun' }>;
    expect(led.payload.run.via.length).toBeGreaterThan(0);
    const before = sceneOf(bulrush).derived.runs.placed.find(({ run }) => run.id === 'lamp')?.length ?? NaN;
    const scene = sceneOf(bulrush, led);
    // the corners are in whole millimetres
    expect(scene.derived.runs.placed.find(({ run }) => run.id === 'lamp')?.length).toBeCloseTo(before, -1);
    rerender(<Runs scene={scene} />);
    await user.click(screen.getByRole('button', { name: 'Let it find its own way' }));
    expect(acted.at(-1)).toMatchObject({ payload: { run: { via: [] } } });
  });
  it('is drawn on the fold-out, and called by its name where it ends', () => {
    const scene = sceneOf(bulrush);
    const { room } = scene;
    if (!room) throw new Error('it is measured');
    const frame = foldOutFrame(room, 900, 600);
    look({ unit: 'galley' });
    render(
      <svg>
        <RunLayer frame={frame} scene={scene} />
      </svg>,
    );
    expect(screen.getAllByRole('img').map((one) => one.getAttribute('aria-label'))).toHaveLength(3);
    expect(screen.getByText('Gas to the hob')).toBeTruthy();
  });
});

describe('what one wishes and holds', () => {
  it('shows a mode while its key is held, and not while somebody types', () => {
    render(
      <>
        <ModesRow scene={sceneOf(thimble)} />
        <input aria-label="a field" />
      </>,
    );
    const modes = thimble.project.layout.modes ?? [];
    look({ mode: modes[2]?.id ?? null });
    fireEvent.keyDown(document.body, { key: 'd' });
    expect(useView.getState().mode).toBe(modes[1]?.id);
    fireEvent.keyDown(document.body, { key: 'a' });
    expect(useView.getState().mode).toBe(modes[1]?.id);
    fireEvent.keyUp(document.body, { key: 'd' });
    expect(useView.getState().mode).toBe(modes[2]?.id);
    fireEvent.keyDown(screen.getByLabelText('a field'), { key: 'd' });
    expect(useView.getState().mode).toBe(modes[2]?.id);
  });
  it('asks for arrangements with the weights and the start that are picked', async () => {
    render(<Suggest scene={sceneOf(wren)} />);
    await user.click(screen.getAllByText('Suggest arrangements')[0] as HTMLElement);
    await user.click(within(screen.getByRole('group', { name: 'Storage' })).getByRole('button', { name: 'much' }));
    await user.click(within(screen.getByRole('group', { name: 'Worktop' })).getByRole('button', { name: 'not' }));
    const start = screen.getByLabelText('Start of the search, any number');
    await user.clear(start);
    await user.type(start, '7{Enter}');
    // what is built in is picked: the sink, the cooker and the cold box, not every data sheet there is
    const builtIn = within(screen.getByRole('group', { name: 'Built into its runs of cupboards' }));
    expect(builtIn.getAllByRole('checkbox', { checked: true })).toHaveLength(3);
    await user.click(builtIn.getByRole('checkbox', { name: 'Cold box 20 l, lid' }));
    await user.click(builtIn.getByRole('checkbox', { name: 'Battery 200 Ah' }));
    await user.click(screen.getByRole('button', { name: 'Look for arrangements' }));
    expect(asked).toEqual([
      [
        expect.objectContaining({
          things: ['cooker-spirit', 'sink-round', 'battery-200'],
          weights: { storage: 3, worktop: 0, way: 1, glass: 1, comfort: 1 },
        }),
        7,
      ],
    ]);
  });
  it('shows what was found with its figures, what it gave up and why others lost, and starts from it', async () => {
    const scene = sceneOf(wren);
    const { layout } = scene.project;
    proposed.splice(0, Infinity, {
      tried: 9,
      lost: [
        { rule: 'no-room:seat', said: message('suggest.noRoom', { name: 'Seat' }), count: 5 },
        { rule: 'sweep', said: message('suggest.rule', { title: 'Doors open' }), count: 2 },
      ],
      proposals: [
        {
          layout: { ...layout, units: layout.units.slice(0, 2) },
          figures: layoutFigures(scene.project, scene.derived, { families: FAMILIES }, scene.book),
          score: 1,
          without: [message('gave.sleeper', { who: 'Joost' })],
          gaveUp: [message('gave.storage', { litres: 120 })],
        },
      ],
    });
    render(<Suggest scene={scene} />);
    await user.click(screen.getAllByText('Suggest arrangements')[0] as HTMLElement);
    await user.click(screen.getByRole('button', { name: 'Look for arrangements' }));
    const told = await screen.findByRole('status');
    expect(told.textContent).toContain('9 arrangements built.');
    expect(told.textContent).toContain('no free stretch takes it: Seat (5 ×); Doors open (2 ×)');
    expect(told.textContent).toContain('Arrangement 1Wished for and not in it: nowhere to lie for Joost');
    expect(told.textContent).toContain('gave up 120 litres less to keep things in');
    // what it comes to: the same lines as where layouts are set beside each other
    for (const name of ['least comfort', 'worktop', 'glass free', 'sheets'])
      expect(within(told).getByText(name)).toBeTruthy();
    expect(within(told).getByText('worktop').nextSibling?.textContent).toBe('1\u202f445');
    await user.click(screen.getByRole('button', { name: 'Start from this' }));
    expect(acted.map(({ name }) => name)).toEqual([
      'keepLayout',
      ...layout.units.map(() => 'removeUnit'),
      'placeUnit',
      'placeUnit',
    ]);
    proposed.splice(0);
  });
  it('tells what a unit takes from axle to axle when it is moved: its mass times 100 over the wheelbase', () => {
    const scene = sceneOf(wren);
    const { limits } = scene.project;
    const between = (limits?.rearAxle ?? NaN) - (limits?.frontAxle ?? NaN);
    for (const { kg, lever } of scene.derived.weight.units) expect(lever).toBeCloseTo((kg * 100) / between, 9);
    render(<Weight scene={scene} />);
    expect(screen.getAllByText(/from the front axle to the rear one/).length).toBe(scene.derived.weight.units.length);
  });
});

describe('somebody at the worktop', () => {
  it('leans over it in the slice, with the head round the hip and the hand round the shoulder', () => {
    const scene = sceneOf(wren);
    const { room } = scene;
    if (!room) throw new Error('it is measured');
    // one tenth of a millimetre a pixel would do: here one to one
    const view = { scale: 1, at: (y: number, z: number): [number, number] => [y, -z] };
    const strikes = vi.fn(() => true);
    const { container } = render(
      <svg>
        <Works
          project={scene.project}
          room={room}
          boards={scene.shape.made.flatMap(({ skeleton }) => skeleton?.boards ?? [])}
          x={1400}
          view={view}
          strikes={strikes}
          speech={speech}
        />
      </svg>,
    );
    expect(screen.getByRole('img', { name: /leans over Kitchen/ })).toBeTruthy();
    const tallest = Math.max(...scene.project.people.map(({ stature }) => stature));
    const [reach, head] = [...container.querySelectorAll('path')].map((path) => path.getAttribute('d') ?? '');
    // it begins upright: straight over the hip, at the crown
    const [, y = NaN, z = NaN] = /^M(-?[\d.]+) (-?[\d.]+)/.exec(head ?? '')?.map(Number) ?? [];
    expect(-z).toBeCloseTo(room.floor + tallest, 0);
    // the front at 370, a top that stands out over it by 20, and 100 before that
    const kitchen = scene.project.layout.units.find(({ id }) => id === 'kitchen');
    const out = Number(kitchen?.options['overhang']);
    expect(y).toBeCloseTo(-(370 - out - 100), 0);
    // it ends on the worktop below, not in the cupboard
    const top = room.floor + (kitchen?.body.to ?? NaN);
    for (const [, up = ''] of (reach ?? '').matchAll(/[ML]-?[\d.]+ (-?[\d.]+)/g))
      expect(-Number(up)).toBeGreaterThan(top - 25);
    expect(strikes).toHaveBeenCalledWith('kitchen', expect.any(String));
    expect(container.querySelector('circle')?.getAttribute('stroke')).toBe('var(--needs)');
  });
});

describe('what runs through the furniture, in the slice', () => {
  it('is cut through as a ring as wide as it is where it crosses, and is nowhere else', () => {
    const scene = sceneOf(bulrush);
    const view = { scale: 1, at: (y: number, z: number): [number, number] => [y, -z] };
    const lamp = scene.derived.runs.placed.find(({ run }) => run.id === 'lamp');
    const [a, b] =
      lamp?.points.flatMap((from, i, all) =>
        Math.abs((all[i + 1]?.[0] ?? from[0]) - from[0]) > 100 ? [from, all[i + 1] ?? from] : [],
      ) ?? [];
    if (!lamp || !a || !b) throw new Error('it lies along the vehicle somewhere');
    const drawnAt = (x: number) => {
      const { container, unmount } = render(
        <svg>
          <RunCuts runs={[lamp]} x={x} view={view} speech={speech} />
        </svg>,
      );
      const rings = [...container.querySelectorAll('circle')].map((ring) =>
        ['cx', 'cy', 'r'].map((name) => Number(ring.getAttribute(name))),
      );
      unmount();
      return rings;
    };
    const middle = (a[0] + b[0]) / 2;
    const [[y = NaN, up = NaN, r = NaN] = []] = drawnAt(middle);
    expect([y, -up, r]).toEqual([
      expect.closeTo((a[1] + b[1]) / 2, 6),
      expect.closeTo((a[2] + b[2]) / 2, 6),
      expect.closeTo(lamp.run.diameter / 2, 6),
    ]);
    expect(drawnAt(Math.max(...lamp.points.map(([x]) => x)) + 500)).toEqual([]);
  });
});

describe('units that are moved together', () => {
  const { units } = wren.project.layout;
  const named = (id: string) => {
    const unit = units.find((own) => own.id === id);
    if (!unit) throw new Error(id);
    return unit;
  };
  it('keep their places to each other, whatever one of them is drawn to', () => {
    const [kitchen, overhead] = [named('kitchen'), named('overhead-left')];
    const operations = moveTogether(
      kitchen,
      { name: 'changeUnit', payload: { id: 'kitchen', changes: { x: 735.5, front: 360 } } },
      [overhead, named('bed')],
    );
    const x = (id: string) =>
      operations.flatMap((one) => (one.name === 'changeUnit' && one.payload.id === id ? [one.payload.changes] : []))[0];
    expect(x('overhead-left')).toEqual({ x: overhead.body.x + 45.5, front: 510 });
    // what reaches from wall to wall is moved along only
    expect(x('bed')).toEqual({ x: named('bed').body.x + 45.5 });
  });
  it('are more than one: the one that is chosen and those added to it', () => {
    expect(grouped([], null, 'a')).toEqual([]);
    expect(grouped([], 'a', 'b')).toEqual(['a', 'b']);
    expect(grouped(['a', 'b'], 'a', 'c')).toEqual(['a', 'b', 'c']);
    expect(grouped(['a', 'b'], 'a', 'b')).toEqual([]);
  });
  it('are put together with Shift in the row, told by name, and parted', async () => {
    look({ unit: 'kitchen', together: [] });
    render(<UnitStrip scene={sceneOf(wren)} />, { wrapper: MemoryRouter });
    fireEvent.click(screen.getByRole('button', { name: 'Left overhead' }), { shiftKey: true });
    expect(screen.getByText('Moved together: Kitchen, Left overhead.')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Part them' }));
    expect(useView.getState().together).toEqual([]);
  });
});

describe('the dividers of a unit', () => {
  const scene = sceneOf(bulrush);
  const galley = scene.project.layout.units.find(({ id }) => id === 'galley');
  const skeleton = scene.shape.made.find(({ unit }) => unit === 'galley')?.skeleton ?? null;
  if (!galley || !skeleton) throw new Error('Bulrush has a galley');
  it('are taken hold of: a step of the arrows makes the bay before it larger, seen from the front', () => {
    render(<Bays unit={galley} things={[]} skeleton={skeleton} />);
    const [first] = screen.getAllByRole('slider');
    if (!first) throw new Error('it is divided');
    const clear = Number(first.getAttribute('aria-valuenow'));
    const room = skeleton.bays?.find(({ bay }) => bay.name === 'sink')?.room;
    expect(clear).toBe(Math.round((room?.x1 ?? 0) - (room?.x0 ?? 0)));
    // at the left wall the front of the vehicle is to the right: the sink grows to the left
    fireEvent.keyDown(first, { key: 'ArrowLeft' });
    expect(acted[0]).toMatchObject({
      name: 'sizeBay',
      payload: { id: 'galley', bay: 'sink', size: Math.round((clear + 5) / 5) * 5, beside: { side: 'after' } },
    });
    fireEvent.keyDown(first, { key: 'ArrowRight', shiftKey: true });
    const { payload } = acted[1] as Extract<Operation, { name: 'sizeBay' }>;
    expect(payload.size).toBe(Math.round((clear - 50) / 5) * 5);
    const after = sceneOf(bulrush, acted[0] as Operation);
    const now = after.shape.made
      .find(({ unit }) => unit === 'galley')
      ?.skeleton?.bays?.find(({ bay }) => bay.name === 'sink');
    expect((now?.room.x1 ?? 0) - (now?.room.x0 ?? 0)).toBeCloseTo(Math.round((clear + 5) / 5) * 5, 6);
  });
  it('take from the other side, and nothing else moves, where every bay has a size of its own', () => {
    const before = sceneOf(wren);
    const unit = before.project.layout.units.find(({ id }) => id === 'kitchen');
    const roomsIn = ({ shape }: ReturnType<typeof sceneOf>) =>
      new Map(
        shape.made.find((own) => own.unit === 'kitchen')?.skeleton?.bays?.map(({ bay, room }) => [bay.name, room]),
      );
    const made = before.shape.made.find((own) => own.unit === 'kitchen')?.skeleton;
    if (!unit || !made) throw new Error('Wren has a kitchen');
    render(<Elevation unit={unit} skeleton={made} />);
    const was = roomsIn(before);
    const sliders = screen.getAllByRole('slider');
    // two uprights, one of them between columns that are both divided, and the one level that is a board
    expect(sliders).toHaveLength(3);
    for (const [i, slider] of sliders.entries()) {
      const upright = slider.getAttribute('aria-orientation') === 'horizontal';
      fireEvent.keyDown(slider, { key: upright ? 'ArrowLeft' : 'ArrowUp' });
      const operation = acted[i];
      if (operation?.name !== 'sizeBay') throw new Error('it is sized');
      const now = roomsIn(sceneOf(wren, operation));
      expect([...now.keys()]).toEqual([...was.keys()]);
      const ends = (rooms: typeof was): number[] =>
        [...new Set([...rooms.values()].flatMap((room) => (upright ? [room.x0, room.x1] : [room.z0, room.z1])))].map(
          (end) => Math.round(end * 100) / 100,
        );
      // of all that bays end at, the two faces of this divider alone are elsewhere
      expect(ends(now).filter((end) => !ends(was).includes(end)).length).toBe(2);
      expect(now.get(operation.payload.bay)).not.toEqual(was.get(operation.payload.bay));
    }
  });
  it('stay in the hand when they are drawn farther than can be made, and are as made when they are let go', () => {
    const { rerender } = render(<Elevation unit={galley} skeleton={skeleton} />);
    const before = screen.getAllByRole('slider').length;
    act_(() => useSession.setState({ preview: { project: scene.project, shape: null } }));
    const undivided = { ...skeleton, bays: [] };
    rerender(<Elevation unit={galley} skeleton={undivided} />);
    expect(screen.getAllByRole('slider')).toHaveLength(before);
    act_(() => useSession.setState({ preview: null }));
    rerender(<Elevation unit={galley} skeleton={undivided} />);
    expect(screen.queryByRole('slider')).toBeNull();
  });
  it('show the clear size of every bay, and nothing where there is nothing to move', () => {
    const { rerender } = render(<Elevation unit={galley} skeleton={skeleton} />);
    expect(screen.getAllByText(/×/)).toHaveLength(3);
    const plain = {
      ...galley,
      division: { name: 'one', holds: { kind: 'open' as const }, front: { kind: 'none' as const } },
    };
    rerender(<Elevation unit={plain} skeleton={skeleton} />);
    expect(screen.queryByRole('slider')).toBeNull();
  });
});
