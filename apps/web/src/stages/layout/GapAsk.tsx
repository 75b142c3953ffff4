import Button from '@mui/material/Button';
import { useMemo, type KeyboardEvent, type MouseEvent } from 'react';
import type { Unit } from '@nestplank/core/document';
import { silhouetteOf, type Gap } from '@nestplank/core/furniture';
import type { Point } from '@nestplank/core/numeric';
import { ringPath } from '../../kit/path.js';
import { useChange } from '../../kit/use-change.js';
import { placeAt, screenX, screenY, wallPatch, type FoldOutFrame } from '../../foldout/geometry.js';
import type { Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { askGap } from './gaps.js';

/** Lies under the units: a press on a free place asks what fits there. */
export function GapGround({ frame, ceiling }: { readonly frame: FoldOutFrame; readonly ceiling: boolean }) {
  const press = (event: MouseEvent<SVGRectElement>): void => {
    const svg = event.currentTarget.ownerSVGElement;
    if (!svg) return;
    const box = svg.getBoundingClientRect();
    const place = placeAt(frame, ceiling, [event.clientX - box.left, event.clientY - box.top]);
    look(place ? { gap: place, unit: null, sliceX: place.x } : { gap: null });
  };
  return (
    <rect
      x={frame.leftEdge}
      y={frame.top}
      width={frame.rightEdge - frame.leftEdge}
      height={frame.height}
      fill="transparent"
      className="gap-ground"
      onClick={press}
    />
  );
}

const gapRing = (frame: FoldOutFrame, gap: Gap): Point[] => {
  const corner = (y: number, x: number): Point => [screenX(frame, y), screenY(frame, x)];
  const [a, b] =
    gap.where === 'middle'
      ? [gap.middle - gap.deep / 2, gap.middle + gap.deep / 2]
      : gap.where === 'left'
        ? [-gap.wall, -gap.wall + gap.deep]
        : [gap.wall - gap.deep, gap.wall];
  return [corner(a, gap.x0), corner(b, gap.x0), corner(b, gap.x1), corner(a, gap.x1)];
};

/** The free stretch that was pointed at: its length, height and depth in chalk. */
export function GapDrawing({ frame, scene }: { readonly frame: FoldOutFrame; readonly scene: Scene }) {
  const { len } = useSpeech();
  const place = useView((view) => view.gap);
  const { project, derived, book } = scene;
  const asked = useMemo(
    () => (place ? askGap({ project, derived, book }, place) : null),
    [place, project, derived, book],
  );
  if (!asked) return null;
  const { gap } = asked;
  const floor = derived.inner?.floor ?? 0;
  const ring = gapRing(frame, gap);
  const [x, y] = [
    screenX(frame, gap.where === 'middle' ? gap.middle : (gap.where === 'left' ? -1 : 1) * (gap.wall - gap.deep / 2)),
    screenY(frame, (gap.x0 + gap.x1) / 2),
  ];
  return (
    <g pointerEvents="none" className="gap-drawing">
      <path d={ringPath(ring)} fill="none" stroke="var(--data)" strokeWidth={1.5} strokeDasharray="6 4" />
      {gap.where !== 'middle' && (
        <path
          d={ringPath(wallPatch(frame, gap.where, gap.x0, gap.x1, floor + gap.z0, floor + gap.z1))}
          fill="none"
          stroke="var(--data)"
          strokeWidth={1.5}
          strokeDasharray="6 4"
        />
      )}
      <text x={x} y={y - 3} textAnchor="middle" className="data halo size-15">
        {len(gap.x1 - gap.x0)}
      </text>
      <text x={x} y={y + 14} textAnchor="middle" className="data halo size-12">
        {len(gap.deep)} ↔ {len(gap.z1 - gap.z0)} ↕
      </text>
    </g>
  );
}

const WIDE = 74;
const HIGH = 46;

/** A unit from its front, as its boards would stand: small, in ink. */
function Silhouette({ unit, scene }: { readonly unit: Unit; readonly scene: Scene }) {
  const { derived, book, project } = scene;
  const boxes = useMemo(
    () =>
      derived.inner
        ? silhouetteOf(unit, { inner: derived.inner, arches: derived.arches, book, things: project.things ?? [] })
        : [],
    [unit, derived.inner, derived.arches, book, project.things],
  );
  const floor = derived.inner?.floor ?? 0;
  const [x0, x1] = [unit.body.x, unit.body.x + unit.body.length];
  const top = Math.max(unit.body.to, 900);
  const scale = Math.min(WIDE / (x1 - x0), HIGH / top);
  const px = (x: number): number => (x - x0) * scale + (WIDE - (x1 - x0) * scale) / 2;
  const pz = (z: number): number => HIGH - (z - floor) * scale;
  return (
    <svg width={WIDE} height={HIGH + 2} viewBox={`0 0 ${WIDE} ${HIGH + 2}`} aria-hidden="true">
      <line x1={0} x2={WIDE} y1={HIGH + 1} y2={HIGH + 1} stroke="var(--rule)" />
      {boxes.length === 0 && (
        <rect
          x={px(x0)}
          y={pz(floor + unit.body.to)}
          width={(x1 - x0) * scale}
          height={(unit.body.to - unit.body.from) * scale}
          fill="none"
          stroke="var(--ink)"
        />
      )}
      {boxes.map((box, i) => (
        <rect
          key={i}
          x={px(box.x0)}
          y={pz(box.z1)}
          width={Math.max(0.5, (box.x1 - box.x0) * scale)}
          height={Math.max(0.5, (box.z1 - box.z0) * scale)}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={0.75}
        />
      ))}
    </svg>
  );
}

/** Beside the pointer: what fits the free stretch now, best first, drawn small, to be taken by a press or by keys. */
export function GapOffers({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const change = useChange();
  const place = useView((view) => view.gap);
  const { project, derived, book } = scene;
  const asked = useMemo(
    () => (place ? askGap({ project, derived, book }, place) : null),
    [place, project, derived, book],
  );
  if (!place || !asked) return null;
  const { gap, offers } = asked;
  const take = (unit: Unit): void => {
    if (change({ name: 'placeUnit', payload: { unit } }))
      look({ unit: unit.id, gap: null, sliceX: unit.body.x + unit.body.length / 2 });
  };
  const onKey = (event: KeyboardEvent<HTMLElement>): void => {
    if (event.key === 'Escape') look({ gap: null });
    else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const buttons = [...event.currentTarget.querySelectorAll<HTMLButtonElement>('button')];
      const at = buttons.findIndex((button) => button === document.activeElement);
      buttons[(at + (event.key === 'ArrowDown' ? 1 : -1) + buttons.length) % buttons.length]?.focus();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <section
      className="gap-offers"
      role="group"
      aria-label={t('gap.ask', { where: t(`gap.${gap.where}`), length: len(gap.x1 - gap.x0) })}
      onKeyDown={onKey}
    >
      <div className="row apart">
        <strong>{t('gap.title')}</strong>
        <Button size="small" variant="text" onClick={() => look({ gap: null })}>
          {t('gap.close')}
        </Button>
      </div>
      <p className="small data figures">
        {t('gap.size', { length: len(gap.x1 - gap.x0), height: len(gap.z1 - gap.z0), deep: len(gap.deep) })}
      </p>
      {offers.length === 0 && <p className="small soft">{t('gap.none')}</p>}
      <div className="row gap-6">
        {(project.pets ?? []).map((pet) => (
          <Button
            key={pet.id}
            size="small"
            variant="text"
            onClick={() => {
              const y =
                place.surface === 'floor'
                  ? place.along
                  : gap.where === 'middle'
                    ? gap.middle
                    : (gap.where === 'left' ? -1 : 1) * (gap.wall - gap.deep / 2);
              const at = { x: Math.round(place.x), y: Math.round(y), turned: false };
              if (change({ name: 'layPet', payload: { pet: pet.id, at } })) look({ gap: null });
            }}
          >
            {t('gap.layPet', { name: pet.name })}
          </Button>
        ))}
      </div>
      <div className="offers">
        {offers.slice(0, 4).map(({ family, unit }, i) => (
          <button key={family.id} type="button" className="offer" autoFocus={i === 0} onClick={() => take(unit)}>
            <Silhouette unit={unit} scene={scene} />
            <span>
              {family.words.name}
              <span className="soft small figures"> {len(unit.body.length)}</span>
            </span>
          </button>
        ))}
      </div>
    </section>
  );
}
