import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { memo, useState } from 'react';
import type { Taped, Unit } from '@nestplank/core/document';
import { floorCards, type FloorOutline, floorOutlines, tapedNow, tapeMoves } from '@nestplank/core/layout';
import { boxOf, type Point } from '@nestplank/core/numeric';
import { TemplateButton } from '../../kit/TemplateButton.js';
import { Fold } from '../../kit/Fold.js';
import { LengthField } from '../../kit/LengthField.js';
import { LineList } from '../../kit/LineList.js';
import { ringPath } from '../../kit/path.js';
import { useChange } from '../../kit/use-change.js';
import { notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';

const WIDE = 320;
const HIGH = 210;
const EDGE = 44;

/** One outline as it is taped: its corners from the front datum and from the centre line, and its diagonals. Front at the top, as on the fold-out. */
function OutlineDrawing({ outline }: { readonly outline: FloorOutline }) {
  const { t, len } = useSpeech();
  const places = [...outline.ring.map(([x, y]): Point => [y, x]), [0, outline.corners[0].x] as Point];
  const box = boxOf(places);
  const scale = Math.min(
    (WIDE - 2 * EDGE) / Math.max(1, box.maxX - box.minX),
    (HIGH - 2 * EDGE) / Math.max(1, box.maxY - box.minY),
  );
  const at = (x: number, y: number): Point => [
    WIDE / 2 + (y - (box.minX + box.maxX) / 2) * scale,
    HIGH / 2 + (x - (box.minY + box.maxY) / 2) * scale,
  ];
  const [a, b, c, d] = outline.corners.map(({ x, y }) => at(x, y)) as [Point, Point, Point, Point];
  const middle = at(0, 0)[0];
  return (
    <svg viewBox={`0 0 ${WIDE} ${HIGH}`} width="100%" role="img" aria-label={t('try.drawing', { name: outline.name })}>
      {middle > 0 && middle < WIDE && (
        <line x1={middle} x2={middle} y1={4} y2={HIGH - 4} stroke="var(--data)" strokeDasharray="12 4 3 4" />
      )}
      <path
        d={ringPath(outline.ring.map(([x, y]) => at(x, y)))}
        fill="url(#hatch-solid)"
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
      {[
        [a, d],
        [b, c],
      ].map(([from, to], i) => (
        <line
          key={i}
          x1={from?.[0]}
          y1={from?.[1]}
          x2={to?.[0]}
          y2={to?.[1]}
          stroke="var(--data)"
          strokeWidth={0.75}
          strokeDasharray="5 4"
        />
      ))}
      {outline.corners.map((corner) => {
        const [x, y] = at(corner.x, corner.y);
        const up = corner.corner.startsWith('front');
        const [anchor, off] = x < (a[0] + b[0]) / 2 ? (['end', 8] as const) : (['start', -8] as const);
        return (
          <g key={corner.corner}>
            <circle cx={x} cy={y} r={3.5} fill="var(--data)" />
            <text x={x + off} y={up ? y - 20 : y + 18} textAnchor={anchor} className="data halo">
              {len(corner.x)} ↕
            </text>
            <text x={x + off} y={up ? y - 6 : y + 32} textAnchor={anchor} className="data halo">
              {len(Math.abs(corner.y))} ↔
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** Where it was put in the end: typed back into the plan. */
function Found({ unit }: { readonly unit: Unit }) {
  const { t } = useSpeech();
  const change = useChange();
  const { body } = unit;
  const across = body.stands === 'free' ? body.y : body.stands === 'across' ? null : body.front;
  const [x, setX] = useState(body.x);
  const [y, setY] = useState(across);
  const same = x === body.x && y === across;
  const take = (): void => {
    const found =
      body.stands === 'across' || y === null
        ? { ...body, x }
        : body.stands === 'free'
          ? { ...body, x, y }
          : { ...body, x, front: y };
    if (change({ name: 'replaceUnit', payload: { unit: { ...unit, body: found } } }))
      notify(t('try.taken', { name: unit.name }));
  };
  return (
    <div className="fields two-and-button" role="group" aria-label={t('try.found')}>
      <LengthField
        label={t('try.foundX')}
        value={x}
        onTake={(value) => {
          setX(value);
          return null;
        }}
      />
      {y !== null && (
        <LengthField
          label={t(body.stands === 'free' ? 'try.foundAcross' : 'try.foundY')}
          value={y}
          onTake={(value) => {
            setY(value);
            return null;
          }}
        />
      )}
      <Button disabled={same} onClick={take}>
        {t('try.take')}
      </Button>
    </div>
  );
}

function OutlineFigures({
  outline,
  unit,
  taped,
  project,
}: {
  readonly outline: FloorOutline;
  readonly unit: Unit;
  readonly taped: Taped | null;
  readonly project: string;
}) {
  const { t, len, lenUnit } = useSpeech();
  const change = useChange();
  const moves = taped ? tapeMoves(outline, taped) : [];
  const [card] = floorCards([outline]);
  return (
    <div className="stack gap-6">
      <OutlineDrawing outline={outline} />
      <p className="small figures">
        {t('try.diagonals', { one: lenUnit(outline.diagonals[0]), other: lenUnit(outline.diagonals[1]) })}
      </p>
      <table className="plain small">
        <thead>
          <tr>
            <th>{t('datum.corner')}</th>
            <th className="number">{t('try.fromFront')}</th>
            <th className="number">{t('try.fromRear')}</th>
          </tr>
        </thead>
        <tbody>
          {outline.tapes.map(({ corner, front, rear }) => (
            <tr key={corner}>
              <td className="soft">{t(`datum.corner.${corner}`)}</td>
              <td className="number">{len(front)}</td>
              <td className="number">{len(rear)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <FormControlLabel
        control={
          <Checkbox
            checked={taped !== null && moves.length === 0}
            indeterminate={moves.length > 0}
            onChange={() =>
              void change(
                taped !== null && moves.length === 0
                  ? { name: 'removeTaped', payload: { unit: outline.unit } }
                  : { name: 'putTaped', payload: tapedNow(outline) },
              )
            }
          />
        }
        label={moves.length > 0 ? t('try.tapedAnew') : t('try.isTaped')}
      />
      {moves.map(({ corner, rear, right }) => (
        <p key={corner} className="needs small figures">
          {t('try.move', {
            corner: t(`datum.corner.${corner}`),
            along: lenUnit(Math.abs(rear)),
            way: t(rear < 0 ? 'try.toFront' : 'try.toRear'),
            across: lenUnit(Math.abs(right)),
            side: t(right < 0 ? 'common.left' : 'common.right'),
          })}
        </p>
      ))}
      <p className="small strong">{t('try.found')}</p>
      <Found key={JSON.stringify(unit.body)} unit={unit} />
      {card && (
        <TemplateButton project={project} part={card} paper="a4" label={t('try.printOf', { name: outline.name })}>
          {t('try.print')}
        </TemplateButton>
      )}
    </div>
  );
}

/** The plan on the real floor: every outline to tape or to cut from card, ticked off, and typed back as it was found. */
export const TryOut = memo(function TryOut({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  if (!scene.room) return null;
  const { units, taped = [] } = scene.project.layout;
  const outlines = floorOutlines(units, scene.room);
  const stateOf = (outline: FloorOutline) => {
    const own = taped.find(({ unit }) => unit === outline.unit) ?? null;
    return { own, moves: own ? tapeMoves(outline, own).length : 0 };
  };
  const done = outlines.filter((outline) => {
    const { own, moves } = stateOf(outline);
    return own !== null && moves === 0;
  }).length;
  return (
    <Fold title={t('try.title')} line={t('try.count', { done, count: outlines.length })}>
      <p className="small soft">{t('try.hint')}</p>
      <LineList
        title={t('try.outlines')}
        none={t('try.none')}
        items={outlines.map((outline) => ({ id: outline.unit, name: outline.name }))}
        line={({ id }) => {
          const outline = outlines.find(({ unit }) => unit === id);
          if (!outline) return null;
          const { own, moves } = stateOf(outline);
          return (
            <span className={moves > 0 ? 'needs' : own ? 'done' : 'soft'}>
              {moves > 0 ? `✗ ${t('try.lapsed')}` : own ? `✓ ${t('try.isTaped')}` : len(outline.corners[0].x)}
            </span>
          );
        }}
      >
        {({ id }) => {
          const outline = outlines.find(({ unit }) => unit === id);
          const unit = units.find((own) => own.id === id);
          return (
            outline &&
            unit && (
              <OutlineFigures outline={outline} unit={unit} taped={stateOf(outline).own} project={scene.project.id} />
            )
          );
        }}
      </LineList>
    </Fold>
  );
});
