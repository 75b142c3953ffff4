export * from './job.js';
export { searchPlans, solveJob, type SearchMoment, type SearchOptions } from './search.js';
export { planFaults } from './verify.js';
export { lowerBound } from './bound.js';
export { loadProgram, type ProgramResult, type SolveProgram } from './program.js';
export { costWith, keptFrom, keptNow } from './cutting-room.js';
