// Judges a plan against its job by its own arithmetic. It shares no code with the engine: all lengths are turned into
// whole thousandths of a millimetre, pieces are compared pair by pair, and edge-to-edge cutting is tried by recursion.
const thou = (mm) => Math.round(mm * 1000);
/** A plan's figures are rounded once on the way. */
const PLAY = 2;

function usable(job, stock) {
  const bar = job.kind === 'bar';
  const trim =
    typeof job.trim === 'number' ? { length: job.trim, width: job.trim } : (job.trim ?? { length: 0, width: 0 });
  const ends = stock.offcut ? 0 : bar ? (job.endTrim ?? 0) : trim.length;
  const edges = stock.offcut || bar ? 0 : trim.width;
  return { length: thou(stock.length - 2 * ends), width: bar ? 1000 : thou(stock.width - 2 * edges) };
}

/** Whether the pieces between two indices fall apart under edge-to-edge cuts, each of one kerf. */
function sawable(pieces, kerf) {
  if (pieces.length < 2) return true;
  for (const [low, high] of [
    ['left', 'right'],
    ['foot', 'head'],
  ]) {
    const order = pieces.toSorted((a, b) => a[low] - b[low]);
    let edge = order[0][high];
    for (let i = 1; i < order.length; i += 1) {
      if (order[i][low] - edge >= kerf - PLAY) return sawable(order.slice(0, i), kerf) && sawable(order.slice(i), kerf);
      edge = Math.max(edge, order[i][high]);
    }
  }
  return false;
}

const cross = (o, a, b) => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
const toSegment = (p, a, b) => {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy);
};
const edges = (outline) => outline.map((point, i) => [point, outline[(i + 1) % outline.length]]);
const inside = (p, outline) => {
  let odd = false;
  for (const [a, b] of edges(outline))
    if (a[1] > p[1] !== b[1] > p[1] && p[0] < a[0] + ((p[1] - a[1]) * (b[0] - a[0])) / (b[1] - a[1])) odd = !odd;
  return odd;
};
/** Least distance between two outlines; negative when one lies in or crosses the other. */
function apart(a, b) {
  for (const [p, q] of edges(a))
    for (const [r, s] of edges(b))
      if (cross(p, q, r) * cross(p, q, s) < 0 && cross(r, s, p) * cross(r, s, q) < 0) return -1;
  if (inside(a[0], b) || inside(b[0], a)) return -1;
  let least = Infinity;
  for (const p of a) for (const [r, s] of edges(b)) least = Math.min(least, toSegment(p, r, s));
  for (const p of b) for (const [r, s] of edges(a)) least = Math.min(least, toSegment(p, r, s));
  return least;
}

/** The outline of a placed part, in thousandths: turned quarter, half or three quarters about its rectangle. */
function laid(part, placement) {
  const quarter = (placement.angle ?? (placement.turned ? 90 : 0)) / 90;
  const [l, w] = [part.length, part.width];
  const outline = part.outline ?? [
    [0, 0],
    [l, 0],
    [l, w],
    [0, w],
  ];
  return outline.map(([x, y]) => {
    const [u, v] = [
      [x, y],
      [w - y, x],
      [l - x, w - y],
      [y, l - x],
    ][quarter];
    return [thou(placement.x + u), thou(placement.y + v)];
  });
}

/** What is wrong with the plan; nothing when it is sound. */
export function judge(job, plan) {
  const faults = [];
  const parts = new Map(job.parts.map((part) => [part.id, part]));
  const stock = new Map(job.stock.map((item) => [item.id, item]));
  const kerf = thou(job.kerf);
  const used = new Map();
  const done = new Map();
  let cost = 0;
  for (const [number, sheet] of plan.sheets.entries()) {
    const item = stock.get(sheet.stock);
    if (!item) {
      faults.push(`sheet ${number}: no such stock`);
      continue;
    }
    cost += item.price;
    used.set(item.id, (used.get(item.id) ?? 0) + 1);
    const room = usable(job, item);
    const pieces = [];
    for (const placement of sheet.placements) {
      const part = parts.get(placement.part);
      if (!part) {
        faults.push(`sheet ${number}: no such part`);
        continue;
      }
      done.set(part.id, (done.get(part.id) ?? 0) + 1);
      if (placement.turned && (!part.mayTurn || job.kind === 'bar')) faults.push(`${part.id} turned against the grain`);
      const across = job.kind === 'bar' ? 1 : part.width;
      const [l, w] = placement.turned ? [across, part.length] : [part.length, across];
      const piece = {
        left: thou(placement.x),
        right: thou(placement.x + l),
        foot: thou(placement.y),
        head: thou(placement.y + w),
        outline: job.method === 'free' ? laid(part, placement) : null,
      };
      if (
        piece.left < -PLAY ||
        piece.foot < -PLAY ||
        piece.right > room.length + PLAY ||
        piece.head > room.width + PLAY
      )
        faults.push(`sheet ${number}: ${part.id} over the edge`);
      pieces.push(piece);
    }
    if (job.method === 'free' && job.kind !== 'bar') {
      for (let i = 0; i < pieces.length; i += 1)
        for (let j = 0; j < i; j += 1) {
          const [a, b] = [pieces[i], pieces[j]];
          const clear = Math.max(a.left - b.right, b.left - a.right, a.foot - b.head, b.foot - a.head);
          if (clear < kerf - PLAY && apart(a.outline, b.outline) < kerf - 20)
            faults.push(`sheet ${number}: pieces ${i} and ${j} closer than a kerf`);
        }
    } else if (!sawable(pieces, kerf)) faults.push(`sheet ${number}: cannot be sawn edge to edge`);
  }
  const left = new Map();
  for (const item of plan.unplaced) left.set(item.part, (left.get(item.part) ?? 0) + item.quantity);
  for (const part of job.parts)
    if ((done.get(part.id) ?? 0) + (left.get(part.id) ?? 0) !== part.quantity) faults.push(`${part.id}: wrong number`);
  for (const item of job.stock)
    if (item.quantity !== null && (used.get(item.id) ?? 0) > item.quantity) faults.push(`${item.id}: too many used`);
  if (cost !== plan.cost) faults.push('the cost is not that of the sheets');
  if (plan.proved && (plan.cost !== plan.bound || plan.unplaced.length > 0))
    faults.push('proved though it is not at the bound');
  if (plan.unplaced.length === 0 && plan.bound > plan.cost) faults.push('the bound is above the cost');
  if (job.known !== undefined && plan.bound > job.known) faults.push('the bound is above a plan that is known');
  return faults;
}
