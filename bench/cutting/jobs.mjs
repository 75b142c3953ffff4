// Generators of cut jobs for the yardstick. Lengths in mm; every kind is drawn from its own seed.
import { stream } from './random.mjs';

const SHEETS = [
  { length: 2440, width: 1220, price: 5400 },
  { length: 2500, width: 1250, price: 6100 },
  { length: 3050, width: 1525, price: 9800 },
  { length: 1525, width: 1525, price: 4700 },
];
const base = (more) => ({
  format: 'cut-job',
  version: 1,
  kind: 'sheet',
  kerf: 0,
  trim: 0,
  method: 'guillotine',
  ...more,
});
const tenth = (value) => Math.round(value * 10) / 10;
const trimmed = (job, sheet) => ({ length: sheet.length - 2 * job.trim, width: sheet.width - 2 * job.trim });

/** The parts of one piece of furniture: sides, bottoms, shelves, rails, doors, drawer parts. */
function furniture(random, number) {
  const depth = random.whole(280, 620);
  const height = random.whole(320, 900);
  const width = random.whole(350, 1150);
  const thick = random.pick([12, 15, 18]);
  const part = (name, length, across, quantity, mayTurn) => ({
    id: `u${number}-${name}`,
    length: tenth(length),
    width: tenth(across),
    quantity,
    mayTurn,
  });
  const inside = width - 2 * thick;
  const list = [
    part('side', height, depth, 2, false),
    part('bottom', inside, depth, 1, false),
    part('rail', inside, random.pick([60, 70, 80, 100]), random.whole(1, 3), true),
  ];
  if (random.share(0.6)) list.push(part('shelf', inside - 1, depth - random.whole(10, 40), random.whole(1, 3), true));
  if (random.share(0.5)) list.push(part('back', inside, height - random.whole(20, 90), 1, true));
  if (random.share(0.6)) list.push(part('door', height - 6, width / 2 - 4.5, 2, false));
  else if (random.share(0.7)) {
    const drawers = random.whole(2, 4);
    list.push(part('face', inside + 20, tenth(height / drawers - 3), drawers, false));
    list.push(part('drawer-side', depth - 50, 120, drawers * 2, true));
    list.push(part('drawer-end', inside - 50, 120, drawers * 2, true));
  }
  return list;
}

const pieces = (parts) => parts.reduce((sum, part) => sum + part.quantity, 0);
const areaOf = (parts, kerf) => parts.reduce((sum, p) => sum + p.quantity * (p.length + kerf) * (p.width + kerf), 0);

/** Joinery as it comes: 20 to 150 parts on one size of sheet. */
export function joinery(seed) {
  const random = stream(seed + 11_000);
  const sheet = random.pick(SHEETS.slice(0, 3));
  const wanted = random.whole(20, 150);
  const parts = [];
  for (let number = 1; pieces(parts) < wanted; number += 1) parts.push(...furniture(random, number));
  return base({
    kerf: random.pick([2.4, 3, 3.2]),
    trim: random.pick([0, 5, 10]),
    stock: [{ id: 'sheet', ...sheet, quantity: null, offcut: false }],
    parts,
  });
}

/** The same, parts added or left out until the bound's sheets are 87 to 95.5 % full. */
export function tight(seed) {
  const random = stream(seed + 23_000);
  for (let attempt = 0; ; attempt += 1) {
    const job = joinery(seed * 1000 + attempt);
    const room = trimmed(job, job.stock[0]);
    const sheet = (room.length + job.kerf) * (room.width + job.kerf);
    const aim = 0.87 + 0.085 * random.next();
    const fill = () => {
      const full = areaOf(job.parts, job.kerf) / sheet;
      return full / Math.ceil(full);
    };
    for (let tries = 0; tries < 60 && Math.abs(fill() - aim) > 0.004; tries += 1) {
      const index = random.whole(0, job.parts.length - 1);
      const part = job.parts[index];
      const before = Math.abs(fill() - aim);
      part.quantity += random.share(0.5) ? 1 : -1;
      if (part.quantity < 1 || Math.abs(fill() - aim) > before)
        part.quantity = Math.max(1, part.quantity + (part.quantity < 1 ? 1 : 0));
    }
    const share = fill();
    const count = pieces(job.parts);
    if (share >= 0.87 && share <= 0.955 && count >= 20 && count <= 150) return job;
  }
}

