import { holeProblems } from '../hole-problems.js';
import { cutProblems, floorScrewProblems, shapeProblems } from '../problems.js';
import { roofClashes } from '../../shell/on-roof.js';
import { openingProblems } from '../../shell/openings.js';
import { ribProblems } from '../../shell/ribs.js';
import { sameItems, steady } from '../stage.js';
import type { Stages } from './stages.js';

type From =
  | 'geometry'
  | 'built'
  | 'shell'
  | 'inner'
  | 'ribs'
  | 'found'
  | 'depths'
  | 'subfloor'
  | 'floor'
  | 'lined'
  | 'made'
  | 'runsBought'
  | 'curtains'
  | 'bowed'
  | 'measured'
  | 'floorFace'
  | 'floorChoice'
  | 'plans'
  | 'planned'
  | 'openingFaults'
  | 'ribFaults'
  | 'roofFaults'
  | 'holeFaults'
  | 'shapeProblems'
  | 'madeProblems';
type Makes =
  | 'openingFaults'
  | 'ribFaults'
  | 'roofFaults'
  | 'holeFaults'
  | 'shapeProblems'
  | 'bowed'
  | 'madeProblems'
  | 'allProblems';

/** Everything that cannot be as it is, with its place. */
export function toldStages(): Stages<From, Makes> {
  return {
    openingFaults: ({ geometry, shell }) => openingProblems(geometry, shell),
    ribFaults: ({ geometry, shell }) => ribProblems(geometry, shell),
    roofFaults: ({ geometry }) => roofClashes(geometry),
    holeFaults: ({ geometry, shell, inner, ribs, subfloor, made }) =>
      holeProblems({ survey: geometry, shell, inner, ribs, subfloor, made }),
    shapeProblems: (from) =>
      shapeProblems({
        built: from.built,
        openings: from.openingFaults,
        ribs: from.ribFaults,
        cut: from.ribs.cut,
        found: from.found,
        depth: from.depths,
        inner: from.inner,
        into: from.holeFaults,
        onRoof: from.roofFaults,
        floor: from.floor,
        lined: from.lined,
        made: from.made,
        bought: from.runsBought,
        curtains: from.curtains,
      }),
    // the boards of the floor whose sheets came bowed, by name
    bowed: steady(
      ({ depths, measured }) =>
        depths.floor.layers.flatMap(({ layer, material }) =>
          layer.board && measured.some((item) => item.material === layer.material && item.bowed === true)
            ? [material?.name ?? layer.material]
            : [],
        ),
      sameItems,
    ),
    madeProblems: ({ floor, subfloor, floorChoice, floorFace, bowed, plans, planned }) => [
      ...floorScrewProblems(floor, subfloor !== null, floorChoice.fixing, floorFace, bowed),
      ...cutProblems(plans, planned.without),
    ],
    allProblems: ({ shapeProblems: shape, madeProblems }) => [...shape, ...madeProblems],
  };
}
