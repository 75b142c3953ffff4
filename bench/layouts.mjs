// The two crowded layouts that drags are measured on, made of the first demo; used in Node and in a worker of the browser.
import { applyOperation } from '@nestplank/core/furniture';

/** Wren with 37 boxes more, and with 57 more in six modes; and one step of a drag on each. */
export function crowded({ project, priceBook }) {
  const done = (on, name, payload) => applyOperation(on, { name, payload }, priceBook).project;
  const kitchen = project.layout.units.find((unit) => unit.family === 'base-run');
  const options = { ...kitchen.options, toeKick: 0, overhang: 0 };
  const placed = (units) => units.reduce((on, unit) => done(on, 'placeUnit', { unit }), project);
  const forty = placed(
    Array.from({ length: 37 }, (_, i) => ({
      ...kitchen,
      id: `m${i}`,
      name: `Box ${i}`,
      body: {
        ...kitchen.body,
        stands: i % 2 ? 'left' : 'right',
        x: 20 + (i % 20) * 110,
        length: 100,
        front: 500,
        to: 500,
      },
      division: { name: 'bay-1', holds: { kind: 'shelves', count: 1 }, front: { kind: 'doors', count: 1 } },
      options,
    })),
  );
  const sixty = placed(
    Array.from({ length: 57 }, (_, i) => ({
      ...kitchen,
      id: `n${i}`,
      name: `Box ${i}`,
      body: {
        ...kitchen.body,
        stands: i % 2 ? 'left' : 'right',
        x: 20 + (i % 29) * 120,
        length: 115,
        front: 600,
        to: 300,
      },
      division: {
        name: 'bay-1',
        holds: i % 3 ? { kind: 'open' } : { kind: 'drawers', count: 2, latch: true },
        front: i % 3 ? { kind: 'doors', count: 1, latch: true } : { kind: 'none' },
      },
      options,
    })),
  );
  const inModes = Array.from({ length: 6 }, (_, m) => ({
    id: `b${m}`,
    name: `Mode ${m}`,
    use: m === 0 ? 'day' : 'own',
    states: Object.fromEntries(
      Array.from({ length: 12 }, (_, k) => [`n${(m * 9 + k * 2 + 1) % 57}.bay-1.door-1`, k % 2 ? 1 : 0.5]),
    ),
  })).reduce((on, mode) => done(on, 'putMode', { mode }), sixty);
  const moved = (on, id) => (i) => done(on, 'changeUnit', { id, changes: { x: 300 + ((i * 7) % 400) } });
  return { forty, sixty: inModes, fortyMoved: moved(forty, 'm3'), sixtyMoved: moved(inModes, 'n3') };
}
