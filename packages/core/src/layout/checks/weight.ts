import { appliesTo, type Pin } from '../../furniture/scene.js';
import { axleRule, balanceRule, noseRule, payloadRule } from '../../rules/room-use.js';
import { weigh } from '../weight.js';

const at = (x: number, y = 0): Pin => ({ unit: null, person: null, x, y });

const payload = appliesTo(payloadRule, {
  ofRoom: ({ masses, limits, inner }) =>
    masses && limits && limits.most !== null
      ? [{ id: 'payload', input: { total: weigh(masses, limits).total, most: limits.most }, pin: at(inner.length / 2) }]
      : [],
});

const axle = appliesTo(axleRule, {
  ofRoom: ({ masses, limits, inner }) => {
    if (!masses || !limits) return [];
    const figures = weigh(masses, limits);
    const { mostFront, mostRear } = limits;
    return [
      // a trailer's coupling is judged by its share
      ...(mostFront !== null && limits.nose === null
        ? [
            {
              id: 'axle:front',
              input: { load: figures.front, most: mostFront, axle: 'front' as const },
              pin: at(Math.max(0, inner.start)),
            },
          ]
        : []),
      ...(mostRear !== null
        ? [
            {
              id: 'axle:rear',
              input: { load: figures.rear, most: mostRear, axle: 'rear' as const },
              pin: at(Math.min(inner.length, limits.rearAxle ?? inner.length)),
            },
          ]
        : []),
    ];
  },
});

const balance = appliesTo(balanceRule, {
  ofRoom: ({ masses, limits, inner, units }) => {
    if (!masses || units.length === 0) return [];
    const { left, right, total } = weigh(masses, limits);
    return [{ id: 'balance', input: { left, right, total }, pin: at(inner.length / 2, left > right ? -200 : 200) }];
  },
});

const nose = appliesTo(noseRule, {
  ofRoom: ({ masses, limits }) => {
    const share = masses && limits ? weigh(masses, limits).nose : null;
    return limits?.nose && share !== null ? [{ id: 'nose', input: { share, ...limits.nose }, pin: at(60) }] : [];
  },
});

/** What it weighs, and where. */
export const WEIGHT_CHECKS = [payload, axle, balance, nose];
