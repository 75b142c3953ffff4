import { createProject, isSectionPlace, parseAddress, type Project } from '@nestplank/core/document';
import { monotoneCurve } from '@nestplank/core/numeric';
import { useSpeech } from '../words/use-speech.js';

/** A section of no vehicle in particular, drawn dashed, to show where the tape goes before anything is measured. */
export function StandIn({
  address,
  kind,
  height = 300,
}: {
  readonly address: string;
  readonly kind: Project['vehicle']['kind'];
  readonly height?: number;
}) {
  const { len } = useSpeech();
  const place = parseAddress(address);
  const heights = createProject({ id: 'x', name: 'x', kind, model: '', units: 'mm', startDate: '2026-01-01' }).survey
    .heights;
  const top = Math.max(...heights);
  const lean = kind === 'trailer' ? 0 : 110;
  const wall = monotoneCurve([0, top * 0.5, top], [880, 880 + lean * 0.35, 880 - lean]);
  const at = (y: number, z: number): string => `${(170 + y * 0.13).toFixed(1)} ${(height - 26 - z * 0.13).toFixed(1)}`;
  const d = (z: number): number => {
    const [a, b] = [wall.value[0] ?? 0, wall.value[2] ?? 0];
    return z <= top / 2
      ? a + ((wall.value[1] ?? 0) - a) * (z / (top / 2))
      : (wall.value[1] ?? 0) + (b - (wall.value[1] ?? 0)) * ((z - top / 2) / (top / 2));
  };
  const side = (sign: number): string =>
    [0, 0.25, 0.5, 0.75, 1].map((share) => at(sign * d(top * share), top * share)).join(' L');
  const roof = top + 150;
  const ends = !isSectionPlace(place)
    ? null
    : place.what === 'roof'
      ? [at(place.along, 0), at(place.along, roof - Math.abs(place.along) * 0.08)]
      : [at(0, place.along), at((place.what === 'left' ? -1 : 1) * d(place.along), place.along)];
  return (
    <svg
      width="100%"
      viewBox={`0 0 340 ${height}`}
      role="img"
      aria-label={isSectionPlace(place) ? len(place.along) : address}
    >
      <path
        d={`M${at(-d(0), 0)} L${side(-1)} L${at(-450, roof)} L${at(450, roof)} L${[...side(1).split(' L')].reverse().join(' L')} Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={1.5}
        strokeDasharray="7 5"
      />
      <path
        d={`M${at(0, -60)} L${at(0, roof + 60)}`}
        stroke="var(--data)"
        strokeWidth={1.25}
        strokeDasharray="12 4 3 4"
      />
      {ends && (
        <>
          <path d={`M${ends[0] ?? ''} L${ends[1] ?? ''}`} stroke="var(--data)" strokeWidth={4} />
          {ends.map((end, i) => {
            const [cx, cy] = end.split(' ');
            return (
              <circle
                key={end}
                cx={cx}
                cy={cy}
                r={i === 0 ? 6 : 9}
                fill={i === 0 ? 'var(--data)' : 'var(--paper)'}
                stroke="var(--data)"
                strokeWidth={3}
              />
            );
          })}
        </>
      )}
    </svg>
  );
}
