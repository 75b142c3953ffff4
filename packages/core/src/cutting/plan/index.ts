/** Cut plans: their order at the saw, what is kept of them, moves by hand. */
export type { CutJob } from '../job/job.js';
export { barOutline } from '../job/mitres.js';
export { type FreePlace, movePart, placesFor } from './by-hand.js';
export { boardMass, heavyParts, merchantCuts } from './carrying.js';
export { costWith, keepingFirst, keptFrom, keptNow, type MaterialPlan } from './cutting-room.js';
export { fenceOrder, type FenceSetting, secondsPerCut, settingStep } from './fence.js';
export { footprintOf } from './footprint.js';
export { sheetLetter } from './letters.js';
export type { PlannedSheet } from './planned.js';
export { cutName, type Step } from './steps.js';
