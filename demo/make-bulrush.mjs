// Writes demo/bulrush.json: a midi-bus in inches, half surveyed, with closures that fail and a plan that does not fit yet.
import { hiddenShape } from '@nestplank/core/practice';
import { bed, builder, pricesIn, run, walk, write } from './tools.mjs';

const INCH = 25.4;
const inches = (value) => (Math.round(value * 16) / 16) * INCH;
const practice = { vehicle: 'bulrush', seed: 2 };
const shape = hiddenShape(practice);
const bus = builder(
  { id: 'bulrush', name: 'Bulrush', kind: 'bus', model: 'Norvik 7.4 m', units: 'in', startDate: '2027-03-01' },
  new Date(Date.UTC(2026, 10, 7, 9, 0)),
);
const { apply, read, project } = bus;
apply('planSurvey', {
  changes: {
    heights: [0, 17, 34, 50, 65].map(inches),
    roofOffsets: [-28, 0, 28].map(inches),
    profile: { station: null, heights: [], roofOffsets: [] },
  },
});
for (let i = 1; i <= shape.stations.length; i += 1)
  apply('putStation', {
    station: { id: `s${i}`, name: i === shape.stations.length ? 'Rear wall' : `Pillar ${i}`, planned: true },
  });
apply('putArch', { arch: { id: 'a3', name: 'Entry step', side: 'right', kind: 'step', shape: 'box' } });
const plain = { cornerRadius: inches(3), swing: 'fixed', hand: 'none', slanted: false, framed: false, ring: null };
for (const opening of [
  { id: 'o1', name: 'Entry door', kind: 'door', surface: 'right', ...plain, swing: 'hinged', hand: 'front' },
  { id: 'o2', name: 'Left window 1', kind: 'window', surface: 'left', ...plain, framed: true },
  { id: 'o3', name: 'Left window 2', kind: 'window', surface: 'left', ...plain, framed: true, slanted: true },
  { id: 'o4', name: 'Stage hatch', kind: 'door', surface: 'rear', ...plain, swing: 'hinged', hand: 'up' },
])
  apply('putOpening', { opening });
apply('putRib', { rib: { id: 'r1', name: 'pillar 1', on: 'ring', flat: true } });
apply('putRib', { rib: { id: 'r2', name: 'pillar 2', on: 'ring', flat: true } });
apply('putKeepOut', {
  keepOut: { id: 'k1', name: 'Fuel tank', reason: 'tank', note: 'hatch above must stay reachable' },
});
apply('putPenetration', {
  penetration: { id: 'p1', name: 'Shower drain', surface: 'floor', purpose: 'drain', decided: false, sealing: '' },
});
// half the walk, to the nearest sixteenth of an inch
walk(bus, practice, 88, INCH / 16);
// what fails on purpose: a width taped against two halves, of which one was misread; diagonals that do not agree
read('station/s2/width/0', inches(88));
read('station/s2/left/0', inches(43), { repeats: [inches(43), inches(43 + 1 / 8)] });
read('floor/diagonal-a', inches(261.75));
read('floor/diagonal-b', inches(260.5));
read('station/s4/rest', inches(139 + 5 / 16));
for (const [address, value] of Object.entries({
  'arch/a3/from': 14,
  'arch/a3/to': 42,
  'arch/a3/height': 11,
  'arch/a3/face': 22,
  'rib/r1/x': 35 + 7 / 16,
  'rib/r1/width': 2.25,
  'rib/r1/proud': 1 + 9 / 16,
  'rib/r2/x': 70 + 7 / 8,
  'rib/r2/width': 2.25,
  'rib/r2/proud': 1 + 5 / 8,
  'keepout/k1/from': 70,
  'keepout/k1/to': 108,
  'keepout/k1/left': -30,
  'keepout/k1/right': 4,
  'hole/p1/x': 106,
  'hole/p1/along': -12,
  'hole/p1/size': 2,
}))
  read(address, inches(value));
for (const [what, values] of Object.entries({
  o1: [14, 42, 0, 62],
  o2: [58, 104, 36, 56],
}))
  ['from', 'to', 'sill', 'head'].forEach((edge, i) => read(`opening/${what}/${edge}`, inches(values[i])));
