import { beforeEach, describe, expect, it } from 'vitest';
import { OTHER_DATABASE, type Refusal } from '@nestplank/contract';
import type { DerivedShape } from '@nestplank/core/derive';
import type { Operation, Project } from '@nestplank/core/document';
import { startPriceBook } from '@nestplank/core/materials';
import { readProjectFile } from '@nestplank/core/formats';
import { RefusedError } from './api.js';
import { memoryOutbox, Server, workingOut } from './page.fixture.js';
import { createSession, type SessionParts } from './session.js';
import demo from '../../../../demo/wren.json?raw';

const wren = readProjectFile(demo).project;
const book = startPriceBook();
const move = (id: string, x: number): Operation => ({ name: 'changeUnit', payload: { id, changes: { x } } });
const xOf = (project: Project | null | undefined, id: string): number | undefined =>
  project?.layout.units.find((unit) => unit.id === id)?.body.x;

let server: Server;
let outbox: ReturnType<typeof memoryOutbox>;
let waiting: (() => void)[];
let changed: number;
let others: (() => void)[];
let ids: number;
const settle = async (): Promise<void> => {
  for (let i = 0; i < 200; i += 1) await Promise.resolve();
};

function page(more: Partial<SessionParts> = {}) {
  return createSession({
    api: {
      view: (_id, steps) => server.view(steps),
      post: (_id, steps) => server.post(steps),
      putPrice: () => Promise.resolve(book),
      removePrice: () => Promise.resolve(book),
      reprice: () => Promise.resolve(book),
      takePrices: () => Promise.resolve(book),
    },
    deriving: () => workingOut(wren, book),
    outbox,
    join: (_id, onChange) => {
      others.push(onChange);
      return { changed: () => void (changed += 1), waiting: () => undefined, close: () => undefined };
    },
    newId: () => `step-${(ids += 1)}`,
    now: () => new Date(0),
    later: (work) => {
      waiting.push(work);
      return () => void (waiting = waiting.filter((own) => own !== work));
    },
    drawn: (work) => work(),
    chance: () => 1,
    ...more,
  });
}
beforeEach(() => {
  server = new Server(wren, book);
  outbox = memoryOutbox();
  waiting = [];
  changed = 0;
  others = [];
  ids = 0;
});

