import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import type { StepDto } from '@nestplank/contract';
import { createProject, type Operation } from '@nestplank/core/document';
import { startPriceBook } from '@nestplank/core/materials';
import { UnreachableError } from './api.js';
import { idle, memoryOutbox, Server } from './page.fixture.js';
import { createSession } from './session.js';

/** So many schedules are tried; `VITE_SCHEDULES=10000` tries more. */
const SCHEDULES = Number(import.meta.env['VITE_SCHEDULES'] ?? 250);
/** More messages than this to come to rest would be a loop. */
const MOST_TO_REST = 400;

const book = startPriceBook();
const empty = createProject({
  id: 'p',
  name: 'Plover',
  kind: 'van',
  model: '',
  units: 'mm',
  startDate: '2026-11-30',
});

/** A message on its way: what the server does with it, and how the sender hears. */
interface Message {
  readonly client: number;
  readonly serve: () => Promise<unknown>;
  readonly answer: (outcome: { ok: true; value: unknown } | { ok: false; problem: unknown }) => void;
}

/** Several pages, one server, and a wire on which messages are dropped, doubled, delayed and come in any order. */
class Wire {
  readonly server = new Server(empty, book);
  readonly boxes: ReturnType<typeof memoryOutbox>[];
  private pages: ReturnType<typeof createSession>[] = [];
  private sent: Message[] = [];
  private answers: (() => void)[] = [];
  private timers: (() => void)[] = [];
  private listeners: (() => void)[][] = [];
  private ids = 0;
  messages = 0;
  readonly acted = new Map<string, number>();

  constructor(readonly count: number) {
    this.boxes = Array.from({ length: count }, () => memoryOutbox());
  }

  private through<T>(client: number, serve: () => Promise<T>): Promise<T> {
    this.messages += 1;
    return new Promise<T>((resolve, reject) => {
      this.sent.push({
        client,
        serve,
        answer: (outcome) => (outcome.ok ? resolve(outcome.value as T) : reject(outcome.problem as Error)),
      });
    });
  }

  async open(client: number): Promise<void> {
    this.listeners[client] = [];
    const page = createSession({
      api: {
        view: (_id, steps) => this.through(client, () => this.server.view(steps)),
        post: (_id, steps) => this.through(client, () => this.server.post(structuredClone(steps))),
        putPrice: () => Promise.resolve(book),
        removePrice: () => Promise.resolve(book),
        reprice: () => Promise.resolve(book),
        takePrices: () => Promise.resolve(book),
      },
      deriving: idle,
      outbox: this.boxes[client] ?? memoryOutbox(),
      join: (_id, onChange) => {
        this.listeners[client]?.push(onChange);
        return {
          changed: () => this.listeners.forEach((own, other) => other !== client && own.forEach((tell) => tell())),
          waiting: () => undefined,
          close: () => (this.listeners[client] = []),
        };
      },
      newId: () => `${client}-${(this.ids += 1)}`,
      now: () => new Date(0),
      later: (work) => {
        this.timers.push(work);
        return () => (this.timers = this.timers.filter((own) => own !== work));
      },
      drawn: (work) => work(),
      chance: () => 0.5,
    });
    this.pages[client] = page;
    const opened = page.openProject('p');
    // opening waits for its messages as everything does
    void opened;
    await this.rest();
  }

  async rest(): Promise<void> {
    for (let i = 0; i < 30; i += 1) await Promise.resolve();
  }

  page(client: number): ReturnType<typeof createSession> {
    const page = this.pages[client];
    if (!page) throw new Error('opened before it is used');
    return page;
  }

  /** One message reaches the server. Its answer waits on the wire, or is lost; doubled, it reaches the server once more. */
  async deliver(pick: number, lost: boolean, doubled: boolean): Promise<void> {
    const [message] = this.sent.splice(pick % Math.max(1, this.sent.length), 1);
    if (!message) return;
    let outcome: Parameters<Message['answer']>[0];
    try {
      outcome = { ok: true, value: structuredClone(await message.serve()) };
    } catch (problem) {
      outcome = { ok: false, problem };
    }
    if (doubled) await message.serve().catch(() => undefined);
    this.answers.push(() => message.answer(lost ? { ok: false, problem: new UnreachableError('') } : outcome));
  }
  /** A message that never arrives. */
  drop(pick: number): void {
    const [message] = this.sent.splice(pick % Math.max(1, this.sent.length), 1);
    message?.answer({ ok: false, problem: new UnreachableError('') });
  }
  hear(pick: number): void {
    const [answer] = this.answers.splice(pick % Math.max(1, this.answers.length), 1);
    answer?.();
  }
  ring(pick: number): void {
    const [timer] = this.timers.splice(pick % Math.max(1, this.timers.length), 1);
    timer?.();
  }
  act(client: number, kind: number): void {
    const page = this.page(client);
    const { project } = page.useSession.getState();
    if (!project) return;
    if (kind === 0) {
      page.undo();
      return;
    }
    const [first] = project.people;
    const operation: Operation =
      kind === 1 && first
        ? { name: 'removePerson', payload: { id: first.id } }
        : kind === 2
          ? { name: 'changeSettings', payload: { changes: { budget: 100 + this.ids } } }
          : {
              name: 'putPerson',
              payload: {
                person: {
                  id: `w${client}-${this.ids}`,
                  name: `Person ${this.ids}`,
                  stature: 1700 + (this.ids % 90),
                } as never,
              },
            };
    page.act(operation);
  }
  /** The page is shut and opened again, with what its browser kept. Messages on their way may still arrive. */
  async reload(client: number): Promise<void> {
    this.page(client).closeProject();
    for (const message of this.sent.filter((one) => one.client === client)) void message.serve().catch(() => undefined);
    this.sent = this.sent.filter((message) => message.client !== client);
    await this.open(client);
  }
  /** Everything arrives from now on, until nothing is on its way. */
  async calm(): Promise<void> {
    const before = this.messages;
    for (let round = 0; round < 5000; round += 1) {
      await this.rest();
      if (this.sent.length > 0) await this.deliver(0, false, false);
      else if (this.answers.length > 0) this.hear(0);
      else if (this.timers.length > 0) this.ring(0);
      else return;
      if (this.messages - before > MOST_TO_REST) throw new Error(`no rest after ${MOST_TO_REST} messages`);
    }
    throw new Error('no rest');
  }
}