/** Splits a rectangle by edge-to-edge cuts, the kerf counted, until there are `count` pieces. */
function split(random, rectangle, count, kerf, least) {
  const open = [rectangle];
  for (let tries = 0; open.length < count && tries < 400; tries += 1) {
    open.sort((a, b) => b.length * b.width - a.length * a.width);
    const at = Math.min(open.length - 1, Math.floor(random.next() ** 2 * open.length));
    const piece = open[at];
    const alongLength = random.next() < piece.length / (piece.length + piece.width);
    const size = alongLength ? piece.length : piece.width;
    if (size < 2 * least + kerf) continue;
    const first = tenth(least + random.next() * (size - 2 * least - kerf));
    const second = tenth(size - first - kerf);
    open.splice(
      at,
      1,
      alongLength ? { length: first, width: piece.width } : { length: piece.length, width: first },
      alongLength ? { length: second, width: piece.width } : { length: piece.length, width: second },
    );
  }
  return open;
}

function fromSplits(random, slack) {
  const sheet = random.pick(SHEETS.slice(0, 2));
  const kerf = random.pick([2.4, 3, 3.2]);
  const count = random.whole(2, 8);
  const parts = [];
  for (let k = 0; k < count; k += 1)
    for (const piece of split(random, { length: sheet.length, width: sheet.width }, random.whole(7, 14), kerf, 90)) {
      const shrink = Math.sqrt(1 - slack * 2 * random.next());
      const [length, width] = [tenth(piece.length * shrink), tenth(piece.width * shrink)];
      const turn = random.share(0.4);
      const mayTurn = random.share(0.6);
      parts.push({
        id: `p${parts.length + 1}`,
        length: mayTurn && turn ? width : length,
        width: mayTurn && turn ? length : width,
        quantity: 1,
        mayTurn,
      });
    }
  for (let i = parts.length - 1; i > 0; i -= 1) {
    const j = random.whole(0, i);
    [parts[i], parts[j]] = [parts[j], parts[i]];
  }
  return {
    ...base({ kerf, trim: 0, stock: [{ id: 'sheet', ...sheet, quantity: null, offcut: false }], parts }),
    known: count * sheet.price,
  };
}
/** Whole sheets sawn apart, every part a little smaller than its piece: about 2.5 % slack. */
export const slack = (seed) => fromSplits(stream(seed + 37_000), 0.025);
/** Whole sheets sawn apart without any slack. */
export const known = (seed) => fromSplits(stream(seed + 41_000), 0);

/** The ten random classes of the literature on two-dimensional bin packing, 20 to 100 rectangles. */
export function literature(seed) {
  const random = stream(seed + 53_000);
  const kind = seed % 10;
  const count = 20 * (1 + (Math.floor(seed / 10) % 5));
  const side = [10, 30, 40, 100, 100, 300, 100, 100, 100, 100][kind];
  const most = [10, 10, 35, 35, 100, 100][kind];
  const rectangle = () => {
    if (kind < 6) return [random.whole(1, most), random.whole(1, most)];
    const [long, half] = [
      [Math.ceil((2 * side) / 3), side],
      [1, Math.floor(side / 2)],
    ];
    const big = [Math.ceil(side / 2), side];
    const types = [
      [long, half],
      [half, long],
      [big, big],
      [half, half],
    ];
    const usual = random.share(0.7) ? kind - 6 : random.pick([0, 1, 2, 3].filter((type) => type !== kind - 6));
    const [a, b] = types[usual];
    // widths are long in the first type, heights in the second
    return [random.whole(...a), random.whole(...b)];
  };
  const parts = Array.from({ length: count }, (_, i) => {
    const [length, width] = rectangle();
    return { id: `r${i + 1}`, length, width, quantity: 1, mayTurn: false };
  });
  return base({ stock: [{ id: 'bin', length: side, width: side, price: 1, quantity: null, offcut: false }], parts });
}

