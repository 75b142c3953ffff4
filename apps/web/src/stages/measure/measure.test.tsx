// @vitest-environment jsdom
import { cleanup, configure, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import { describeAddress, type Operation, type Project, type Reading } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation } from '@nestplank/core/furniture';
import type { Message } from '@nestplank/core/words';
import { say } from '@nestplank/core/words';
import type { Scene } from '../../state/scene.js';
import wrenFile from '../../../../../demo/wren.json?raw';

configure({ asyncUtilTimeout: 20_000 });

const acted: Operation[] = [];
let refuses: Message | null = null;
let scene: Scene;
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  act: (...operations: Operation[]) => {
    if (refuses) return refuses;
    acted.push(...operations);
    return null;
  },
}));
vi.mock('../../state/scene.js', async (original) => ({
  ...(await original<typeof import('../../state/scene.js')>()),
  useScene: () => scene,
}));
vi.mock('../../kit/use-size.js', () => ({ useSize: () => ({ ref: () => undefined, width: 340, height: 300 }) }));
const { useSession } = await import('../../state/session.js');
const { Keypad } = await import('./Keypad.js');
const { OpeningList } = await import('./OpeningList.js');
const { QualityPanel } = await import('./QualityPanel.js');
const { ReadingEntry } = await import('./ReadingEntry.js');
const { WalkPanel } = await import('./WalkPanel.js');
const { HoleList } = await import('./HoleList.js');

const { project: wren, priceBook: book } = readProjectFile(wrenFile);
function sceneOf(change: (project: Project) => Project = (project) => project, ...operations: Operation[]): Scene {
  const project = operations.reduce<Project>(
    (p, operation) => applyOperation(p, operation, book).project,
    change(wren),
  );
  // one speaks in the units of the open project
  useSession.setState({ project });
  const derived = createDeriver().derive(project, book);
  scene = { project, book, shape: derived, derived, room: derived.inner, previewing: false };
  return scene;
}
const inches = (project: Project): Project => ({ ...project, settings: { ...project.settings, units: 'in' } });
const readings = (): { address: string; reading: Reading }[] =>
  acted.flatMap((one) => (one.name === 'takeReading' ? [one.payload] : []));

