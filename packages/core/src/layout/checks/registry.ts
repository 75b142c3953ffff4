import type { SceneFamily } from '../../furniture/scene.js';
import type { SceneRule } from '../../furniture/scene.js';
import { OPENING_CHECKS } from './openings.js';
import { COOKING_CHECKS } from './cooking.js';
import { PEOPLE_CHECKS } from './people.js';
import { LEDGE_CHECKS } from './ledges.js';
import { LIVING_CHECKS } from './living.js';
import { PET_CHECKS } from './pets.js';
import { ROAD_CHECKS } from './on-the-road.js';
import { RUN_CHECKS } from './runs.js';
import { SERVICE_CHECKS } from './services.js';
import { MODE_CHECKS } from './in-modes.js';
import { MOVING_CHECKS } from './moving.js';
import { ROOM_CHECKS } from './room.js';
import { SITTING_CHECKS } from './sitting.js';
import { THING_CHECKS } from './things.js';
import { THING_OPENS_CHECKS } from './thing-opens.js';
import { USE_CHECKS } from './use.js';
import { WEIGHT_CHECKS } from './weight.js';

/** Every rule that applies to a plan: the general ones, and those of the families. A new one is a file and a line. */
export const SCENE_RULES: readonly SceneRule[] = [
  ...ROOM_CHECKS,
  ...OPENING_CHECKS,
  ...PEOPLE_CHECKS,
  ...SITTING_CHECKS,
  ...LIVING_CHECKS,
  ...LEDGE_CHECKS,
  ...PET_CHECKS,
  ...MOVING_CHECKS,
  ...MODE_CHECKS,
  ...THING_CHECKS,
  ...ROAD_CHECKS,
  ...THING_OPENS_CHECKS,
  ...COOKING_CHECKS,
  ...SERVICE_CHECKS,
  ...RUN_CHECKS,
  ...USE_CHECKS,
  ...WEIGHT_CHECKS,
];
export const allSceneRules = (rules: readonly SceneRule[], families: readonly SceneFamily[]): readonly SceneRule[] => [
  ...rules,
  ...families.flatMap((family) => family.rules),
];
