import { clearance, FINE, turnOutline, type Outline } from './outline.js';
import { endsAsLaid, stepBetween } from './mitres.js';
import { engineJob, type CutJob, type CutPlan, type EngineJob } from './job.js';
import { toUnits } from './units.js';

interface Piece {
  readonly part: string;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** Lengths in a plan went through mm once: they may be off by this many engine units. */
const ROUNDING = 2;

/** Whether pieces can be parted by edge-to-edge cuts, each taking a kerf, without sawing into one. */
export function separable(pieces: readonly Piece[], kerf: number): boolean {
  if (pieces.length <= 1) return true;
  for (const axis of ['x', 'y'] as const) {
    const start = (p: Piece): number => (axis === 'x' ? p.x0 : p.y0);
    const end = (p: Piece): number => (axis === 'x' ? p.x1 : p.y1);
    const sorted = [...pieces].sort((a, b) => start(a) - start(b));
    let reached = -Infinity;
    for (let i = 0; i + 1 < sorted.length; i += 1) {
      const [piece, next] = [sorted[i], sorted[i + 1]];
      if (!piece || !next) continue;
      reached = Math.max(reached, end(piece));
      if (start(next) - reached >= kerf - ROUNDING)
        return separable(sorted.slice(0, i + 1), kerf) && separable(sorted.slice(i + 1), kerf);
    }
  }
  return false;
}

/** Outlines are rounded to thousandths on the way: they may be this many of them closer than a kerf. */
const FREE_PLAY = 15;

/** Names pieces that lie closer together than a kerf, by their true outlines. */
function tooClose(engine: EngineJob, sheet: CutPlan['sheets'][number]): string[] {
  const pieces = sheet.placements.flatMap((p) => {
    const part = engine.parts.find((candidate) => candidate.ids.includes(p.part));
    if (!part) return [];
    const fine = (units: number): number => Math.round((units * FINE) / toUnits(1));
    const [length, width] = [fine(part.length), fine(part.width)];
    const straight: Outline = [
      [0, 0],
      [length, 0],
      [length, width],
      [0, width],
    ];
    const quarters = (p.angle ?? (p.turned ? 90 : 0)) / 90;
    const [x, y] = [Math.round(p.x * FINE), Math.round(p.y * FINE)];
    const outline = turnOutline(part.outline ?? straight, length, width, quarters);
    return [{ part: p.part, outline: outline.map(([dx, dy]) => [x + dx, y + dy] as const) }];
  });
  const kerf = (engine.kerf * FINE) / toUnits(1);
  return pieces.flatMap((a, i) =>
    pieces
      .slice(0, i)
      .filter((b) => clearance(a.outline, b.outline) < kerf - FREE_PLAY)
      .map((b) => `${a.part} and ${b.part} lie closer than a kerf`),
  );
}

/** Faults of a bar whose parts have angled ends: neighbours must be a cut apart all the way across. */
function barFaults(
  engine: EngineJob,
  sheet: CutPlan['sheets'][number],
  stock: EngineJob['stock'][number],
): readonly string[] {
  const pieces = sheet.placements.map((p) => {
    const part = engine.parts.find((candidate) => candidate.ids.includes(p.part));
    const long = part?.ends?.long ?? part?.length ?? 0;
    const lies = part?.ends ? endsAsLaid(part.ends, p.turned, p.flipped ?? false) : { start: 0, end: 0 };
    return { p, part, x: toUnits(p.x), long, ...lies, width: part?.ends?.width ?? stock.width };
  });
  pieces.sort((a, b) => a.x - b.x);
  return pieces.flatMap((piece, i): string[] => {
    const { p, part, x, long } = piece;
    if (!part) return [`no part ${p.part}`];
    const faults: string[] = [];
    if ((p.turned || p.flipped) && !part.mayTurn) faults.push(`${p.part} must not be turned`);
    if (x < -ROUNDING || x + long > stock.length + ROUNDING) faults.push(`${p.part} runs over the end`);
    const before = pieces[i - 1];
    if (
      before &&
      x - before.x - before.long <
        stepBetween(before.end, piece.start, Math.max(before.width, piece.width), engine.kerf) - ROUNDING
    )
      faults.push(`${before.p.part} and ${p.part} lie closer than a cut`);
    return faults;
  });
}

function sheetFaults(engine: EngineJob, sheet: CutPlan['sheets'][number], index: number): string[] {
  const stock = engine.stock.find((s) => s.id === sheet.stock);
  if (!stock) return [`sheet ${index + 1}: no stock ${sheet.stock}`];
  const faults: string[] = [];
  if (engine.mitred) return barFaults(engine, sheet, stock).map((fault) => `bar ${index + 1}: ${fault}`);
  const pieces = sheet.placements.flatMap((p): Piece[] => {
    const part = engine.parts.find((candidate) => candidate.ids.includes(p.part));
    if (!part) {
      faults.push(`sheet ${index + 1}: no part ${p.part}`);
      return [];
    }
    if (p.turned && !part.mayTurn) faults.push(`sheet ${index + 1}: ${p.part} must not be turned`);
    const [x0, y0] = [toUnits(p.x), toUnits(p.y)];
    const [length, width] = p.turned ? [part.width, part.length] : [part.length, part.width];
    return [{ part: p.part, x0, y0, x1: x0 + length, y1: y0 + width }];
  });
  for (const p of pieces)
    if (p.x0 < -ROUNDING || p.y0 < -ROUNDING || p.x1 > stock.length + ROUNDING || p.y1 > stock.width + ROUNDING)
      faults.push(`sheet ${index + 1}: ${p.part} runs over the edge`);
  if (engine.free) faults.push(...tooClose(engine, sheet).map((fault) => `sheet ${index + 1}: ${fault}`));
  else if (!separable(pieces, engine.kerf)) faults.push(`sheet ${index + 1}: cannot be cut edge to edge with the kerf`);
  return faults;
}

/** Checks a plan against its job independently of the engine that made it. Returns what is wrong; nothing when it is sound. */
export function planFaults(job: CutJob, plan: CutPlan): string[] {
  const engine = engineJob(job);
  const faults = plan.sheets.flatMap((sheet, index) => sheetFaults(engine, sheet, index));
  for (const part of job.parts) {
    const placed = plan.sheets.reduce(
      (sum, sheet) => sum + sheet.placements.filter((p) => p.part === part.id).length,
      0,
    );
    const unplaced = plan.unplaced.filter((u) => u.part === part.id).reduce((sum, u) => sum + u.quantity, 0);
    if (placed + unplaced !== part.quantity)
      faults.push(`${part.id}: ${placed} placed and ${unplaced} left of ${part.quantity}`);
  }
  for (const stock of engine.stock) {
    const used = plan.sheets.filter((sheet) => sheet.stock === stock.id).length;
    if (used > stock.quantity) faults.push(`${stock.id}: ${used} used of ${stock.quantity}`);
  }
  const cost = plan.sheets.reduce((sum, sheet) => sum + (job.stock.find((s) => s.id === sheet.stock)?.price ?? 0), 0);
  if (cost !== plan.cost) faults.push(`cost ${plan.cost} is not the sheets' ${cost}`);
  if (plan.proved && plan.cost !== plan.bound) faults.push('proved although the cost is not the bound');
  return faults;
}
