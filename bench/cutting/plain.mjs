// What the engine is compared with: plain randomised first-fit guillotine filling, written for the yardstick, and two
// general packing libraries. Each gives a price for a job, or null when it has no way to do it.
import { pack2D } from 'binpackingjs/2d';
import { MaxRectsPacker } from 'maxrects-packer/dist/maxrects-packer.mjs';
import { stream } from './random.mjs';

const piecesOf = (job) =>
  job.parts.flatMap((part) =>
    Array.from({ length: part.quantity }, () => ({
      length: part.length + job.kerf,
      width: part.width + job.kerf,
      mayTurn: part.mayTurn,
    })),
  );
const roomOf = (job, stock) => ({
  length: stock.length - (stock.offcut ? 0 : 2 * job.trim) + job.kerf,
  width: stock.width - (stock.offcut ? 0 : 2 * job.trim) + job.kerf,
});

/** One pass: each piece goes in the first free rectangle that takes it, the shorter rest is split off first. */
function firstFitPass(job, pieces, random) {
  const sheets = [];
  const used = new Map();
  let cost = 0;
  for (const piece of pieces) {
    const ways = piece.mayTurn
      ? [
          [piece.length, piece.width],
          [piece.width, piece.length],
        ]
      : [[piece.length, piece.width]];
    const put = (free) => {
      for (const [i, room] of free.entries())
        for (const [l, w] of ways)
          if (l <= room.length + 1e-9 && w <= room.width + 1e-9) {
            const [restLength, restWidth] = [room.length - l, room.width - w];
            const rests =
              restLength < restWidth
                ? [
                    { length: restLength, width: w },
                    { length: room.length, width: restWidth },
                  ]
                : [
                    { length: l, width: restWidth },
                    { length: restLength, width: room.width },
                  ];
            free.splice(i, 1, ...rests.filter((rest) => rest.length > 0 && rest.width > 0));
            return true;
          }
      return false;
    };
    if (sheets.some(put)) continue;
    const kinds = job.stock.filter((stock) => {
      const room = roomOf(job, stock);
      return (
        (used.get(stock.id) ?? 0) < (stock.quantity ?? Infinity) &&
        ways.some(([l, w]) => l <= room.length + 1e-9 && w <= room.width + 1e-9)
      );
    });
    if (kinds.length === 0) return null;
    const free = kinds.filter((stock) => stock.offcut && stock.price === 0);
    const stock = random.pick(free.length > 0 ? free : kinds);
    used.set(stock.id, (used.get(stock.id) ?? 0) + 1);
    cost += stock.price;
    const sheet = [roomOf(job, stock)];
    put(sheet);
    sheets.push(sheet);
  }
  return cost;
}

/** The cheapest of as many first-fit passes in disturbed orders as the time allows. */
export function firstFit(job, seconds, passes = Infinity) {
  const random = stream(1);
  const pieces = piecesOf(job);
  const end = performance.now() + seconds * 1000;
  let best = null;
  for (let pass = 0; pass < passes && (pass === 0 || performance.now() < end); pass += 1) {
    const key = new Map(pieces.map((p) => [p, p.length * p.width * (pass === 0 ? 1 : 0.4 + 1.2 * random.next())]));
    const cost = firstFitPass(
      job,
      pieces.toSorted((a, b) => key.get(b) - key.get(a)),
      random,
    );
    if (cost !== null && (best === null || cost < best)) best = cost;
  }
  return best;
}

/** The price when only one size of sheet is bought, as the libraries know but one; free of the need to be sawable. */
function overSizes(job, countFor) {
  const prices = job.stock
    .filter((stock) => stock.quantity === null)
    .map((stock) => {
      const count = countFor(roomOf(job, stock));
      return count === null ? null : count * stock.price;
    })
    .filter((price) => price !== null);
  return prices.length > 0 ? Math.min(...prices) : null;
}

/** Maximal rectangles. It turns all pieces or none: none, when any must keep its grain. */
export function maximalRectangles(job) {
  const pieces = piecesOf(job);
  const turn = pieces.every((piece) => piece.mayTurn);
  return overSizes(job, (room) => {
    if (pieces.some((p) => p.length > room.length || p.width > room.width)) return null;
    const packer = new MaxRectsPacker(room.length, room.width, 0, {
      smart: false,
      pot: false,
      square: false,
      allowRotation: turn,
    });
    packer.addArray(pieces.map((p) => ({ width: p.length, height: p.width })));
    return packer.bins.length;
  });
}

/** Maximal rectangles with a choice of rules, sheet after sheet; turning is chosen piece by piece. */
export function ruledRectangles(job) {
  const pieces = piecesOf(job);
  return overSizes(job, (room) => {
    if (pieces.some((p) => p.length > room.length || p.width > room.width)) return null;
    const result = pack2D({
      bins: pieces.map(() => ({ width: room.length, height: room.width })),
      boxes: pieces.map((p) => ({ width: p.length, height: p.width, constrainRotation: !p.mayTurn })),
    });
    return result.unpackedBoxes.length > 0 ? null : result.packedBins.filter((bin) => bin.boxes.length > 0).length;
  });
}
