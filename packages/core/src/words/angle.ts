import { message, type Message } from './message.js';

export type AngleResult =
  { readonly ok: true; readonly degrees: number } | { readonly ok: false; readonly error: Message };

/**
 * Reads a slope as it is typed: `1.4`, `-0.6°`, `2 %`, `12 mm/m`, `1:40`. A bare number is degrees.
 * A slope of p per cent is atan(p / 100).
 */
export function parseAngle(typed: string): AngleResult {
  const text = typed.trim().replace(',', '.').replace(/[−–]/g, '-');
  const number = '([-+]?\\d*\\.?\\d+)';
  const degrees = new RegExp(`^${number}\\s*(°|deg(rees)?)?$`, 'i').exec(text);
  if (degrees) return { ok: true, degrees: Number(degrees[1]) };
  const percent = new RegExp(`^${number}\\s*%$`).exec(text);
  const perMetre = new RegExp(`^${number}\\s*mm\\s*/\\s*m$`, 'i').exec(text);
  const ratio = new RegExp(`^${number}\\s*:\\s*(\\d*\\.?\\d+)$`).exec(text);
  const rise = percent
    ? Number(percent[1]) / 100
    : perMetre
      ? Number(perMetre[1]) / 1000
      : ratio && Number(ratio[2]) > 0
        ? Number(ratio[1]) / Number(ratio[2])
        : null;
  if (rise === null) return { ok: false, error: message(text === '' ? 'angle.empty' : 'angle.unreadable', { typed }) };
  return { ok: true, degrees: (Math.atan(rise) * 180) / Math.PI };
}

/** Writes degrees with a sign only when they are negative, to a tenth. */
export function formatAngle(degrees: number): string {
  const rounded = Math.round(degrees * 10) / 10;
  return `${Object.is(rounded, -0) ? 0 : rounded}°`;
}

/** Rise over a run for a slope, mm. */
export function riseOver(degrees: number, run: number): number {
  return run * Math.tan((degrees * Math.PI) / 180);
}
