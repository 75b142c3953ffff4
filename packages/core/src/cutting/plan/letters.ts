/** Sheets and bars are called A, B, … Z, AA, … in the order of the plan. */
export function sheetLetter(index: number): string {
  const last = String.fromCharCode(65 + (index % 26));
  return index < 26 ? last : sheetLetter(Math.floor(index / 26) - 1) + last;
}