/** Whether the screen is touched by fingers. */
let coarse = false;
beforeAll(() => {
  window.matchMedia = ((query: string) => ({
    matches: coarse && query.includes('coarse'),
    media: query,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as unknown as typeof window.matchMedia;
});
beforeEach(() => {
  acted.splice(0);
  refuses = null;
  coarse = false;
});
afterEach(() => {
  cleanup();
  useSession.setState({ project: null });
});

const ADDRESS = 'station/s3/left/350';
const entry = (own: Scene, onDone = vi.fn()) => {
  const listener = { current: null as ((reading: { address: string; value: number; at: string }) => void) | null };
  render(
    <ReadingEntry
      scene={own}
      address={ADDRESS}
      instrument={{ kind: 'laser' } as never}
      listener={listener as never}
      onDone={onDone}
    />,
  );
  return { field: screen.getByRole('textbox'), listener, onDone };
};

describe('a reading', () => {
  it('says what it is, what is expected there, and goes on when it is taken', async () => {
    const own = sceneOf();
    const { field, onDone } = entry(own);
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
      say(describeAddress(own.project.survey, ADDRESS)),
    );
    expect(document.activeElement).toBe(field);
    await userEvent.type(field, '921{Enter}');
    expect(readings()).toEqual([
      { address: ADDRESS, reading: { value: 921, method: 'tape', at: expect.any(String) as string } },
    ]);
    expect(onDone).toHaveBeenCalledOnce();
  });
  it('is read in the units that are shown, and told in the others', async () => {
    const { field } = entry(sceneOf(inches));
    await userEvent.type(field, '36 1/4');
    expect(screen.getByText(/36 1\/4.*·.*92\d/)).toBeTruthy();
    await userEvent.type(field, '{Enter}');
    expect(readings()[0]?.reading.value).toBeCloseTo(36.25 * 25.4, 3);
  });
  it('that is none stays typed, with the reason beside it, and one goes on nowhere', async () => {
    const { field, onDone } = entry(sceneOf());
    await userEvent.type(field, 'about a metre{Enter}');
    expect(screen.getByRole('alert').textContent).toMatch(/about a metre|cannot|read/i);
    expect((field as HTMLInputElement).value).toBe('about a metre');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect([readings(), onDone.mock.calls]).toEqual([[], []]);
    await userEvent.type(field, '{Backspace}');
    expect(screen.queryByRole('alert')).toBeNull();
  });
  it('that is refused is told why, and is not lost', async () => {
    const { field, onDone } = entry(sceneOf());
    refuses = { key: 'length.unreadable', params: { typed: '99999', at: '99999' } };
    await userEvent.type(field, '99999{Enter}');
    expect(screen.getByRole('alert').textContent).not.toBe('');
    expect((field as HTMLInputElement).value).toBe('99999');
    expect(onDone).not.toHaveBeenCalled();
  });
  it('taken several times is kept as their mean, with each of them', async () => {
    const { field } = entry(sceneOf());
    for (const value of ['920', '922']) {
      await userEvent.type(field, value);
      await userEvent.click(screen.getByRole('button', { name: 'Hold, read again' }));
    }
    expect((field as HTMLInputElement).value).toBe('');
    await userEvent.type(field, '924{Enter}');
    expect(readings()[0]?.reading).toMatchObject({ value: 922, repeats: [920, 922, 924] });
  });
  it('comes from the instrument as it measured, only for the place that is asked for', () => {
    const { listener } = entry(sceneOf());
    listener.current?.({ address: 'station/s4/left/350', value: 1, at: '2026-11-01T10:00:00.000Z' });
    expect(readings()).toEqual([]);
    listener.current?.({ address: ADDRESS, value: 919.4, at: '2026-11-01T10:00:00.000Z' });
    expect(readings()[0]?.reading).toEqual({ value: 919.4, method: 'laser', at: '2026-11-01T10:00:00.000Z' });
  });
  it('is skipped, and typed on large keys where there are fingers', async () => {
    coarse = true;
    const { field, onDone } = entry(sceneOf());
    for (const key of ['9', '2', '1']) await userEvent.click(screen.getByRole('button', { name: key }));
    expect((field as HTMLInputElement).value).toBe('921');
    // the keyboard of the device stays away
    expect(field.getAttribute('inputmode')).toBe('none');
    await userEvent.click(screen.getByRole('button', { name: 'Cannot reach' }));
    expect(acted).toEqual([{ name: 'skipReading', payload: { address: ADDRESS } }]);
    expect(onDone).toHaveBeenCalledOnce();
  });
});

describe('the large keys', () => {
  it('are those of the units that are shown', async () => {
    sceneOf(inches);
    const typed: string[] = [];
    const back = vi.fn();
    render(<Keypad onType={(sign) => void typed.push(sign)} onBack={back} onTake={() => undefined} />);
    for (const name of ['3', '6', 'space', '1', '/', '4', '"'])
      await userEvent.click(screen.getByRole('button', { name }));
    expect(typed.join('')).toBe('36 1/4"');
    await userEvent.click(screen.getByRole('button', { name: 'Erase the last sign' }));
    expect(back).toHaveBeenCalledOnce();
  });
});

describe('how good the survey is', () => {
  it('is told by its worst place against the goal, which is set here', async () => {
    const own = sceneOf();
    render(<QualityPanel scene={own} />);
    const { quality } = own.derived;
    if (!quality) throw new Error('Wren is measured');
    expect(screen.getByText(/±/).textContent).toContain(String(Math.round(quality.worst)));
    const goal = screen.getByRole('textbox', { name: /Wanted accuracy/ });
    await userEvent.clear(goal);
    await userEvent.type(goal, '1{Enter}');
    expect(acted).toEqual([{ name: 'planSurvey', payload: { changes: { goal: 1 } } }]);
    // no survey by a tape is as good as that
    const strict = sceneOf((project) => project, ...acted);
    expect(strict.derived.quality?.good).toBe(false);
    cleanup();
    render(<QualityPanel scene={strict} />);
    expect(document.querySelector('.done')).toBeNull();
  });
  it('says what is missing before there is a shell', () => {
    render(
      <QualityPanel scene={sceneOf((project) => ({ ...project, survey: { ...project.survey, readings: {} } }))} />,
    );
    expect(screen.queryByText(/±/)).toBeNull();
    expect(screen.getByRole('region').textContent).not.toBe('');
  });
});

describe('the walk', () => {
  it('names what looks wrong with what is expected, and takes what was meant by one press', async () => {
    // seven and one changed places: 919 typed as 991
    const wrong: Operation = {
      name: 'takeReading',
      payload: { address: ADDRESS, reading: { value: 991, method: 'tape', at: '2026-11-02T10:00:00.000Z' } },
    };
    const own = sceneOf((project) => project, wrong);
    const outlier = own.shape.outliers.find(({ address }) => address === ADDRESS);
    if (!outlier) throw new Error('it looks wrong');
    const picked: string[] = [];
    render(
      <WalkPanel
        scene={own}
        progress={own.derived.progress}
        current={null}
        onPick={(address) => void picked.push(address)}
      />,
    );
    const note = screen.getByText(new RegExp('991')).closest('li');
    if (!note) throw new Error('it is listed');
    expect(note.textContent).toContain(String(Math.round(outlier.expected.value)));
    const buttons = within(note).getAllByRole('button');
    await userEvent.click(buttons.at(-1) as HTMLElement);
    expect(picked).toEqual([ADDRESS]);
    if (outlier.meant !== null) {
      await userEvent.click(buttons[0] as HTMLElement);
      expect(readings()[0]).toMatchObject({ address: ADDRESS, reading: { value: outlier.meant, method: 'estimate' } });
    }
  });
  it('lists what closes and what does not, each with how far it is off', () => {
    const own = sceneOf();
    render(<WalkPanel scene={own} progress={own.derived.progress} current={null} onPick={() => undefined} />);
    const { closures } = own.shape;
    expect(closures.length).toBeGreaterThan(0);
    const rows = screen.getAllByRole('row');
    expect(rows).toHaveLength(closures.length);
    for (const [i, { verdict }] of closures.entries())
      expect(rows[i]?.querySelector('.done, .needs')?.className).toBe(verdict === 'good' ? 'done' : 'needs');
  });
});

describe('openings and holes', () => {
  it('are listed with where they are read, and one is added as a window of the left wall', async () => {
    const { project } = sceneOf();
    render(<OpeningList survey={project.survey} />);
    for (const { name } of project.survey.openings) expect(screen.getByText(name)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Add an opening' }));
    expect(acted).toEqual([
      {
        name: 'putOpening',
        payload: { opening: expect.objectContaining({ kind: 'window', surface: 'left', ring: null }) as object },
      },
    ]);
    const [added] = acted;
    const then = applyOperation(project, added as Operation, book).project.survey.openings;
    expect(new Set(then.map(({ id }) => id)).size).toBe(project.survey.openings.length + 1);
  });
  it('of the floor say how near they are to what lies under it', () => {
    const { project } = sceneOf();
    render(<HoleList survey={project.survey} />);
    const [hole] = project.survey.penetrations;
    const line = screen.getByText(hole?.name ?? '?').closest('li');
    expect(line?.textContent).toMatch(/\d/);
    // whoever works on gas is a licensed trade
    expect(screen.getByText(/licensed fitter/)).toBeTruthy();
  });
});
