import { shoppingOf } from '../../costing/shopping.js';
import { thingsOf } from '../../document/layout-changes.js';
import { runsHardware } from '../../furniture/runs-bought.js';
import { curtainNeeds } from '../../lining/boxes/curtain-needs.js';
import type { DeriveKit } from '../kit.js';
import { createPlans } from '../plans.js';
import { steady } from '../stage.js';
import type { Stages } from './stages.js';

type From =
  | 'survey'
  | 'parts'
  | 'waits'
  | 'keptPlans'
  | 'offcuts'
  | 'making'
  | 'book'
  | 'planned'
  | 'plans'
  | 'depths'
  | 'areas'
  | 'floor'
  | 'floorBattens'
  | 'floorFace'
  | 'lined'
  | 'made'
  | 'runs'
  | 'runsBought'
  | 'boxes'
  | 'units'
  | 'things'
  | 'thingsStanding'
  | 'hardware';
type Makes = 'planned' | 'plans' | 'hardware' | 'thingsStanding' | 'shopping';

/** From parts to the sheets and lengths they are cut from, and all that has to be bought. */
export function buyingStages(kit: DeriveKit): Stages<From, Makes> {
  const plans = createPlans();
  return {
    planned: ({ parts, waits, keptPlans, offcuts, making, book }) =>
      plans(parts, { waits, keptPlans, offcuts }, making, book),
    plans: ({ planned }) => planned.plans,
    hardware: ({ lined, made, runs, runsBought, boxes, floor: { trims, upper } }) => [
      ...lined.linings.flatMap(({ surface, glue }) =>
        glue.millilitres > 0 ? [{ item: 'floor-glue', amount: glue.millilitres, for: surface }] : [],
      ),
      ...made.flatMap((unit) => unit.hardware),
      ...runsHardware(runsBought, runs.placed),
      ...lined.boxesHeld.flatMap(({ items }) => items.map(({ item, amount }) => ({ item, amount, for: 'windows' }))),
      ...curtainNeeds(lined.windowBoxes, lined.curtains, boxes).map((need) => ({ ...need, for: 'windows' })),
      ...(trims?.picked?.item ? [{ item: trims.picked.item.id, amount: trims.count, for: 'floor' }] : []),
      ...(lined.doors.held?.fixing.pick
        ? [{ item: lined.doors.held.fixing.pick.id, amount: lined.doors.held.count, for: 'doors' }]
        : []),
      ...upper.flatMap(({ screws, picked, glue }) => [
        ...(picked?.item ? [{ item: picked.item.id, amount: screws.length, for: 'floor' }] : []),
        ...(glue ? [{ item: 'floor-glue', amount: glue.millilitres, for: 'floor' }] : []),
      ]),
    ],
    thingsStanding: steady(
      ({ units, things }) =>
        units.flatMap((unit) =>
          thingsOf(unit, kit).flatMap((id) => {
            const thing = things.find((one) => one.id === id);
            return thing ? [{ thing, unit: unit.id }] : [];
          }),
        ),
      (a, b) => a.length === b.length && a.every((one, i) => one.thing === b[i]?.thing && one.unit === b[i].unit),
    ),
    shopping: (from) =>
      shoppingOf({
        parts: from.parts,
        plans: from.plans,
        depths: from.depths,
        areas: from.areas,
        floorBattens: from.floorBattens?.metres ?? null,
        finish: from.floor.finish,
        coats: from.floor.coats,
        floorScrews: from.floor.screws.length,
        floorScrew: from.floorFace?.pick?.id ?? null,
        liningFixings: from.lined.linings.flatMap(({ held, surface }) =>
          held.flatMap(({ fixing, count }) => (fixing.pick ? [{ item: fixing.pick.id, count, surface }] : [])),
        ),
        floorGlue: from.floor.glue?.millilitres ?? 0,
        caulk: from.lined.linings.map(({ surface, caulk: { millilitres } }) => ({ surface, millilitres })),
        hardware: from.hardware,
        found: from.survey.found,
        things: from.thingsStanding,
        sheets: from.things,
        notStocked: from.runsBought.flatMap(({ item, name }) => (item ? [] : [name])),
        surfaces: kit.surfaces,
        settings: from.making,
        book: from.book,
      }),
  };
}