/** Several sizes of sheet at different prices, and offcuts of which there is one each. */
export function multi(seed) {
  const random = stream(seed + 61_000);
  const job = joinery(seed + 500_000);
  const sizes = SHEETS.concat([
    { length: 1220, width: 610, price: 1650 },
    { length: 1250, width: 1250, price: 3250 },
  ]);
  const chosen = sizes.filter(() => random.share(0.6));
  const largest = { length: 2500, width: 1250, price: 6100 };
  const stock = [largest, ...chosen.filter((s) => s.length !== 2500)].map((sheet, i) => ({
    id: `s${i + 1}`,
    ...sheet,
    price: Math.round(sheet.price * (0.92 + 0.16 * random.next())),
    quantity: i > 0 && random.share(0.3) ? random.whole(1, 3) : null,
    offcut: false,
  }));
  const offcuts = Array.from({ length: random.whole(0, 8) }, (_, i) => ({
    id: `o${i + 1}`,
    length: random.whole(400, 1800),
    width: random.whole(200, 900),
    price: random.share(0.5) ? 0 : random.whole(100, 900),
    quantity: 1,
    offcut: true,
  }));
  const fits = (part) => part.length <= 2480 && part.width <= 1230;
  return { ...job, stock: [...stock, ...offcuts], parts: job.parts.filter(fits) };
}

/** Bars: timber or profiles of one or several priced lengths. */
export function bars(seed) {
  const random = stream(seed + 71_000);
  const lengths = [2000, 2400, 3000, 3600, 4000, 6000].filter(() => random.share(0.4));
  if (lengths.length === 0) lengths.push(3000);
  const single = random.share(0.4);
  const stock = (single ? [random.pick(lengths)] : lengths).map((length, i) => ({
    id: `b${i + 1}`,
    length,
    price: Math.round(length * (0.28 + 0.06 * random.next())),
    quantity: null,
    offcut: false,
  }));
  const longest = Math.max(...stock.map((s) => s.length));
  const kinds = random.whole(5, 40);
  const parts = Array.from({ length: kinds }, (_, i) => ({
    id: `b${i + 1}`,
    length: tenth(120 + random.next() * (Math.min(longest, 2400) - 140)),
    quantity: random.whole(1, 8),
    mayTurn: false,
  }));
  return { ...base({ kind: 'bar', kerf: random.pick([2.4, 3, 3.2]), endTrim: random.pick([0, 5]), stock, parts }) };
}

/** Larger frames: 50 to 190 pieces, most lengths different, from one to seven kinds of bar, some of them offcuts of which there are few. */
export function frames(seed) {
  const random = stream(seed + 101_000);
  const lengths = [2000, 2400, 3000, 3600, 4000, 5000, 6000];
  const whole = lengths.filter(() => random.share(0.35)).slice(0, 4);
  if (whole.length === 0) whole.push(random.pick(lengths));
  const longest = Math.max(...whole);
  const stock = [
    ...whole.map((length) => ({ length, quantity: null, offcut: false })),
    ...Array.from({ length: random.whole(0, 3) }, () => ({
      length: random.whole(500, longest - 100),
      quantity: random.whole(1, 3),
      offcut: true,
    })),
  ].map((bar, i) => ({
    id: `b${i + 1}`,
    ...bar,
    price: Math.round(bar.length * (bar.offcut ? 0.05 + 0.2 * random.next() : 0.28 + 0.06 * random.next())),
  }));
  const wanted = random.whole(50, 190);
  const parts = [];
  for (let made = 0; made < wanted;) {
    const quantity = random.share(0.85) ? 1 : random.whole(2, 4);
    parts.push({
      id: `f${parts.length + 1}`,
      length: tenth(120 + random.next() ** 1.5 * (Math.min(longest, 2400) - 140)),
      quantity,
      mayTurn: false,
    });
    made += quantity;
  }
  return base({ kind: 'bar', kerf: random.pick([2.4, 3, 3.2]), endTrim: random.pick([0, 5]), stock, parts });
}

