import { lyingPlaces } from '../../layout/lying.js';
import { modeFigures } from '../../layout/modes.js';
import { softIn } from '../../layout/soft.js';
import { weigh } from '../../layout/weight.js';
import { createChecks } from '../../layout/checks/checks.js';
import { massPoints } from '../../mass/points.js';
import { massOf } from '../../mass/mass.js';
import { runsBought } from '../../furniture/runs-bought.js';
import type { DeriveKit } from '../kit.js';
import { seenOpenings, skeletonsOf, stepOf } from '../scene-of.js';
import { createUnitsMade } from '../units-made.js';
import type { Stages } from './stages.js';

type From =
  | 'settings'
  | 'units'
  | 'people'
  | 'pets'
  | 'dens'
  | 'things'
  | 'stored'
  | 'fittings'
  | 'limits'
  | 'figures'
  | 'vehicle'
  | 'mending'
  | 'aside'
  | 'modesAsked'
  | 'runsAsked'
  | 'book'
  | 'geometry'
  | 'making'
  | 'step'
  | 'inner'
  | 'arches'
  | 'reveals'
  | 'unitsMade'
  | 'made'
  | 'runs'
  | 'skeletons'
  | 'softs'
  | 'seen'
  | 'masses'
  | 'scene'
  | 'parts'
  | 'mass'
  | 'depths'
  | 'areas'
  | 'floor';
type Makes =
  | 'step'
  | 'unitsMade'
  | 'made'
  | 'runs'
  | 'runsBought'
  | 'lying'
  | 'skeletons'
  | 'softs'
  | 'seen'
  | 'mass'
  | 'massPoints'
  | 'weight'
  | 'scene'
  | 'checks'
  | 'modes';

/** From units to their boards and runs, what everything weighs, and what the rules say of the room with them. */
export function furnitureStages(kit: DeriveKit): Stages<From, Makes> {
  const { families } = kit;
  const madeIn = createUnitsMade(kit);
  const checksIn = createChecks(kit.rules);
  return {
    step: ({ settings }) => stepOf(settings),
    unitsMade: (from) =>
      madeIn(from.units, from.runsAsked, from.inner, from.arches, from.book, from.things, from.stored),
    made: ({ unitsMade }) => unitsMade.made,
    runs: ({ unitsMade }) => unitsMade.runs,
    runsBought: ({ runs, book }) => runsBought(runs.placed, book),
    lying: ({ units }) => lyingPlaces(units, families),
    skeletons: ({ made }) => skeletonsOf(made),
    softs: ({ inner, units, skeletons, arches, book, things }) =>
      inner ? softIn({ units, skeletons, inner, arches, book, things, families }) : [],
    seen: ({ geometry, reveals }) => seenOpenings(geometry, reveals),
    mass: ({ parts, depths, areas, making, floor, book }) =>
      massOf(parts, depths, areas, making.floorBattens.spacing, floor.finish, book),
    massPoints: (from) =>
      from.inner
        ? massPoints({
            parts: from.parts,
            mass: from.mass,
            units: from.units,
            skeletons: from.skeletons,
            softs: from.softs,
            things: from.things,
            stored: from.stored,
            people: from.people,
            pets: from.pets,
            dens: from.dens,
            families,
            inner: from.inner,
            book: from.book,
            trailer: from.vehicle === 'trailer',
          })
        : [],
    weight: ({ masses, limits }) => weigh(masses, limits),
    scene: (from) =>
      from.inner && {
        step: from.step,
        units: from.units,
        people: from.people,
        pets: from.pets,
        dens: from.dens,
        inner: from.inner,
        arches: from.arches,
        openings: from.seen,
        book: from.book,
        families,
        things: from.things,
        stored: from.stored,
        fittings: from.fittings,
        runs: from.runs,
        modes: from.modesAsked,
        limits: from.limits,
        figures: from.figures,
        skeletons: from.skeletons,
        masses: from.masses,
        mending: from.mending,
      },
    checks: ({ scene, aside }) => (scene ? checksIn(scene, aside) : []),
    modes: ({ scene, modesAsked }) => (scene && modesAsked.length > 0 ? modeFigures(scene) : []),
  };
}
