export * from './job/job.js';
export { searchPlans, solveJob, type SearchMoment, type SearchOptions } from './engine/search.js';
export { planFaults } from './job/verify.js';
export { lowerBound } from './bounds/bound.js';
export { loadProgram, type ProgramResult, type SolveProgram } from './bounds/program.js';
export { costWith, keepingFirst, keptFrom, keptNow } from './plan/cutting-room.js';
