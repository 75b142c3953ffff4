import type { School } from '../school.js';
import { plywood } from './plywood.js';

/** Every way of making furniture there is. A new one is a file of its own and a line here. */
export const SCHOOLS: readonly School[] = [plywood];
