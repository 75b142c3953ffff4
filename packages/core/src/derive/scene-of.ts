import type { Aside, Mode, Pet, Project, Run, Stored, Thing } from '../document/schema.js';
import type { Den } from '../document/unit-schema.js';
import type { PriceBook } from '../document/schema.js';
import type { SceneFamily, Scene, SeenOpening } from '../furniture/scene.js';
import type { Skeleton } from '../furniture/skeleton.js';
import type { MadeUnit } from '../furniture/make.js';
import type { Reveal } from '../layers/knock-on.js';
import { placedOpenings } from '../shell/openings.js';
import type { Derived, DerivedShape } from './derived.js';

// one of each for every project that has none, so that nothing is worked out anew for it
export const NO_MODES: readonly Mode[] = [];
export const NO_ASIDE: readonly Aside[] = [];
export const NO_THINGS: readonly Thing[] = [];
export const NO_LAID: readonly Run[] = [];
export const NO_FIGURES: NonNullable<Project['settings']['figures']> = {};
export const NO_STORED: readonly Stored[] = [];
export const NO_PETS: readonly Pet[] = [];
export const NO_CURTAINS: readonly string[] = [];
export const NO_DENS: readonly Den[] = [];

/** An eighth of an inch, mm. */
const EIGHTH_MM = 25.4 / 8;
/** What lengths that are offered are whole steps of, mm. */
export const stepOf = ({ units }: Pick<Project['settings'], 'units'>): number => (units === 'in' ? EIGHTH_MM : 1);

/** The openings whose edges are read, with how deep their frames lie. */
export const seenOpenings = (survey: Project['survey'], reveals: readonly Reveal[]): SeenOpening[] =>
  placedOpenings(survey).map((placed) => ({
    ...placed,
    frame: reveals.find(({ opening }) => opening.id === placed.opening.id)?.least ?? null,
  }));

/** The boards, bays and motions of units, by their ids. */
export function skeletonsOf(made: readonly MadeUnit[]): ReadonlyMap<string, Skeleton> {
  const found = new Map<string, Skeleton>();
  for (let i = 0; i < made.length; i += 1) {
    const { unit, skeleton } = made[i] as MadeUnit;
    if (skeleton) found.set(unit, skeleton);
  }
  return found;
}

/** What the rules look at, from what was derived; null before there is a room. */
export function sceneOf(
  project: Project,
  derived: Pick<DerivedShape, 'inner' | 'arches' | 'made' | 'runs'> & Partial<Pick<Derived, 'reveals'>>,
  book: PriceBook,
  families: readonly SceneFamily[],
): Scene | null {
  if (!derived.inner) return null;
  return {
    step: stepOf(project.settings),
    units: project.layout.units,
    people: project.people,
    pets: project.pets ?? NO_PETS,
    dens: project.layout.dens ?? NO_DENS,
    inner: derived.inner,
    arches: derived.arches,
    openings: seenOpenings(project.survey, derived.reveals ?? []),
    book,
    families,
    things: project.things ?? NO_THINGS,
    stored: project.stored ?? NO_STORED,
    fittings: project.fittings,
    runs: derived.runs,
    modes: project.layout.modes ?? NO_MODES,
    limits: project.limits ?? null,
    figures: project.settings.figures ?? NO_FIGURES,
    skeletons: skeletonsOf(derived.made),
    masses: null,
    mending: true,
  };
}