const move = fc.record({
  what: fc.constantFrom(
    'act',
    'act',
    'act',
    'deliver',
    'deliver',
    'deliver',
    'hear',
    'hear',
    'hear',
    'drop',
    'ring',
    'reload',
  ),
  client: fc.nat(2),
  pick: fc.nat(7),
  kind: fc.nat(5),
  lost: fc.boolean(),
  doubled: fc.boolean(),
});

describe('messages that are dropped, doubled, delayed and out of order', () => {
  it('all pages come to the same project, no step is lost that was acknowledged, none is done twice, and it comes to rest', async () => {
    let reached = 0;
    let conflicts = 0;
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 2, max: 3 }),
        fc.array(move, { minLength: 8, maxLength: 40 }),
        async (count, moves) => {
          const wire = new Wire(count);
          for (let client = 0; client < count; client += 1) await wire.open(client);
          await wire.calm();
          const acknowledged = new Set<string>();
          for (const { what, client: any, pick, kind, lost, doubled } of moves) {
            const client = any % count;
            if (what === 'act') wire.act(client, kind);
            else if (what === 'deliver') await wire.deliver(pick, lost, doubled);
            else if (what === 'hear') wire.hear(pick);
            else if (what === 'drop') wire.drop(pick);
            else if (what === 'ring') wire.ring(pick);
            else await wire.reload(client);
            await wire.rest();
            for (const id of wire.server.log) acknowledged.add(id);
          }
          await wire.calm();
          // others are told once more, as a tab is that was away
          for (let client = 0; client < count; client += 1) await wire.reload(client);
          await wire.calm();
          const { server } = wire;
          expect(new Set(server.log).size, 'done once').toBe(server.log.length);
          for (const id of acknowledged) expect(server.log).toContain(id);
          reached += server.log.length;
          for (let client = 0; client < count; client += 1) {
            const { project, saving, failed } = wire.page(client).useSession.getState();
            expect(failed).toBeNull();
            expect(saving).toMatchObject({ state: 'saved', unsent: 0, why: null, revision: server.revision });
            expect(project).toEqual(server.project);
            expect(wire.boxes[client]?.kept.get('p') ?? []).toEqual([]);
            conflicts += (await wire.boxes[client]?.aside('p'))?.length ?? 0;
          }
        },
      ),
      { seed: 20261127, numRuns: SCHEDULES },
    );
    // the tries did something: steps were done, and some could not be
    expect(reached).toBeGreaterThan(SCHEDULES);
    expect(conflicts).toBeGreaterThan(0);
  });

  it('every step that a page did is done by the server or set aside with its reason', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(move, { minLength: 8, maxLength: 30 }), async (moves) => {
        const wire = new Wire(2);
        for (const client of [0, 1]) await wire.open(client);
        await wire.calm();
        const done: StepDto['id'][] = [];
        for (const { what, client: any, pick, kind, lost } of moves) {
          const client = any % 2;
          if (what === 'act') {
            const before = new Set((wire.boxes[client]?.kept.get('p') ?? []).map((step) => step.id));
            wire.act(client, kind);
            done.push(
              ...(wire.boxes[client]?.kept.get('p') ?? []).map((step) => step.id).filter((id) => !before.has(id)),
            );
          } else if (what === 'deliver') await wire.deliver(pick, lost, false);
          else if (what === 'reload') await wire.reload(client);
          else wire.hear(pick);
          await wire.rest();
        }
        await wire.calm();
        const aside = (await Promise.all(wire.boxes.map((box) => box.aside('p')))).flat();
        const kept = new Set([...wire.server.log, ...aside.map((entry) => entry.step.id)]);
        expect(done.filter((id) => !kept.has(id))).toEqual([]);
        for (const entry of aside) expect(entry.why).not.toBe('');
      }),
      { seed: 7, numRuns: SCHEDULES },
    );
  });
});
