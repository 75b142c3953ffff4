/** Readings and outlines in and out; apart because their libraries are only wanted then. */
export { readingsCsv, readReadingsCsv, type ReadReadings } from './readings-csv.js';
export { readOutline, readingsOfOutline, type OutlineOf } from './outline-in.js';
export { bookCsv, readBookCsv, withMaterials } from './book-csv.js';
export { readStoredCsv, readThingsCsv, storedCsv, thingsCsv } from './layout-csv.js';
