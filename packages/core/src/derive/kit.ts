import { KIT, type Kit } from '../furniture/kit.js';
import type { SceneRule } from '../furniture/scene.js';
import { SCENE_RULES } from '../layout/checks/registry.js';

/** Everything a derivation goes by that is listed rather than written into it. */
export interface DeriveKit extends Kit {
  readonly rules: readonly SceneRule[];
}

/** What comes with the application. */
export const DERIVE_KIT: DeriveKit = { ...KIT, rules: SCENE_RULES };
