import type { Sources } from '../sources.js';
import type { Stage } from '../stage.js';

/** The stages of one file: what they may read, and what they make. */
export type Stages<From extends keyof Sources, Makes extends keyof Sources> = {
  readonly [Name in Makes]: ((from: Pick<Sources, From>) => Sources[Name]) | Stage<Pick<Sources, From>, Sources[Name]>;
};
