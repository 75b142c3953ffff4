/** Inside the engine lengths are whole hundred-thousandths of a millimetre, so that a kerf of 3.2 and 1/32 in are exact. */
export const UNITS_PER_MM = 1e5;

export const toUnits = (mm: number): number => Math.round(mm * UNITS_PER_MM);

export const toMm = (units: number): number => units / UNITS_PER_MM;
