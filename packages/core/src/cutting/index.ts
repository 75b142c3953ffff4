export * from './job.js';
export { searchPlans, solveJob, type SearchMoment, type SearchOptions } from './search.js';
export { planFaults } from './verify.js';
export { lowerBound } from './bound.js';
