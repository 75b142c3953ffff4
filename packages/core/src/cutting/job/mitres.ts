import type { Mitred } from './mitred.js';
import type { BarEnds, SawCut } from '../../document/schema.js';
import type { Filled, Laid } from '../engine/filling.js';
import { type EngineJob, type EnginePart } from './job.js';
import { toMm } from './units.js';

/** How far an end falls back at the near and at the far edge of the bar. */
type Fall = readonly [number, number];

const SQUARE = 0;
/** Starts that are tried for a chain. */
const MOST_STARTS = 6;

const fallOf = (setback: number): Fall => (setback >= 0 ? [setback, 0] : [0, -setback]);
const mitredOf = (part: EnginePart): Mitred => part.ends ?? { long: part.length, start: SQUARE, end: SQUARE, width: 1 };
/** What the saw takes along the bar: an oblique cut takes more of it than a square one. */
const sawn = (kerf: number, setback: number, width: number): number => kerf * Math.hypot(1, setback / width);

/** The ends of a part as it lies: turned end for end, and over about its length. */
export function endsAsLaid(ends: Mitred, turned: boolean, flipped: boolean): { start: number; end: number } {
  const [start, end] = turned ? [ends.end, ends.start] : [ends.start, ends.end];
  // adding zero keeps a square end from becoming minus zero
  return flipped ? { start: 0 - start, end: 0 - end } : { start, end };
}

/** How far the long point of the next piece lies from the long point before it: negative when they interlock. */
export function stepBetween(end: number, start: number, width: number, kerf: number): number {
  const [a, b] = [fallOf(end), fallOf(start)];
  const nested = Math.min(a[0] + b[0], a[1] + b[1]);
  return Math.max(sawn(kerf, end, width), sawn(kerf, start, width)) - nested;
}

interface Chain {
  readonly laid: Laid[];
  /** From the bar's start to the last long point, engine units. */
  readonly length: number;
}

/** Lays parts one after the other on a bar so that angled ends interlock: the nearest fit first, from several starts. */
export function chainOf(job: EngineJob, parts: readonly number[]): Chain {
  const ways = (part: EnginePart): readonly (readonly [boolean, boolean])[] =>
    part.ends && part.mayTurn
      ? [
          [false, false],
          [true, false],
          [false, true],
          [true, true],
        ]
      : [[false, false]];
  const from = (first: number, way: number): Chain => {
    const left = [...parts];
    const laid: Laid[] = [];
    let [at, end, width] = [0, SQUARE, 1];
    for (let chosen = first, turn = way; left.length > 0;) {
      const index = left[chosen] ?? 0;
      const part = job.parts[index];
      const [turned, flipped] = (part && ways(part)[turn]) ?? [false, false];
      if (!part) break;
      const ends = mitredOf(part);
      const lies = endsAsLaid(ends, turned, flipped);
      if (laid.length > 0) at += stepBetween(end, lies.start, Math.max(width, ends.width), job.kerf);
      laid.push({ part: index, x: at, y: 0, turned, ...(flipped ? { flipped } : {}) });
      at += ends.long;
      [end, width] = [lies.end, ends.width];
      left.splice(chosen, 1);
      let least = Infinity;
      left.forEach((candidate, i) => {
        const next = job.parts[candidate];
        if (!next) return;
        ways(next).forEach(([swap, over], way) => {
          const other = endsAsLaid(mitredOf(next), swap, over);
          // of equal fits, the one whose own far end wants a partner the most
          const step =
            stepBetween(end, other.start, Math.max(width, mitredOf(next).width), job.kerf) - Math.abs(other.end) * 1e-6;
          if (step < least) [least, chosen, turn] = [step, i, way];
        });
      });
    }
    return { laid, length: at };
  };
  const kinds = [...new Set(parts)].slice(0, MOST_STARTS);
  const starts = kinds.flatMap((kind) => {
    const part = job.parts[kind];
    return part ? ways(part).map((_, way) => from(parts.indexOf(kind), way)) : [];
  });
  return starts.reduce((best, chain) => (chain.length < best.length ? chain : best), { laid: [], length: Infinity });
}

