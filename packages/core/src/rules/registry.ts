import { z } from 'zod';
import { monotoneCurve, evaluate } from '../numeric/curve.js';
import { uValueRule } from './warmth.js';
import { bevelRule } from './bevel.js';
import { fixingRule, pilotRule } from './fixings.js';
import { dewPointRule, levelRiseRule, stringLineRule } from './level.js';
import * as runs from './runs.js';
import * as hardware from './hardware.js';
import * as people from './people.js';
import * as openings from './openings.js';
import * as room from './room.js';
import * as moving from './moving.js';
import * as sitting from './sitting.js';
import * as things from './things.js';
import * as use from './room-use.js';
import { roadLoadRule } from './road.js';
import { defineRule, type Rule } from './rule.js';

const length = z.number().meta({ unit: 'mm' });

export const cureRule = defineRule({
  name: 'cure-time',
  title: 'Curing in the cold',
  formula: 'hours = data sheet hours at 20 C x 2 ^ ((20 - temperature) / 10), never less than the data sheet',
  reason: 'Adhesives and coatings take about twice as long for each 10 K less.',
  input: z.strictObject({
    hours: z.number().min(0).meta({ unit: 'h' }),
    temperature: z.number().min(-30).max(60).meta({ unit: 'C' }),
  }),
  run: ({ hours, temperature }) => ({ hours: hours * Math.max(1, 2 ** ((20 - temperature) / 10)) }),
});

export const wallCurveRule = defineRule({
  name: 'wall-curve',
  title: 'Distance of a wall between two readings',
  formula: 'monotone cubic through (height, distance)',
  reason: 'A straight wall stays straight and no wiggles appear.',
  input: z.strictObject({
    points: z
      .array(z.tuple([length, length]))
      .min(1)
      .refine((points) => new Set(points.map(([height]) => height)).size === points.length, {
        message: 'Two readings have one height.',
      }),
    at: length,
  }),
  run: ({ points, at }) => {
    const sorted = [...points].sort((a, b) => a[0] - b[0]);
    return {
      distance: evaluate(
        monotoneCurve(
          sorted.map((p) => p[0]),
          sorted.map((p) => p[1]),
        ),
        at,
      ),
    };
  },
});

/** Every rule and formula that can be asked for by name. */
export const FORMULAS: readonly Rule[] = [
  roadLoadRule,
  runs.bundleRule,
  runs.ductRule,
  runs.flueClearRule,
  hardware.hingesRule,
  hardware.cupRule,
  hardware.strutRule,
  hardware.slideRule,
  hardware.handsRule,
  people.bedLengthRule,
  people.bedWidthRule,
  people.sittingUpRule,
  people.bedEdgeRule,
  people.standingRule,
  people.lintelRule,
  people.wayThroughRule,
  people.worktopRule,
  room.collisionRule,
  room.insideRule,
  room.archUnderRule,
  room.archInRule,
  openings.doorwayRule,
  openings.doorHeadRule,
  openings.outboardRule,
  openings.overStepRule,
  openings.sashRule,
  openings.glassGapRule,
  openings.squareRule,
  sitting.seatHeightRule,
  sitting.seatDepthRule,
  sitting.tableHeightRule,
  sitting.kneeRoomRule,
  sitting.seatsRule,
  sitting.facingRule,
  sitting.reachBackRule,
  sitting.headStrikeRule,
  sitting.hangingRule,
  sitting.washRule,
  sitting.guardRule,
  moving.sweepRule,
  moving.beforeRule,
  moving.latchRule,
  moving.clashRule,
  moving.shutRule,
  things.thingFitsRule,
  things.thingSizeRule,
  things.airRule,
  things.reachRule,
  things.fuelRule,
  things.cookerRule,
  things.besideCookerRule,
  things.storedRule,
  things.placesRule,
  use.glassRule,
  use.waysOutRule,
  use.alignRule,
  use.carryRule,
  use.payloadRule,
  use.axleRule,
  use.balanceRule,
  use.noseRule,
  bevelRule,
  uValueRule,
  cureRule,
  wallCurveRule,
  fixingRule,
  pilotRule,
  dewPointRule,
  levelRiseRule,
  stringLineRule,
] as unknown as readonly Rule[];
