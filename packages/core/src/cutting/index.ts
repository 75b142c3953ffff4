/** The cutting engine: jobs, the search for plans, what is proved of them. */
export { cutJobSchema, type CutJob } from './job/job.js';
export type { CutPlan } from '../document/cutting-schema.js';
export { searchPlans, solveJob } from './engine/search.js';
export { planFaults } from './job/verify.js';
export { loadProgram, type SolveProgram } from './bounds/program.js';