/** Whole bars sawn into three to five without slack, 48 to 60 pieces in all, in tenths of millimetres. */
export function knownFrames(seed) {
  const random = stream(seed + 107_000);
  const kerf = random.pick([2.4, 3, 3.2]);
  const length = random.pick([2400, 3000, 4000, 6000]);
  const wanted = random.whole(48, 60);
  const parts = [];
  let count = 0;
  while (parts.length < wanted) {
    let rest = length;
    const most = random.whole(3, 5);
    for (let i = 1; i < most && rest > 500; i += 1) {
      const piece = tenth(150 + random.next() * Math.max(0, rest * 0.6 - 150));
      parts.push(piece);
      rest = tenth(rest - piece - kerf);
    }
    parts.push(rest);
    count += 1;
  }
  parts.sort((a, b) => a - b);
  return {
    ...base({
      kind: 'bar',
      kerf,
      endTrim: 0,
      stock: [{ id: 'bar', length, price: 900, quantity: null, offcut: false }],
      parts: parts.map((piece, i) => ({ id: `p${i + 1}`, length: piece, quantity: 1, mayTurn: false })),
    }),
    known: count * 900,
  };
}

/** Whole bars sawn apart without slack: the number of bars is known. */
export function knownBars(seed) {
  const random = stream(seed + 83_000);
  const kerf = random.pick([2.4, 3.2]);
  const length = random.pick([2400, 3000, 6000]);
  const count = random.whole(3, 20);
  const parts = [];
  for (let k = 0; k < count; k += 1) {
    let rest = length;
    const most = random.whole(2, 6);
    for (let i = 1; i < most && rest > 500; i += 1) {
      const piece = tenth(150 + random.next() * (rest - 300 - kerf));
      parts.push(piece);
      rest = tenth(rest - piece - kerf);
    }
    parts.push(rest);
  }
  parts.sort((a, b) => a - b);
  return {
    ...base({
      kind: 'bar',
      kerf,
      endTrim: 0,
      stock: [{ id: 'bar', length, price: 900, quantity: null, offcut: false }],
      parts: parts.map((piece, i) => ({ id: `p${i + 1}`, length: piece, quantity: 1, mayTurn: false })),
    }),
    known: count * 900,
  };
}

/** Cabinet sides that taper to the wall: wide at the foot, narrow at the top, with the rectangles that go with them. */
export function tapered(seed) {
  const random = stream(seed + 97_000);
  const parts = [];
  const kinds = random.whole(3, 7);
  for (let k = 1; k <= kinds; k += 1) {
    const length = random.whole(600, 1750);
    const foot = random.whole(380, 620);
    const top = Math.round(foot * (0.35 + 0.4 * random.next()));
    parts.push({
      id: `side${k}`,
      length,
      width: foot,
      quantity: 2 * random.whole(1, 3),
      mayTurn: false,
      outline: [
        [0, 0],
        [length, 0],
        [length, top],
        ...(random.share(0.5) ? [[tenth(length * 0.45), tenth(foot - (foot - top) * 0.3)]] : []),
        [0, foot],
      ],
    });
    if (random.share(0.5))
      parts.push({
        id: `shelf${k}`,
        length: random.whole(300, 900),
        width: top,
        quantity: random.whole(1, 3),
        mayTurn: true,
      });
  }
  return base({
    kerf: 3,
    trim: 10,
    method: 'free',
    stock: [{ id: 'sheet', ...SHEETS[0], quantity: null, offcut: false }],
    parts,
  });
}
