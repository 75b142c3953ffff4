import { frontLineOf, isAt, type Project } from '@nestplank/core/document';
import { worksAt } from '@nestplank/core/rules';
import type { Shell } from '@nestplank/core/shell';
import { familyOf } from '../kit/unit-words.js';
import type { Speech } from '../words/words.js';
import type { View } from './view.js';

const STEPS = 14;
/** A head is about so wide, and a reach is drawn from the foot of a shelf to over the head, mm and degrees. */
const HEAD_MM = 95;
const REACH_FROM = -50;
const REACH_TO = 60;

interface Arc {
  /** Its middle, mm from the centre line and above the bare floor. */
  readonly y: number;
  readonly z: number;
  readonly radius: number;
  /** Degrees from level, towards the wall, positive upwards. */
  readonly from: number;
  readonly to: number;
  readonly sign: 1 | -1;
}
const onArc = ({ y, z, radius, sign }: Arc, degrees: number): readonly [number, number] => {
  const angle = (degrees * Math.PI) / 180;
  return [y + sign * radius * Math.cos(angle), z + radius * Math.sin(angle)];
};
function pathOf(arc: Arc, view: View): string {
  return Array.from({ length: STEPS + 1 }, (_, i) => {
    const [x, y] = view.at(...onArc(arc, arc.from + ((arc.to - arc.from) * i) / STEPS));
    return `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`;
  }).join(' ');
}

/** Who works at a top that is cut by the slice: the arc of the head that leans over it, and how far the hand reaches behind it. */
export function Works({
  project,
  room,
  x,
  view,
  strikes,
  speech,
}: {
  readonly project: Project;
  readonly room: Shell;
  readonly x: number;
  readonly view: View;
  /** Whether a head meets what hangs over a unit. */
  readonly strikes: (unit: string, person: string) => boolean;
  readonly speech: Speech;
}) {
  const tallest = [...project.people].sort((a, b) => b.stature - a.stature)[0];
  if (!tallest) return null;
  const { off, hip, head, lean, shoulder, reach } = worksAt(tallest.stature);
  return project.layout.units.map((unit) => {
    const line = frontLineOf(unit);
    const family = familyOf(unit.family);
    if (!line || !isAt(unit, x) || family?.worksAt?.(unit) !== true) return null;
    const stands = line.sign * (line.front - (family.overhang?.(unit) ?? 0) - off);
    const leaning: Arc = { y: stands, z: room.floor + hip, radius: head, from: 90, to: 90 - lean, sign: line.sign };
    const reaching: Arc = {
      y: stands,
      z: room.floor + shoulder,
      radius: reach,
      from: REACH_FROM,
      to: REACH_TO,
      sign: line.sign,
    };
    const [hx, hy] = view.at(...onArc({ ...leaning, radius: head - HEAD_MM }, leaning.to));
    const hits = strikes(unit.id, tallest.id);
    return (
      <g key={unit.id} role="img" aria-label={speech.t('slice.works', { who: tallest.name, name: unit.name })}>
        <path d={pathOf(reaching, view)} fill="none" stroke="var(--soft)" strokeWidth={1} strokeDasharray="2 4" />
        <path
          d={pathOf(leaning, view)}
          fill="none"
          stroke={hits ? 'var(--needs)' : 'var(--data)'}
          strokeWidth={1.5}
          strokeDasharray="6 3"
        />
        <circle
          cx={hx}
          cy={hy}
          r={HEAD_MM * view.scale}
          fill="none"
          stroke={hits ? 'var(--needs)' : 'var(--ink)'}
          strokeWidth={1.25}
        />
      </g>
    );
  });
}
