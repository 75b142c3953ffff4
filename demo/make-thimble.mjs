// Writes demo/thimble.json: a small box trailer, surveyed from end to end.
import { builder, pricesIn, run, walk, write } from './tools.mjs';

const practice = { vehicle: 'thimble', seed: 3 };
const trailer = builder(
  {
    id: 'thimble',
    name: 'Thimble',
    kind: 'trailer',
    model: 'box trailer 3.0 x 1.5',
    units: 'mm',
    startDate: '2026-05-04',
  },
  new Date(Date.UTC(2026, 3, 18, 13, 0)),
);
const { apply, read, project } = trailer;
const plain = { cornerRadius: 20, swing: 'fixed', hand: 'none', slanted: false, framed: false, ring: null };
for (const [opening, values] of [
  [
    { id: 'o1', name: 'Rear door', kind: 'door', surface: 'rear', ...plain, swing: 'hinged', hand: 'left' },
    [-380, 380, 20, 1690],
  ],
  [
    {
      id: 'o2',
      name: 'Sky hatch',
      kind: 'hatch',
      surface: 'roof',
      ...plain,
      swing: 'hinged',
      hand: 'front',
      framed: true,
    },
    [350, 1150, -350, 350],
  ],
  [
    { id: 'o3', name: 'Side window', kind: 'window', surface: 'left', ...plain, framed: true, ring: 34 },
    [1700, 2200, 900, 1300],
  ],
]) {
  apply('putOpening', { opening });
  ['from', 'to', 'sill', 'head'].forEach((edge, i) => read(`opening/${opening.id}/${edge}`, values[i]));
}
for (const [id, depths] of Object.entries({ o2: [24, 24, 24, 24], o3: [25, 25, 25, 26] }))
  ['front-low', 'rear-low', 'front-high', 'rear-high'].forEach((corner, i) =>
    read(`opening/${id}/frame-${corner}`, depths[i]),
  );
for (let i = 1; i <= 4; i += 1) apply('putRib', { rib: { id: `r${i}`, name: `post ${i}`, on: 'ring', flat: true } });
apply('putKeepOut', { keepOut: { id: 'k1', name: 'Axle', reason: 'axle', note: '' } });
for (const [what, value] of Object.entries({ from: 1380, to: 1620, left: -750, right: 750 }))
  read(`keepout/k1/${what}`, value);
walk(trailer, practice, 400, 1);
for (const [what, value] of Object.entries({ along: 0.3, across: 0.2 }))
  apply('takeReading', {
    address: `level/${what}`,
    reading: { value, method: 'angle-finder', at: '2026-04-18T15:30:00.000Z' },
  });
for (const what of ['diagonal-a', 'diagonal-b']) {
  const value = Math.round(Math.hypot(1500, 1700));
  read(`station/s2/${what}`, value);
}
apply('putFound', {
  found: {
    id: 'n1',
    name: 'Old rope hooks',
    kind: 'anchor',
    surface: 'right',
    x: 900,
    along: 1100,
    size: 0,
    decision: 'remove',
    status: 'done',
    method: 'unbolted, holes sealed',
    cost: 350,
    photo: null,
  },
});
apply('setLeakTest', { leakTest: { state: 'passed', reason: '', at: '2026-04-25T10:00:00.000Z' } });
apply('putPerson', { person: { id: 'sorrel', name: 'Sorrel', stature: 1688 } });
apply('changeSettings', { changes: { budget: 210_000 } });
const layer = (surface, id, material, thickness, place, more = {}) =>
  apply('putLayer', {
    surface,
    layer: { id, material, thickness, place, share: 1, measured: null, board: false, ...more },
  });
layer('floor', 'f1', 'foam-20', 20, 'continuous');
layer('floor', 'f2', 'birch-9', 9, 'continuous', { board: true, measured: 8.8 });
for (const surface of ['left', 'right', 'ceiling']) {
  layer(surface, `${surface[0]}1`, 'closed-foam-10', 10, 'in-ribs');
  layer(surface, `${surface[0]}2`, 'poplar-5', 5, 'continuous');
  apply('changeLining', {
    surface,
    changes: {
      school: 'sheets',
      gap: 2,
      // sawn along the grain of the standing sheets, so that they look like boards
      ...(surface === 'ceiling' ? {} : { groove: { spacing: 120, depth: 1.5, width: 3, direction: 'upright' } }),
    },
  });
}
layer('doors', 'd1', 'closed-foam-10', 10, 'continuous');
layer('doors', 'd2', 'poplar-5', 5, 'continuous');
// the bare board is the floor
apply('changeFloor', { changes: { coats: 3, fixing: 'glued' } });
const cupboard = (id, name, side, x, length, front, height) =>
  apply('placeUnit', {
    unit: run({
      id,
      name,
      side,
      x,
      length,
      front,
      height,
      toeKick: 0,
      shelves: 1,
      doors: 1,
      carcass: 'birch-9',
      facing: 'birch-9',
      top: 'birch-12',
      overhang: 10,
      scribe: 10,
    }),
  });
cupboard('cupboard', 'Cupboard', 'left', 2150, 700, 260, 1000);
cupboard('desk', 'Chart desk', 'right', 1850, 900, 250, 740);
for (const [id, after, decibels, celsius, moisture] of [
  ['c1', 'bare shell', 86, 4, 78],
  ['c2', 'insulated and lined', 77, 9, 61],
])
  apply('putComfort', {
    comfort: { id, when: `2026-0${id === 'c1' ? 4 : 6}-20T20:00:00.000Z`, after, decibels, celsius, moisture },
  });
write('thimble', { ...project(), practice }, pricesIn('GBP', 0.86));
