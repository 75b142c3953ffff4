/** Readings and outlines in and out; apart because their libraries are only wanted then. */
export { READINGS_HEADER, readingsCsv, readReadingsCsv, type ReadReadings, type RowProblem } from './readings-csv.js';
export { readOutline, readingsOfOutline, type OutlineOf } from './outline-in.js';
