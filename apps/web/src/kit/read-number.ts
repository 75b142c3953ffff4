/** Reads a number between two limits, with a point or a comma; null when it is none. */
export function readNumber(
  typed: string,
  { least, most, whole }: { readonly least: number; readonly most: number; readonly whole: boolean },
): number | null {
  const text = typed.trim().replace(',', '.');
  const number = Number(text);
  return text !== '' &&
    Number.isFinite(number) &&
    number >= least &&
    number <= most &&
    (!whole || Number.isInteger(number))
    ? number
    : null;
}

/** Reads a price with two decimals at most; minor units, or null. */
export function readPrice(typed: string): number | null {
  const clean = typed.replace(/[\s\u202f\u00a0]/g, '').replace(',', '.');
  return /^\d{1,9}(\.\d{1,2})?$/.test(clean) ? Math.round(Number(clean) * 100) : null;
}
