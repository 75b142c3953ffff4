import { DERIVED_KEYS, type Derived } from '@nestplank/core/derive';
import type { StageName } from '../stages/stages.js';

type Key = keyof Derived;

/** What every stage stands on: the survey, the shell, the room. */
const GROUND: readonly Key[] = [
  'progress',
  'walk',
  'closures',
  'outliers',
  'shell',
  'assumed',
  'arches',
  'ribs',
  'depths',
  'inner',
  'bareRoom',
  'room',
];
const FURNITURE: readonly Key[] = ['made', 'lying', 'checks'];
const LINED: readonly Key[] = ['subfloor', 'floorBattens', 'floor', 'lined', 'parts', 'fixings', 'problems'];

/** What a stage shows of a change at once; the rest of what follows is worked out when there is time for it. */
const FIRST: Readonly<Record<StageName, readonly Key[]>> = {
  measure: [...GROUND, 'quality', 'cavities', ...FURNITURE],
  layers: [...GROUND, 'areas', 'left', 'warmth', 'reveals', 'fixings', 'warnings', 'floorBattens', 'cavities'],
  layout: [...GROUND, ...FURNITURE, 'reveals', 'modes', 'weight'],
  build: [...GROUND, ...FURNITURE, ...LINED],
  cut: [...GROUND, ...FURNITURE, ...LINED, 'plans'],
  buy: [...GROUND, ...FURNITURE, ...LINED, 'plans', 'areas', 'mass', 'shopping'],
  work: [...GROUND, ...FURNITURE, ...LINED, 'areas', 'schedule', 'done'],
};

/** The keys of a stage in the order in which they are worked out. */
export const firstKeys = (stage: StageName): readonly Key[] => DERIVED_KEYS.filter((key) => FIRST[stage].includes(key));