describe('the state of the page', () => {
  it('does a step at once, sends it, and forgets it only when the server has it', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    expect(act(move('bench', 900))).toBeNull();
    expect(xOf(useSession.getState().project, 'bench')).toBe(900);
    expect(useSession.getState().saving.state).toBe('saving');
    expect(outbox.kept.get('p')).toHaveLength(1);
    await settle();
    expect(useSession.getState().saving.state).toBe('saved');
    expect([xOf(server.project, 'bench'), outbox.kept.get('p'), changed]).toEqual([900, [], 1]);
  });
  it('shows what a drag comes to with its next step, or when the page is drawn where there is none', async () => {
    const tell: ((shape: DerivedShape) => void)[] = [];
    const drawn: (() => void)[] = [];
    const { openProject, previewActions, useSession } = page({
      deriving: () => ({
        ...workingOut(wren, book),
        preview: (_operations, then) => void tell.push(then),
      }),
      drawn: (work) => void drawn.push(work),
    });
    await openProject('p');
    await settle();
    const { derived } = useSession.getState();
    if (!derived) throw new Error('nothing was worked out');
    const marked = (floorAt: number): DerivedShape => ({ ...derived, floorAt }) as DerivedShape & { floorAt: number };
    const seen = () => useSession.getState().preview;
    const turns: unknown[] = [];
    useSession.subscribe(({ preview }) => turns.push(preview));
    previewActions([move('bench', 900)]);
    expect([xOf(seen()?.project ?? null, 'bench'), seen()?.shape]).toEqual([900, null]);
    // an answer alone draws nothing: it waits for the hand or for the page
    tell[0]?.(marked(1));
    expect([turns.length, drawn.length]).toEqual([1, 1]);
    previewActions([move('bench', 905)]);
    expect([xOf(seen()?.project ?? null, 'bench'), seen()?.shape]).toMatchObject([905, { floorAt: 1 }]);
    drawn.shift()?.();
    expect(turns).toHaveLength(2);
    // the hand rests: the page shows it
    tell[1]?.(marked(2));
    tell[1]?.(marked(3));
    expect(drawn).toHaveLength(1);
    drawn.shift()?.();
    expect([turns.length, seen()?.shape]).toMatchObject([3, { floorAt: 3 }]);
    // one that comes when the hand has let go shows nothing
    tell[1]?.(marked(4));
    previewActions(null);
    drawn.shift()?.();
    expect(seen()).toBeNull();
  });
  it('takes in a long list of materials in parts, in their order, and shows what it comes to', async () => {
    const sent: number[] = [];
    let prices = book;
    const [first] = book.items;
    if (!first) throw new Error('no prices');
    const { openProject, takePrices, useSession } = page({
      api: {
        view: (_id, steps) => server.view(steps),
        post: (_id, steps) => server.post(steps),
        putPrice: () => Promise.resolve(book),
        removePrice: () => Promise.resolve(book),
        reprice: () => Promise.resolve(book),
        takePrices: (_book, items) => {
          sent.push(items.length);
          prices = { ...prices, items: [...prices.items, ...items] };
          return Promise.resolve(prices);
        },
      },
    });
    await openProject('p');
    const many = Array.from({ length: 900 }, (_, i) => ({ ...first, id: `many-${i}` }));
    expect(await takePrices(many)).toBe(true);
    expect(sent).toEqual([400, 400, 100]);
    expect(
      useSession
        .getState()
        .priceBook?.items.slice(-900)
        .map(({ id }) => id),
    ).toEqual(many.map(({ id }) => id));
  });
  it('changes a material step after step, each made of what the one before left', async () => {
    let prices = book;
    const { openProject, changeMaterial, useSession } = page({
      api: {
        view: (_id, steps) => server.view(steps),
        post: (_id, steps) => server.post(steps),
        putPrice: async (_book, item) => {
          await settle();
          prices = { ...prices, items: prices.items.map((own) => (own.id === item.id ? item : own)) };
          return prices;
        },
        removePrice: () => Promise.resolve(prices),
        reprice: () => Promise.resolve(prices),
        takePrices: () => Promise.resolve(prices),
      },
    });
    await openProject('p');
    // typed one right after the other, before the first is answered
    const both = [
      changeMaterial('birch-12', () => ({ thickness: 11.8 })),
      changeMaterial('birch-12', (now) => ({ density: now.density + 10 })),
    ];
    expect(await Promise.all(both)).toEqual([true, true]);
    const was = book.items.find(({ id }) => id === 'birch-12');
    expect(useSession.getState().priceBook?.items.find(({ id }) => id === 'birch-12')).toMatchObject({
      thickness: 11.8,
      density: (was?.density ?? 0) + 10,
    });
    expect(await changeMaterial('none', () => ({}))).toBe(false);
  });
  it('refuses what cannot be done, with the reason, and keeps nothing of it', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    const before = useSession.getState().project;
    expect(act(move('bench', 950), move('sofa', 1))?.key).toBe('operation.notThere');
    expect(useSession.getState().project).toBe(before);
    expect(server.sent).toEqual([]);
  });
  it('never says saved while steps wait: without the server they are kept, and sent when it answers', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.reachable = false;
    act(move('bench', 900));
    await settle();
    act(move('bench', 910));
    await settle();
    expect(useSession.getState().saving.state).toBe('waiting');
    expect(outbox.kept.get('p')).toHaveLength(2);
    server.reachable = true;
    waiting.shift()?.();
    await settle();
    expect(useSession.getState().saving.state).toBe('saved');
    expect(xOf(server.project, 'bench')).toBe(910);
  });
  it('says nothing of saved before the server has answered', async () => {
    const { openProject, useSession, closeProject } = page();
    outbox.kept.set('p', [{ id: 'old', name: 'changeUnit', payload: { id: 'bench', changes: { x: 900 } } }]);
    server.reachable = false;
    expect(useSession.getState().saving.state).toBe('opening');
    await openProject('p');
    expect(useSession.getState().saving).toMatchObject({ state: 'waiting', unsent: 1, why: 'unreachable' });
    // nor of a project with nothing unsent that is not open yet
    closeProject();
    outbox.kept.clear();
    await openProject('p');
    expect(useSession.getState().saving).toMatchObject({ state: 'opening', unsent: 0 });
    server.reachable = true;
    await openProject('p');
    await settle();
    expect(useSession.getState().saving.state).toBe('saved');
  });
  it('tells of what another tab has not sent, and when it has', async () => {
    let told: ((tab: string, unsent: number) => void) | null = null;
    const said: number[] = [];
    const { openProject, act, useSession } = page({
      join: (_id, _change, onWaiting) => {
        told = onWaiting;
        return { changed: () => undefined, waiting: (unsent) => void said.push(unsent), close: () => undefined };
      },
    });
    await openProject('p');
    const tell = told as unknown as (tab: string, unsent: number) => void;
    tell('a', 2);
    tell('b', 1);
    tell('a', 1);
    expect(useSession.getState().saving).toMatchObject({ state: 'saved', unsent: 0, elsewhere: 2 });
    // it outlives what this tab says of itself
    act(move('bench', 900));
    await settle();
    expect(useSession.getState().saving).toMatchObject({ state: 'saved', elsewhere: 2 });
    tell('a', 0);
    tell('b', 0);
    expect(useSession.getState().saving).toMatchObject({ state: 'saved', elsewhere: 0 });
    // the others are told of its own, and that they are sent
    expect(said).toContain(1);
    expect(said.at(-1)).toBe(0);
  });
  it('never sends what was done on another database that has a project of the same id', async () => {
    const first = page();
    await first.openProject('p');
    server.reachable = false;
    first.act(move('bench', 900));
    await settle();
    // the tab stays open, and another database answers
    server = new Server(wren, book);
    server.database = 'another';
    waiting.shift()?.();
    await settle();
    expect(server.log).toEqual([]);
    expect(first.useSession.getState().aside.map(({ why }) => why)).toEqual([OTHER_DATABASE]);
    expect(xOf(first.useSession.getState().project, 'bench')).toBe(xOf(wren, 'bench'));
    expect(first.useSession.getState().saving).toMatchObject({ state: 'saved', unsent: 0 });
    // what is done now is done on this one
    first.act(move('bench', 910));
    await settle();
    expect([server.log.length, xOf(server.project, 'bench')]).toEqual([1, 910]);
    // and so it is with what an earlier visit left
    first.closeProject();
    outbox.kept.set('p', [
      { id: 'old', name: 'changeUnit', payload: { id: 'bench', changes: { x: 1000 } }, database: 'one' },
    ]);
    const second = page();
    await second.openProject('p');
    await settle();
    expect(xOf(second.useSession.getState().project, 'bench')).toBe(910);
    expect(server.log).toHaveLength(1);
    expect(second.useSession.getState().aside).toHaveLength(2);
  });
  it('closed while the server was away, it puts the steps on top when opened again, and sends them', async () => {
    const first = page();
    await first.openProject('p');
    server.reachable = false;
    first.act(move('bench', 900));
    await settle();
    first.closeProject();
    server.reachable = true;
    server.change(move('kitchen', 700));
    const second = page();
    await second.openProject('p');
    await settle();
    const { project } = second.useSession.getState();
    expect([xOf(project, 'bench'), xOf(project, 'kitchen')]).toEqual([900, 700]);
    expect(xOf(server.project, 'bench')).toBe(900);
  });
  it('an answer that was lost is asked for again, and the step is done once', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.loseAnswers = 1;
    act(move('bench', 900));
    await settle();
    expect(useSession.getState().saving.state).toBe('waiting');
    const revision = server.revision;
    waiting.shift()?.();
    await settle();
    expect([useSession.getState().saving.state, server.revision]).toEqual(['saved', revision]);
  });
  it('overtaken by another tab it takes over what that changed, and does its own on top', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.change(move('kitchen', 700));
    act(move('bench', 900));
    await settle();
    const { project, notice, saving } = useSession.getState();
    expect([xOf(project, 'kitchen'), xOf(project, 'bench'), saving.state]).toEqual([700, 900, 'saved']);
    expect(server.project).toEqual(project);
    expect(notice?.tone).toBe('plain');
  });
  it('told by another tab it looks again', async () => {
    const { openProject, useSession } = page();
    await openProject('p');
    server.change(move('kitchen', 700));
    others[0]?.();
    await settle();
    expect(xOf(useSession.getState().project, 'kitchen')).toBe(700);
  });
  it('a step the other tab made impossible is named and dropped; the rest is kept', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.change({ name: 'removeUnit', payload: { id: 'bench' } });
    act(move('bench', 900));
    act(move('kitchen', 710));
    await settle();
    expect(useSession.getState().notice).toMatchObject({ tone: 'trouble' });
    expect(xOf(server.project, 'kitchen')).toBe(710);
    expect(useSession.getState().project).toEqual(server.project);
  });
  it('what the server refuses is taken back here, and said', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.refusals.push({ code: 'operation', message: 'not that', step: 'step-1' });
    act(move('bench', 900));
    act(move('kitchen', 710));
    await settle();
    expect(useSession.getState().notice?.text).toContain('not that');
    expect([xOf(server.project, 'bench'), xOf(server.project, 'kitchen')]).toEqual([xOf(wren, 'bench'), 710]);
    expect(useSession.getState().project).toEqual(server.project);
  });
  it('a server that failed has not said no: nothing is dropped', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.refusals.push({ code: 'failed', message: 'disk full' });
    act(move('bench', 900));
    await settle();
    expect(useSession.getState().saving.state).toBe('waiting');
    expect(outbox.kept.get('p')).toHaveLength(1);
    waiting.shift()?.();
    await settle();
    expect(xOf(server.project, 'bench')).toBe(900);
  });
  it('too much at once is sent one by one', async () => {
    const { openProject, act } = page();
    await openProject('p');
    server.reachable = false;
    act(move('bench', 900));
    act(move('kitchen', 710));
    await settle();
    server.sent.length = 0;
    server.reachable = true;
    server.refusals.push({ code: 'too-large', message: 'too large' });
    waiting.shift()?.();
    await settle();
    expect(server.sent).toEqual([2, 1, 1]);
    expect(xOf(server.project, 'kitchen')).toBe(710);
  });
  it('what one press does is one step: all is done or none, and one undo takes it back', async () => {
    const { openProject, act, undo, useSession } = page();
    await openProject('p');
    expect(act(move('bench', 900), move('kitchen', 710))).toBeNull();
    await settle();
    expect(server.sent).toEqual([1]);
    expect(useSession.getState().history.undo).toEqual(['together']);
    expect([xOf(server.project, 'bench'), xOf(server.project, 'kitchen')]).toEqual([900, 710]);
    undo();
    await settle();
    expect(server.project).toEqual(wren);
    expect(useSession.getState().project).toEqual(wren);
  });
  it('an undo goes alone, after what was done before it', async () => {
    const { openProject, act, undo, useSession } = page();
    await openProject('p');
    act(move('bench', 900));
    undo();
    await settle();
    expect(server.sent).toEqual([1, 1]);
    expect(xOf(useSession.getState().project, 'bench')).toBe(xOf(wren, 'bench'));
    expect(useSession.getState().history.undo).toEqual([]);
  });
  it('another project opened while one still waits: both are sent, and neither shows the other', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    let letGo = (): void => undefined;
    server.hold = new Promise((go) => (letGo = go));
    act(move('bench', 900));
    await settle();
    await openProject('q');
    act(move('kitchen', 710));
    await settle();
    letGo();
    server.hold = null;
    await settle();
    expect(useSession.getState()).toMatchObject({ id: 'q', saving: { state: 'saved' } });
    expect([outbox.kept.get('q'), xOf(server.project, 'kitchen')]).toEqual([[], 710]);
  });
  it('says so when the browser cannot keep what is unsent', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.reachable = false;
    outbox.broken = true;
    act(move('bench', 900));
    await settle();
    expect(useSession.getState().notice?.tone).toBe('trouble');
  });
  it('a project the server does not give is not opened, and why is said', async () => {
    const { openProject, useSession } = page({
      api: {
        view: () =>
          Promise.reject(
            new RefusedError({
              statusCode: 409,
              code: 'unsound',
              message: 'cannot be opened',
              place: '',
              faults: [{ place: 'layout.units.0', said: { key: 'operation.twice', params: { id: 'bed' } } }],
            } as Refusal),
          ),
        post: () => Promise.reject(new Error('not asked')),
        putPrice: () => Promise.reject(new Error('not asked')),
        removePrice: () => Promise.reject(new Error('not asked')),
        reprice: () => Promise.reject(new Error('not asked')),
        takePrices: () => Promise.reject(new Error('not asked')),
      },
    });
    await openProject('p');
    expect(useSession.getState().project).toBeNull();
    expect(useSession.getState().failed).toMatchObject({
      why: 'cannot be opened',
      faults: [{ place: 'layout.units.0' }],
    });
  });
  it('an answer was lost, more was done without the server, the page was opened again: nothing is done twice, nothing asked for ever', async () => {
    const first = page();
    await first.openProject('p');
    server.loseAnswers = 1;
    first.act(move('bench', 900));
    await settle();
    server.reachable = false;
    first.act(move('kitchen', 710));
    await settle();
    expect(first.useSession.getState().saving).toMatchObject({ state: 'waiting', unsent: 2, why: 'unreachable' });
    first.closeProject();
    waiting = [];
    server.reachable = true;
    server.sent.length = 0;
    const second = page();
    await second.openProject('p');
    await settle();
    const { project, saving, aside } = second.useSession.getState();
    expect([xOf(project, 'bench'), xOf(project, 'kitchen')]).toEqual([900, 710]);
    expect(server.project).toEqual(project);
    expect(saving).toMatchObject({ state: 'saved', unsent: 0, revision: server.revision, why: null });
    expect([server.sent, server.log.length, aside]).toEqual([[1], 2, []]);
  });
  it('says how many steps wait, what the server has, and why', async () => {
    const { openProject, act, tryNow, useSession } = page();
    await openProject('p');
    const now = () => useSession.getState().saving;
    expect(now()).toMatchObject({ state: 'saved', unsent: 0, revision: 1 });
    server.refusals.push({ code: 'storage', message: 'full', trouble: 'full' });
    act(move('bench', 900));
    act(move('kitchen', 710));
    await settle();
    expect(now()).toMatchObject({ state: 'waiting', unsent: 2, revision: 1, why: 'full' });
    act(move('bench', 910));
    expect(now()).toMatchObject({ state: 'waiting', unsent: 3, why: 'full' });
    tryNow();
    await settle();
    expect(now()).toMatchObject({ state: 'saved', unsent: 0, revision: 4, why: null });
  });
  it('what the server refuses is set aside by name with the reason, and can be done again, changed or let go', async () => {
    const { openProject, act, doAside, dropAside, useSession } = page();
    await openProject('p');
    server.refusals.push({ code: 'operation', message: 'not that', step: 'step-1' });
    act(move('bench', 900));
    await settle();
    const [entry] = useSession.getState().aside;
    if (!entry) throw new Error('one is set aside');
    expect(entry).toMatchObject({ project: 'p', why: 'not that', step: { name: 'changeUnit' } });
    expect(await outbox.aside('p')).toHaveLength(1);
    // it is still there when the page is opened again
    const again = page();
    await again.openProject('p');
    expect(again.useSession.getState().aside).toEqual([entry]);
    const refused = await again.doAside(entry, { id: 'sofa', changes: { x: 5 } });
    expect(refused?.key).toBe('operation.notThere');
    expect(again.useSession.getState().aside).toHaveLength(1);
    expect(await again.doAside(entry, { id: 'bench', changes: { x: 950 } })).toBeNull();
    await settle();
    expect([xOf(server.project, 'bench'), again.useSession.getState().aside]).toEqual([950, []]);
    await dropAside(entry);
    expect([useSession.getState().aside, await outbox.aside('p')]).toEqual([[], []]);
    expect(doAside).toBeTypeOf('function');
  });
  it('a project that was deleted elsewhere keeps what was not sent, to be taken out', async () => {
    const { openProject, act, useSession } = page();
    await openProject('p');
    server.reachable = false;
    act(move('bench', 900));
    act(move('kitchen', 710));
    await settle();
    server.reachable = true;
    server.deleted = true;
    waiting.shift()?.();
    await settle();
    expect(useSession.getState().failed?.why).toBe('gone');
    expect((await outbox.aside('p')).map((entry) => entry.step.name)).toEqual(['changeUnit', 'changeUnit']);
    expect(useSession.getState().aside).toHaveLength(2);
  });
  it('told of another tab’s change while the server is away, it looks when it is back', async () => {
    const { openProject, useSession } = page();
    await openProject('p');
    server.change(move('kitchen', 700));
    server.reachable = false;
    others[0]?.();
    await settle();
    expect(useSession.getState().saving).toMatchObject({ state: 'waiting', unsent: 0, why: 'unreachable' });
    server.reachable = true;
    waiting.shift()?.();
    await settle();
    expect(xOf(useSession.getState().project, 'kitchen')).toBe(700);
  });
  it('each further wait is longer than the one before, up to a minute', async () => {
    const waits: number[] = [];
    const { openProject, act } = page({
      later: (work, ms) => {
        waits.push(ms);
        waiting.push(work);
        return () => undefined;
      },
    });
    await openProject('p');
    server.reachable = false;
    act(move('bench', 900));
    for (let i = 0; i < 9; i += 1) {
      await settle();
      waiting.shift()?.();
    }
    expect(waits).toEqual([1000, 2000, 4000, 8000, 16_000, 32_000, 60_000, 60_000, 60_000]);
  });
  it('a project from which nothing can be worked out is open all the same: it is kept, undone, and shown again', async () => {
    const sound = workingOut(wren, book);
    const { openProject, act, undo, useSession } = page({
      deriving: () => ({
        ...sound,
        load: (project, prices) =>
          xOf(project, 'bench') === 900
            ? Promise.reject(new Error('a curve without values'))
            : sound.load(project, prices),
        patch: () => Promise.reject(new Error('a curve without values')),
      }),
    });
    await openProject('p');
    expect(useSession.getState().fault).toBeNull();
    act(move('bench', 900));
    await settle();
    expect(useSession.getState()).toMatchObject({ fault: 'a curve without values', derived: null, failed: null });
    expect([xOf(server.project, 'bench'), useSession.getState().saving.state]).toEqual([900, 'saved']);
    undo();
    await settle();
    expect(useSession.getState().fault).toBeNull();
    expect(useSession.getState().derived).not.toBeNull();
    // opened anew while it is so, it opens
    server.change(move('bench', 900));
    const second = page({ deriving: () => ({ ...sound, load: () => Promise.reject(new Error('no')) }) });
    await second.openProject('p');
    expect(second.useSession.getState()).toMatchObject({ fault: 'no', failed: null });
    expect(second.useSession.getState().project).not.toBeNull();
  });
  it('a browser that keeps nothing opens projects all the same, and says that it keeps nothing', async () => {
    const { openProject, useSession } = page({
      outbox: {
        ...outbox,
        read: () => Promise.reject(new Error('no storage')),
        aside: () => Promise.reject(new Error('no storage')),
      },
    });
    await openProject('p');
    expect(useSession.getState().project).toEqual(server.project);
    expect(useSession.getState().notice?.tone).toBe('trouble');
  });
});
