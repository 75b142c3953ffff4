import type { Unit } from '../document/schema.js';
import type { Scene } from '../furniture/scene.js';
import type { SolidBox } from '../rules/room.js';
import { seatsIn, type Seat } from './checks/sitting.js';

/** A seat that a lowered top is laid against is no further from it than this, mm. */
export const AGAINST_MM = 120;

/** One cushion as it is cut, mm. */
export interface Cushion {
  readonly length: number;
  readonly width: number;
  readonly thick: number;
}
/** The bed that a lowered top makes with the seats beside it, and the cushions that cover both that and the seats, mm. */
export interface MadeBed {
  readonly unit: Unit;
  /** Along the vehicle as far as all of it reaches, and across. */
  readonly length: number;
  readonly width: number;
  readonly seats: readonly {
    readonly unit: Unit;
    readonly cushion: Cushion;
    /** Between its front edge and the lowered top. */
    readonly gap: number;
    /** The top over the boards of the seat; below nothing where it is under them. */
    readonly step: number;
  }[];
  /** Over the top and the gaps: backrests of all seats, cut so high that together they cover it; one of its own where no seat has a backrest. */
  readonly middle: { readonly cushion: Cushion; readonly count: number; readonly backrests: boolean };
  /** The seats' cushions are of different thickness: by so much one lies higher. */
  readonly uneven: number;
}

/** Seats that a lowered top meets: their front edge runs along it. */
export function seatsAgainst(scene: Scene, shut: SolidBox): readonly { readonly seat: Seat; readonly gap: number }[] {
  return seatsIn(scene)
    .filter(({ loose, looks }) => loose !== true && looks[1] !== 0)
    .flatMap((seat) => {
      const { at, wide, looks } = seat;
      const gap = looks[1] > 0 ? shut.y0 - at[1] : at[1] - shut.y1;
      const beside = Math.abs(gap) < AGAINST_MM && at[0] + wide / 2 > shut.x0 && at[0] - wide / 2 < shut.x1;
      return beside ? [{ seat, gap }] : [];
    });
}

/** Wings of the seats a lowered top lies against, beside its ends, that reach over all of what lies between: they are slept on too. */
function wingsBeside(
  scene: Scene,
  shut: SolidBox,
  against: readonly { readonly seat: Seat; readonly gap: number }[],
): readonly { readonly seat: Seat; readonly gap: number; readonly end: 'front' | 'rear' }[] {
  // from the edge of the top, or from the back of the seat there
  const [y0, y1] = against.reduce<readonly [number, number]>(
    ([low, high], { seat: { looks, deep }, gap }) =>
      looks[1] > 0 ? [low - gap - deep, high] : [low, high + gap + deep],
    [shut.y0, shut.y1],
  );
  return seatsIn(scene)
    .filter(
      ({ unit, looks, loose }) => loose !== true && looks[0] !== 0 && against.some(({ seat }) => seat.unit === unit),
    )
    .flatMap((seat) => {
      const { at, wide, looks } = seat;
      const gap = looks[0] > 0 ? shut.x0 - at[0] : at[0] - shut.x1;
      const covers = at[1] - wide / 2 < y0 + SHORT_MM && at[1] + wide / 2 > y1 - SHORT_MM;
      return Math.abs(gap) < AGAINST_MM && covers
        ? [{ seat, gap, end: looks[0] > 0 ? ('front' as const) : ('rear' as const) }]
        : [];
    });
}
/** A wing that is shorter than the bed is wide by less than this is part of it, mm. */
const SHORT_MM = 60;

/**
 * What a top that is lowered between seats makes with them: its size as a bed, and a plan of cushions that serve both. The
 * seats keep theirs; the backrests are cut so high that they cover the top and the gaps beside it.
 */
export function madeBeds(scene: Scene): readonly MadeBed[] {
  return scene.units.flatMap((unit) =>
    (scene.skeletons.get(unit.id)?.motions ?? []).flatMap((motion): MadeBed[] => {
      if (motion.kind !== 'slide' || motion.by[2] >= 0) return [];
      const { shut, by } = motion;
      const against = seatsAgainst(scene, shut);
      if (against.length === 0) return [];
      const low = shut.z1 + by[2] - scene.inner.floor;
      const wings = wingsBeside(scene, shut, against);
      const [fore, aft] = (['front', 'rear'] as const).map((end) => wings.find((wing) => wing.end === end));
      // from the edge of a wing, or as far as the top and the seats beside it go together
      const from = fore?.seat.at[0] ?? Math.max(shut.x0, ...against.map(({ seat }) => seat.at[0] - seat.wide / 2));
      const to = aft?.seat.at[0] ?? Math.min(shut.x1, ...against.map(({ seat }) => seat.at[0] + seat.wide / 2));
      const across = shut.y1 - shut.y0 + against.reduce((sum, { gap }) => sum + gap, 0);
      const thick = [...against, ...wings].map(({ seat }) => seat.cushion);
      const backed = against.filter(({ seat }) => Number(seat.unit.options['backrest'] ?? 0) > 0);
      const count = Math.max(1, backed.length);
      return [
        {
          unit,
          length: Math.max(0, to - from) + wings.reduce((sum, { seat }) => sum + seat.deep, 0),
          width: across + against.reduce((sum, { seat }) => sum + seat.deep, 0),
          seats: [...against, ...wings].map(({ seat, gap }) => ({
            unit: seat.unit,
            cushion: { length: seat.wide, width: seat.deep, thick: seat.cushion },
            gap,
            step: low - seat.top,
          })),
          middle: {
            cushion: { length: Math.max(0, to - from), width: across / count, thick: Math.max(...thick) },
            count,
            backrests: backed.length > 0,
          },
          uneven: Math.max(...thick) - Math.min(...thick),
        },
      ];
    }),
  );
}
