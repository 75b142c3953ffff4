import { baysOf, endOf, frontLineOf } from '../document/body.js';
import type { Field } from '../document/kit.js';
import type { Unit } from '../document/unit-schema.js';
import { wholeUp } from '../numeric/tolerance.js';
import { archInRule } from '../rules/room.js';
import { archSpan, type ArchShape } from '../shell/arch.js';
import { message, mm } from '../words/message.js';
import { yesNoField, type Surroundings } from './family.js';
import { offer } from './offer.js';
import { appliesTo } from './scene.js';

/** What the boards of a carcass are called. */
export const CARCASS_ROLES: Readonly<Record<string, string>> = {
  side: 'side',
  bottom: 'bottom',
  upright: 'upright',
  'inner-back': 'inner back',
  'inner-panel': 'inner panel',
  level: 'level',
  shelf: 'shelf',
  rail: 'rail',
  head: 'head',
  kick: 'kick board',
  door: 'door',
  flap: 'flap',
  lift: 'lift-up door',
  sliding: 'sliding panel',
  'panel-front': 'front panel',
  'drawer-side': 'drawer side',
  'drawer-end': 'drawer end',
  'drawer-bottom': 'drawer bottom',
  'drawer-face': 'drawer face',
  lid: 'lid',
  top: 'top',
};

/** It is notched to stand over a wheel arch. */
export const overArchField: Field = yesNoField('overArch');
/** The arches it is notched round: those under it on its own side, where it is to stand over them. */
export const notchedBy = (unit: Unit, { arches }: Pick<Surroundings, 'arches'>): readonly ArchShape[] =>
  unit.options['overArch'] === true
    ? arches.filter((arch) => arch.side === unit.body.stands && arch.from < endOf(unit) && arch.to > unit.body.x)
    : [];

/** A run may not stand on a wheel arch: it moves past it. */
export const archIn = appliesTo(archInRule, {
  ofUnit: (unit, scene) => {
    const { inner, arches } = scene;
    const line = frontLineOf(unit);
    // what is notched stands over it
    if (!line || unit.options['overArch'] === true) return [];
    const { x, length, to } = unit.body;
    return arches.flatMap((arch) => {
      const span = arch.side === line.side ? archSpan(arch, inner.floor) : null;
      if (!span) return [];
      const box = {
        x0: x,
        x1: x + length,
        y0: line.front,
        y1: 5000,
        z0: inner.floor + unit.body.from,
        z1: inner.floor + to,
      };
      const stands = { x0: span[0], x1: span[1], y0: arch.face, y1: 5000, z0: 0, z1: arch.height };
      const [forward, back] = [x + length - span[0], span[1] - x];
      const by = forward <= back && x - forward >= 0 ? -wholeUp(forward) : wholeUp(back);
      const fits = x + by >= 0 && x + by + length <= inner.length;
      return [
        {
          id: `arch:${unit.id}:${arch.id}`,
          input: { unit: box, arch: stands, name: unit.name, archName: arch.name },
          pin: { unit: unit.id, person: null, x: (span[0] + span[1]) / 2, y: line.sign * arch.face },
          quiet: true,
          mend: () => [
            fits
              ? offer(
                  unit,
                  scene,
                  { x: x + by },
                  message(by < 0 ? 'mend.forward' : 'mend.rearward', { by: mm(Math.abs(by)) }),
                )
              : null,
            offer(unit, scene, { overArch: true }, message('mend.overArch', { arch: arch.name })),
          ],
        },
      ];
    });
  },
});

/** A count that an undivided run has for its one bay. */
export const bayField = (name: string, most: number, of: 'holds' | 'front', kind: 'shelves' | 'doors'): Field => ({
  name,
  kind: 'count',
  group: 'made',
  least: 0,
  most,
  when: (unit) => !('cut' in unit.division),
  get: (unit) => {
    const bay = baysOf(unit.division)[0];
    const had = bay?.[of];
    return had && 'count' in had ? had.count : 0;
  },
  set: (unit, value) => {
    if ('cut' in unit.division) return unit;
    const count = Number(value);
    const had = baysOf(unit.division)[0]?.front;
    // doors are held on the road unless somebody said they are not
    const latched = kind === 'doors' ? { latch: had?.kind === 'doors' ? (had.latch ?? true) : true } : {};
    const none = of === 'holds' ? { kind: 'open' as const } : { kind: 'none' as const };
    return {
      ...unit,
      division: { ...unit.division, [of]: count > 0 ? { kind, count, ...latched } : none } as Unit['division'],
    };
  },
});
