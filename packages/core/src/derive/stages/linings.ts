import { BATTEN_WIDTH_MM } from '../../layers/buildup.js';
import { linedFloor } from '../../lining/floor/floor.js';
import { floorBattens } from '../../lining/floor/floor-battens.js';
import { drilledHoles, hatchOpenings, keptBack } from '../../lining/floor/floor-holes.js';
import { subfloorOf } from '../../lining/floor/subfloor.js';
import { createLinings } from '../../lining/linings.js';
import { materialOf } from '../../materials/material.js';
import { joined } from '../../numeric/lists.js';
import { createShadows } from '../shadows.js';
import { createMaking } from '../slices.js';
import { sameItems, steady } from '../stage.js';
import type { Stages } from './stages.js';

type From =
  | 'settings'
  | 'making'
  | 'survey'
  | 'geometry'
  | 'units'
  | 'book'
  | 'boxes'
  | 'floorChoice'
  | 'floorCut'
  | 'floorHatches'
  | 'floorHoles'
  | 'floorMeets'
  | 'floorBattens'
  | 'keptFree'
  | 'shadows'
  | 'shadowsOfUnits'
  | 'shell'
  | 'inner'
  | 'arches'
  | 'depths'
  | 'ribs'
  | 'subfloor'
  | 'wiring'
  | 'fittings'
  | 'reserved'
  | 'headers'
  | 'corners'
  | 'linings'
  | 'doorLining'
  | 'floor'
  | 'lined'
  | 'made';
type Makes =
  | 'making'
  | 'shadowsOfUnits'
  | 'shadows'
  | 'floorMeets'
  | 'keptFree'
  | 'floorHoles'
  | 'floorCut'
  | 'subfloor'
  | 'battensLaid'
  | 'floorLaid'
  | 'wiring'
  | 'linedRoom'
  | 'parts';

/** From the room and its layers to floor, walls and ceiling in pieces, and one list of all parts. */
export function liningStages(): Stages<From, Makes> {
  const makingOf = createMaking();
  const shadowsOf = createShadows();
  const linedRoom = createLinings();
  return {
    making: ({ settings }) => makingOf(settings),
    shadowsOfUnits: ({ units }) => shadowsOf(units),
    shadows: ({ shadowsOfUnits }) => shadowsOfUnits.all,
    floorMeets: ({ making, inner, shell }) => (making.floorMeets === 'lining' ? inner : shell),
    keptFree: steady(
      ({ geometry, shadows, floorChoice }) => keptBack(geometry, shadows, floorChoice.keepBack),
      (a, b) => JSON.stringify(a) === JSON.stringify(b),
    ),
    floorHoles: ({ geometry, floorHatches, keptFree }) => ({
      kept: keptFree,
      drilled: drilledHoles(geometry).map((hole) => hole.ring),
      hatches: hatchOpenings(floorHatches),
    }),
    // the floor is cut anew for these two only, not for every other choice of it
    floorCut: steady(
      ({ floorChoice: { direction, cut } }) => ({ direction, cut }),
      (a, b) => a.direction === b.direction && a.cut === b.cut,
    ),
    subfloor: ({ floorMeets, depths, arches, making, floorHoles, floorCut }) =>
      floorMeets ? subfloorOf(depths.floor, floorMeets, arches, making, floorHoles, floorCut) : null,
    battensLaid: ({ depths, floorMeets, geometry, shadows, making, floorHatches, arches }) => {
      const battens = depths.floor.layers.find(({ layer }) => layer.place === 'battens');
      if (!battens || !floorMeets) return null;
      const width = battens.material && battens.material.width > 0 ? battens.material.width : BATTEN_WIDTH_MM;
      const room = { survey: geometry, units: shadows, settings: making, floorHatches };
      return floorBattens(room, floorMeets, arches, width, battens.thickness);
    },
    floorLaid: (from) =>
      linedFloor({
        trim: materialOf(from.book, from.boxes.trim),
        settings: from.making,
        book: from.book,
        subfloor: from.subfloor,
        laid: from.floorBattens,
        depth: from.depths.floor,
        bare: from.shell,
        inner: from.inner,
        survey: from.geometry,
        units: from.shadows,
        arches: from.arches,
        hatches: from.floorHatches,
        choice: from.floorChoice,
      }),
    wiring: steady(
      ({ survey }) => survey.found.filter((item) => item.kind === 'wiring' && item.decision === 'keep'),
      sameItems,
    ),
    linedRoom: (from) =>
      linedRoom({
        bare: from.shell,
        inner: from.inner,
        depths: from.depths,
        survey: from.geometry,
        wiring: from.wiring,
        units: from.shadowsOfUnits,
        arches: from.arches,
        fittings: from.fittings,
        reserved: from.reserved,
        headers: from.headers,
        corners: from.corners,
        linings: from.linings,
        boxes: from.boxes,
        doorLining: from.doorLining,
        ribs: from.ribs,
        settings: from.making,
        book: from.book,
      }),
    // one list for as long as no part of it changes
    parts: steady(
      ({ floor, lined, made }) =>
        joined([
          floor.parts,
          ...lined.linings.map((lining) => lining.parts),
          ...lined.windowBoxes.map((box) => box.parts),
          ...lined.archBoxes.map((box) => box.parts),
          ...lined.headers.map((box) => box.parts),
          ...lined.corners.map((corner) => corner.parts),
          ...lined.doors.panels.map((panel) => panel.parts),
          ...made.map((unit) => unit.parts),
        ]),
      sameItems,
    ),
  };
}