/** The saw's way through a bar of parts with angled ends, in the order of the bar. An angle of 0 is a square cut. */
export function cutsOfBar(
  job: EngineJob,
  laid: readonly Laid[],
  bar: { readonly length: number; readonly width: number },
): { readonly cuts: SawCut[]; readonly left: { x: number; y: number; length: number; width: number }[] } {
  const cuts: SawCut[] = [];
  const inOrder = [...laid].sort((a, b) => a.x - b.x);
  let reached = 0;
  const add = (at: number, lean: number, edge: number, width: number): void => {
    const angle = (Math.atan2(lean, width) * 180) / Math.PI;
    cuts.push({
      axis: 'crosscut',
      at: toMm(at),
      from: 0,
      to: toMm(width),
      level: cuts.length + 1,
      edge: toMm(edge),
      far: toMm(bar.length),
      ...(lean === 0 ? {} : { angle: Math.round(angle * 1000) / 1000 }),
    });
  };
  inOrder.forEach((piece, i) => {
    const part = job.parts[piece.part];
    if (!part) return;
    const ends = mitredOf(part);
    const width = part.ends?.width ?? bar.width;
    const lies = endsAsLaid(ends, piece.turned, piece.flipped ?? false);
    const before = inOrder[i - 1];
    const previous = before && job.parts[before.part];
    const last = previous && before ? endsAsLaid(mitredOf(previous), before.turned, before.flipped ?? false).end : 0;
    // the cut before serves both pieces when they lie a kerf apart all the way across
    const shared = i > 0 && Math.abs(last + lies.start) < 2 && Math.abs(last) + Math.abs(lies.start) > 0;
    const plain = last === 0 && lies.start === 0;
    if (!shared && !plain) {
      const [near] = fallOf(lies.start);
      add(piece.x + near - sawn(job.kerf, lies.start, width), -lies.start, piece.x, width);
    }
    const end = piece.x + ends.long;
    if (lies.end !== 0 || end < bar.length - 2) add(end - fallOf(lies.end)[0], lies.end, piece.x, width);
    reached = end + sawn(job.kerf, lies.end, width);
  });
  const rest = bar.length - reached;
  return {
    cuts,
    left: rest > 0 ? [{ x: toMm(reached), y: 0, length: toMm(rest), width: toMm(bar.width) }] : [],
  };
}

/** The outline of a bar part as it lies on the bar, from its own start, mm: a rectangle where both ends are square. */
export function barOutline(
  length: number,
  width: number,
  ends: BarEnds | undefined,
  turned: boolean,
  flipped: boolean,
): readonly (readonly [number, number])[] {
  const back = (angle: number): number => width * Math.tan((angle * Math.PI) / 180);
  const own = { long: length, start: back(ends?.start ?? 0), end: back(ends?.end ?? 0), width };
  const { start, end } = endsAsLaid(own, turned, flipped);
  const [s, e] = [fallOf(start), fallOf(end)];
  return [
    [s[0], 0],
    [length - e[0], 0],
    [length - e[1], width],
    [s[1], width],
  ];
}

/** Lays the parts of planned bars so that their ends interlock; null when those of one do not go on it after all. */
export function interlocked(job: EngineJob, bars: readonly Filled[]): Filled[] | null {
  const laid = bars.map((bar) => ({
    bar,
    chain: chainOf(
      job,
      bar.laid.map((piece) => piece.part),
    ),
  }));
  if (laid.some(({ bar, chain }) => chain.length > (job.stock[bar.stock]?.length ?? 0))) return null;
  return laid.map(({ bar, chain }) => ({ ...bar, laid: chain.laid }));
}
