import { lyingPlaces } from '../../layout/lying.js';
import { modeFigures } from '../../layout/modes.js';
import { softIn } from '../../layout/soft.js';
import { weigh } from '../../layout/weight.js';
import { createChecks } from '../../layout/checks/checks.js';
import { massPoints } from '../../mass/points.js';
import { massOf } from '../../mass/mass.js';
import { runsBought } from '../../furniture/runs-bought.js';
import { createNaming, createUnnamed } from '../by-name.js';
import type { Derived } from '../derived.js';
import type { DeriveKit } from '../kit.js';
import { seenOpenings, skeletonsOf, stepOf } from '../scene-of.js';
import { sameItems, steady } from '../stage.js';
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
  | 'unitNames'
  | 'unnamed'
  | 'checksUnnamed'
  | 'modesUnnamed'
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
  | 'unitNames'
  | 'unnamed'
  | 'checksUnnamed'
  | 'modesUnnamed'
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
  const unnamedOf = createUnnamed();
  const checksNamed = createNaming<Derived['checks'][number]>();
  const modesNamed = createNaming<Derived['modes'][number]>();
  return {
    step: ({ settings }) => stepOf(settings),
    unitsMade: (from) =>
      madeIn(from.units, from.runsAsked, from.inner, from.arches, from.book, from.things, from.stored),
    made: ({ unitsMade }) => unitsMade.made,
    runs: ({ unitsMade }) => unitsMade.runs,
    runsBought: ({ runs, book }) => runsBought(runs.placed, book),
    lying: ({ units }) => lyingPlaces(units, families),
    skeletons: ({ made }) => skeletonsOf(made),
    softs: ({ inner, unnamed, skeletons, arches, book, things }) =>
      inner ? softIn({ units: unnamed, skeletons, inner, arches, book, things, families }) : [],
    seen: ({ geometry, reveals }) => seenOpenings(geometry, reveals),
    mass: ({ parts, depths, areas, making, floor, book }) =>
      massOf(parts, depths, areas, making.floorBattens.spacing, floor.finish, book),
    massPoints: (from) =>
      from.inner
        ? massPoints({
            parts: from.parts,
            mass: from.mass,
            units: from.unnamed,
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
        units: from.unnamed,
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
    unitNames: steady(
      ({ units }) => new Map(units.map(({ id, name }) => [id, name])),
      (a, b) => a.size === b.size && [...a].every(([id, name]) => b.get(id) === name),
    ),
    unnamed: steady(({ units }) => unnamedOf(units), sameItems),
    checksUnnamed: ({ scene, aside }) => (scene ? checksIn(scene, aside) : []),
    checks: ({ checksUnnamed, unitNames }) => checksNamed(checksUnnamed, unitNames),
    modesUnnamed: ({ scene, modesAsked }) => (scene && modesAsked.length > 0 ? modeFigures(scene) : []),
    modes: ({ modesUnnamed, unitNames }) => modesNamed(modesUnnamed, unitNames),
  };
}
