import type { Lined } from '../../document/schema.js';
import { holdsScrews, type RibMap } from '../../shell/ribs.js';
import { boxOf } from '../../numeric/plane.js';
import { message, mm, type Message } from '../../words/message.js';
import type { LinedSurface } from './lined-surface.js';
import { STAGGER_MM, type PieceSet } from './pieces.js';
import { isEnd, toPlace } from './unrolled.js';

/** Ribs behind the lining that nothing can be screwed to, and windows that a rib is read to run through. */
export const ribNotes = (surface: Lined, ribs: RibMap): Message[] =>
  isEnd(surface)
    ? []
    : [
        ...ribs.on[surface].ribs
          .filter((rib) => !holdsScrews(rib))
          .map((rib) =>
            rib.flat
              ? message('lining.ribShallow', { name: rib.name, proud: mm(rib.proud ?? 0) })
              : message('lining.ribRound', { name: rib.name }),
          ),
        ...ribs.cut
          .filter(({ opening }) => opening.kind === 'window' && opening.surface === surface)
          .map(({ opening, ribs: through }) =>
            message('opening.windowRib', { name: opening.name, ribs: through.map(({ name }) => name).join(', ') }),
          ),
      ];

/** Battens that are added where ribs are too far apart or an end lies on nothing, and how they are fixed there. */
export function addedNotes(ground: LinedSurface, laid: boolean): Message[] {
  const added = ground.supports.filter(({ kind }) => kind === 'batten').length;
  return laid || added === 0 ? [] : [message('lining.added', { count: added })];
}

/** Joints that lie nearer to one of the row beside than they should, and why they cannot be farther off. */
export const closeNotes = (set: PieceSet, longest: number): Message[] =>
  set.close > 0 ? [message('lining.close', { count: set.close, apart: mm(STAGGER_MM), longest: mm(longest) })] : [];

/** A lamp is centred between the supports beside it and on its row when it is this near, mm. */
const CENTRED_MM = 6;

/** Lamps that sit on a support, or off the middle between two supports or of their row; with the place that would be it. */
export function lampNotes(ground: LinedSurface, set: PieceSet): Message[] {
  return ground.fittings
    .filter((fitting) => fitting.kind === 'lamp')
    .flatMap((lamp): Message[] => {
      const [u, v] = lamp.middle;
      const us = ground.supports.map((support) => support.u);
      const before = Math.max(0, ...us.filter((at) => at <= u));
      const after = Math.min(ground.unrolled.length, ...us.filter((at) => at > u));
      const middle = (before + after) / 2;
      const on = ground.supports.find((support) => Math.abs(support.u - u) < support.width / 2 + lamp.length / 2);
      const off = ([low, high]: readonly [number, number]): number => Math.abs(v - (low + high) / 2);
      const row = [...(set.setOut?.rows ?? [])].sort((a, b) => off(a) - off(b))[0];
      const place = (at: number): number => toPlace(ground.unrolled, u, at);
      return [
        ...(on
          ? [message('lining.lampSupport', { name: lamp.name, support: on.name, to: mm(middle) })]
          : Math.abs(u - middle) > CENTRED_MM
            ? [message('lining.lampAlong', { name: lamp.name, to: mm(middle) })]
            : []),
        ...(row && Math.abs(v - (row[0] + row[1]) / 2) > CENTRED_MM && lamp.width < row[1] - row[0]
          ? [message('lining.lampRow', { name: lamp.name, to: mm(place((row[0] + row[1]) / 2)) })]
          : []),
      ];
    });
}

/** Openings that a high cupboard would hang in front of, and by how much it is too deep down. */
const beforeOpenings = (ground: LinedSurface, zone: LinedSurface['hidden'][number]): Message[] =>
  ground.openings.flatMap((opening) => {
    const box = boxOf(opening.ring);
    const over = box.maxY - zone.v0;
    return box.minX < zone.u1 && box.maxX > zone.u0 && over > 1
      ? [message('lining.reserved.opening', { name: zone.by, opening: opening.name, amount: mm(over) })]
      : [];
  });

/** Whether the ceiling or the high cupboard comes first, and what either is fixed to. */
export const reservedNotes = (ground: LinedSurface): Message[] =>
  ground.unrolled.surface !== 'ceiling'
    ? ground.hidden.flatMap((zone) => (zone.hung ? beforeOpenings(ground, zone) : []))
    : ground.hidden.flatMap(({ hung }) =>
        hung ? [message(`lining.reserved.${hung.ceiling}`, { name: hung.name })] : [],
      );
