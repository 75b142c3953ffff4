import { frontLineOf, isAt, type Project } from '@nestplank/core/document';
import { boardBox, type Board } from '@nestplank/core/furniture';
import { worksAt } from '@nestplank/core/rules';
import { halfWidth, roofHeight, type Shell } from '@nestplank/core/shell';
import { familyOf } from '../kit/unit-words.js';
import type { Speech } from '../words/words.js';
import type { View } from './view.js';

const STEPS = 14;
/** A head is about so wide, and a reach is drawn from the foot of a shelf to over the head, mm and degrees. */
const HEAD_MM = 95;
const REACH_FROM = -50;
const REACH_TO = 60;

/** The way of a hand is followed in such steps, mm. */
const HAND_STEP_MM = 10;
type BoardBox = ReturnType<typeof boardBox>;
const holds = ({ low, high }: BoardBox, y: number, z: number): boolean =>
  y >= low[1] && y <= high[1] && z >= low[2] && z <= high[2];

type Place = readonly [number, number];
const pathOf = (places: readonly Place[], view: View): string =>
  places
    .map(([y, z], i) => {
      const [px, py] = view.at(y, z);
      return `${i === 0 ? 'M' : 'L'}${px.toFixed(1)} ${py.toFixed(1)}`;
    })
    .join(' ');
const shares = Array.from({ length: STEPS + 1 }, (_, i) => i / STEPS);

/** Who works at a top that is cut by the slice: the arc of the head that leans over it, and how far the hand reaches behind it. */
export function Works({
  project,
  room,
  boards,
  x,
  view,
  strikes,
  speech,
}: {
  readonly project: Project;
  readonly room: Shell;
  /** What stands in the way of a hand. */
  readonly boards: readonly Board[];
  readonly x: number;
  readonly view: View;
  /** Whether a head meets what hangs over a unit. */
  readonly strikes: (unit: string, person: string) => boolean;
  readonly speech: Speech;
}) {
  const tallest = [...project.people].sort((a, b) => b.stature - a.stature)[0];
  if (!tallest) return null;
  const { off, shoulder, reach, crown } = worksAt(tallest.stature);
  const cut = boards.map((board) => boardBox(board)).filter(({ low, high }) => low[0] <= x && high[0] >= x);
  return project.layout.units.map((unit) => {
    const line = frontLineOf(unit);
    const family = familyOf(unit.family);
    if (!line || !isAt(unit, x) || family?.worksAt?.(unit) !== true) return null;
    const stands = line.sign * (line.front - (family.overhang?.(unit) ?? 0) - off);
    const leaning = shares.map((share): Place => {
      const { forward, height } = crown(share);
      return [stands + line.sign * forward, room.floor + height];
    });
    // the hand goes no further than the wall, the roof and whatever stands there
    const reaching = shares.map((share): Place => {
      const angle = ((REACH_FROM + (REACH_TO - REACH_FROM) * share) * Math.PI) / 180;
      for (let far = HAND_STEP_MM; far < reach; far += HAND_STEP_MM) {
        const out = line.sign * stands + far * Math.cos(angle);
        const [y, z] = [line.sign * out, room.floor + shoulder + far * Math.sin(angle)];
        const stopped =
          out >= halfWidth(room, line.side, x, z) || z >= roofHeight(room, x, y) || cut.some((box) => holds(box, y, z));
        if (stopped) return [y, z];
      }
      return [
        line.sign * (line.sign * stands + reach * Math.cos(angle)),
        room.floor + shoulder + reach * Math.sin(angle),
      ];
    });
    const [cy, cz] = leaning.at(-1) ?? [stands, 0];
    // its forehead is as far forward as the crown
    const [hx, hy] = view.at(cy - line.sign * HEAD_MM, cz - HEAD_MM);
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