const find = { size: 0, method: '', cost: 0, photo: null };
for (const found of [
  {
    id: 'n1',
    name: 'Seat rails',
    kind: 'anchor',
    surface: 'floor',
    x: 2400,
    along: 500,
    decision: 'remove',
    status: 'open',
    cost: 0,
  },
  {
    id: 'n2',
    name: 'Old plywood lining',
    kind: 'lining',
    surface: 'left',
    x: 3000,
    along: 900,
    decision: 'remove',
    status: 'open',
    cost: 0,
  },
  {
    id: 'n3',
    name: 'Window seal weeps',
    kind: 'leak',
    surface: 'left',
    x: 2050,
    along: 920,
    decision: 'redo',
    status: 'open',
    cost: 4_800,
  },
  {
    id: 'n4',
    name: 'Heater duct',
    kind: 'vent',
    surface: 'right',
    x: 1200,
    along: 300,
    decision: 'keep',
    status: 'open',
    cost: 0,
  },
])
  apply('putFound', { found: { ...find, ...found } });
for (const person of [
  { id: 'maren', name: 'Maren', stature: inches(67) },
  { id: 'tobin', name: 'Tobin', stature: inches(70.5) },
  { id: 'pip', name: 'Pip', stature: inches(47.5) },
  { id: 'wilt', name: 'Wilt', stature: inches(54.5) },
])
  apply('putPerson', { person });
apply('changeSettings', { changes: { budget: 1_450_000, climate: { inside: 20, outside: -12, humidity: 65 } } });
const layer = (surface, id, material, thickness, place, more = {}) =>
  apply('putLayer', {
    surface,
    layer: { id, material, thickness, place, share: 1, measured: null, board: false, ...more },
  });
// timber sold as 2 x 2 measures 38 mm, and what came measures 1 7/16 in
layer('floor', 'f1', 'batten-38', 38, 'battens', { measured: inches(1 + 7 / 16) });
layer('floor', 'f2', 'foam-30', 30, 'between-battens');
layer('floor', 'f3', 'poplar-12', 12, 'continuous', { board: true });
layer('floor', 'f4', 'roll-2', 2, 'continuous');
layer('doors', 'd1', 'closed-foam-10', 10, 'continuous');
layer('doors', 'd2', 'poplar-5', 5, 'continuous');
for (const surface of ['left', 'right']) {
  layer(surface, `${surface[0]}1`, 'foam-30', 30, 'in-ribs');
  layer(surface, `${surface[0]}2`, 'vapour-foil', 0.2, 'continuous');
  layer(surface, `${surface[0]}3`, 'batten-18', 18, 'battens');
  layer(surface, `${surface[0]}4`, 'poplar-5', 5, 'continuous');
  apply('changeLining', {
    surface,
    changes: {
      school: 'strips',
      strip: inches(9.5),
      gap: inches(1 / 16),
      edge: inches(3 / 16),
      sliver: inches(2.5),
      undersize: inches(3 / 8),
    },
  });
}
apply('changeLining', {
  surface: 'ceiling',
  changes: { gap: inches(1 / 16), edge: inches(3 / 16), sliver: inches(2.5), undersize: inches(3 / 8) },
});
apply('changeBoxes', {
  changes: { board: 'birch-15', arches: ['a1', 'a2'], clearance: inches(1), load: 'seat', access: 'lid' },
});
// the sender of the fuel tank must stay within reach
apply('putFloorHatch', {
  hatch: {
    id: 'fh1',
    name: 'Fuel sender',
    x: inches(92),
    y: inches(0),
    length: inches(12),
    width: inches(10),
    lift: 'ring',
  },
});
layer('ceiling', 'c1', 'foam-30', 30, 'in-ribs');
layer('ceiling', 'c2', 'boards-9', 9, 'continuous');
apply('placeUnit', {
  unit: bed({
    id: 'bunk',
    name: 'Rear bed',
    x: inches(196),
    length: inches(48),
    height: inches(34),
    mattress: inches(5),
    sleepers: ['tobin', 'maren'],
    board: 'poplar-12',
    support: 'birch-15',
    boardWidth: inches(24),
    span: inches(25),
    scribe: inches(3 / 4),
  }),
});
const cupboard = (id, name, side, x, length, front, height) =>
  apply('placeUnit', {
    unit: run({
      id,
      name,
      side,
      x: inches(x),
      length: inches(length),
      front: inches(front),
      height: inches(height),
      toeKick: inches(3.5),
      shelves: 1,
      doors: 2,
      carcass: 'birch-15',
      facing: 'birch-15',
      top: 'birch-18',
      overhang: inches(3 / 4),
      scribe: inches(3 / 4),
    }),
  });
cupboard('galley', 'Galley', 'left', 60, 72, 16, 35);
cupboard('dinette', 'Dinette seat', 'right', 70, 44, 7, 17);
cupboard('puppets', 'Puppet chest', 'right', 150, 50, 20, 40);
// nobody has looked at this bus in the instruments' way yet: its true shape can be practised on
write('bulrush', { ...project(), practice }, pricesIn('USD', 1.1, { 2500: 2440, 1250: 1220 }));
