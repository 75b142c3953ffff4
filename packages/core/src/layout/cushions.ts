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
      const from = Math.max(shut.x0, ...against.map(({ seat }) => seat.at[0] - seat.wide / 2));
      const to = Math.min(shut.x1, ...against.map(({ seat }) => seat.at[0] + seat.wide / 2));
      const across = shut.y1 - shut.y0 + against.reduce((sum, { gap }) => sum + gap, 0);
      const thick = against.map(({ seat }) => seat.cushion);
      const backed = against.filter(({ seat }) => Number(seat.unit.options['backrest'] ?? 0) > 0);
      const count = Math.max(1, backed.length);
      return [
        {
          unit,
          length: Math.max(0, to - from),
          width: across + against.reduce((sum, { seat }) => sum + seat.deep, 0),
          seats: against.map(({ seat, gap }) => ({
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
