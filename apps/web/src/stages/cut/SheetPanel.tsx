import { Check } from '../../kit/Check.js';
import { useChange } from '../../kit/use-change.js';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { materialOf } from '@nestplank/core/materials';
import { isHanded, otherHand } from '@nestplank/core/parts';
import {
  boardMass,
  keepingFirst,
  keptNow,
  merchantCuts,
  movePart,
  placesFor,
  type FreePlace,
  type MaterialPlan,
  type PlannedSheet,
  sheetLetter,
} from '@nestplank/core/plan';
import { formatMoney, type Message } from '@nestplank/core/words';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../kit/LengthField.js';
import { nextId } from '../measure/next-id.js';
import { useSpeech } from '../../words/use-speech.js';
import { useSetting } from './FenceStrip.js';

import { SheetDrawing } from './SheetDrawing.js';

interface SheetPanelProps {
  readonly item: MaterialPlan;
  readonly sheet: PlannedSheet;
  readonly scene: Scene;
  readonly onSheet: (id: string) => void;
}

/** One sheet large enough to read: its parts, where they could go instead, what is left, what the merchant could cut. */
export function SheetPanel({ item, sheet, scene, onSheet }: SheetPanelProps) {
  const { sawn, t, len, lenUnit, style } = useSpeech();
  const change = useChange();
  const kept = scene.project.keptPlans.find((plan) => plan.material === item.material.id);
  const setting = useSetting();
  const [moving, setMoving] = useState<string | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const { cutting } = scene.project.settings;
  const nominal = materialOf(scene.book, item.material.id);
  const letter = (id: string): string => sheetLetter(item.sheets.findIndex((candidate) => candidate.id === id));
  const whole = { length: sheet.length + 2 * sheet.trim, width: sheet.width + 2 * sheet.trim };
  const filled = sheet.placements.reduce((sum, placed) => sum + placed.length * placed.width, 0);
  const mass = boardMass(item.material, whole.length, whole.width);
  const mayTurn = (part: string): boolean => item.job.parts.find((p) => p.id === part)?.mayTurn ?? false;
  const places =
    moving && item.job.method === 'guillotine' ? placesFor(item.sheets, moving, mayTurn(moving), item.job.kerf) : [];
  const { parts } = scene.derived;
  /** A part that would not be itself face down says so, and which part is its other hand. */
  const handOf = (id: string): string => {
    const part = parts.find((candidate) => candidate.id === id);
    if (!part || !isHanded(part)) return '';
    const twin = otherHand(part, parts);
    return ` · ${twin ? t('cut.mirrorOf', { part: twin.id }) : t('cut.faceUp')}`;
  };
  const merchant = merchantCuts(sheet, item.job.kerf, cutting.car);
  const same = (a: number, b: number): boolean => Math.abs(a - b) < 0.01;
  const known = scene.project.measured.find((one) => one.material === item.material.id);
  const measure = (thickness: number, width: number, bowed = known?.bowed === true): Message | null => {
    const asSold = nominal !== null && same(thickness, nominal.thickness) && same(width, nominal.width) && !bowed;
    return act({
      name: 'measureMaterial',
      payload: {
        material: item.material.id,
        thickness: asSold ? null : thickness,
        ...(nominal !== null && !same(width, nominal.width) ? { width } : {}),
        ...(bowed ? { bowed } : {}),
      },
    });
  };
  const move = (part: string, to: FreePlace): void => {
    const result = movePart(item.sheets, part, to, mayTurn(part), item.job.kerf, cutting.smallestOffcut);
    if (typeof result === 'string') {
      setTold(t(`cut.refused.${result}`, { part }));
      return;
    }
    const money = (minor: number): string => formatMoney(minor, scene.book.currency);
    const before = item.plan.cost;
    const after = result.reduce((sum, candidate) => sum + candidate.price, 0);
    const standing = keptNow(item);
    const refused = act({
      name: 'keepPlan',
      payload: {
        ...standing,
        sheets: result.map(({ id, stock, length, width, trim, price, offcut, placements, cuts, left, done }) => ({
          id,
          stock,
          length,
          width,
          trim,
          price,
          offcut,
          placements: [...placements],
          cuts,
          left,
          done,
        })),
        proved: standing.proved && after === before,
      },
    });
    if (refused) return;
    setTold(
      after === before
        ? t('cut.movedSame', { part, after: money(after) })
        : t('cut.moved', { part, before: money(before), after: money(after) }),
    );
    setMoving(null);
    onSheet(to.sheet);
  };
  return (
    <>
      <section className="stack">
        <div className="row apart">
          <h2>
            {item.material.name} ·{' '}
            {t(item.job.kind === 'bar' ? 'cut.barOf' : 'cut.sheetOf', { letter: letter(sheet.id) })}
          </h2>
          <span className="soft small figures">
            {t('cut.fill', { percent: Math.round((100 * filled) / (whole.length * whole.width)) })}
            {mass !== null && ` · ${t('cut.massOf', { mass: mass.toFixed(1) })}`}
          </span>
        </div>
        <SheetDrawing
          item={item}
          sheet={sheet}
          scale={334 / whole.length}
          labels
          part={moving}
          onPart={(part) => setMoving(part === moving ? null : part)}
          title={t('cut.sheetOf', { letter: letter(sheet.id) })}
        />
        <p className="small soft figures">
          {len(whole.length)} × {len(whole.width)} {style.units} · {t('cut.grain')}
        </p>
        <LengthField
          label={t('cut.measured')}
          value={item.material.thickness}
          onTake={(thickness) => measure(thickness, item.material.width)}
        />
        {item.job.kind === 'sheet' && (
          <Check
            label={t('cut.bowed')}
            checked={known?.bowed === true}
            onCheck={(bowed) => measure(item.material.thickness, item.material.width, bowed)}
          />
        )}
        {item.job.kind === 'bar' && (
          <LengthField
            label={t('cut.measuredWidth')}
            value={item.material.width}
            onTake={(width) => measure(item.material.thickness, width)}
          />
        )}
        {nominal && Math.abs(nominal.thickness - item.material.thickness) > 0.01 && (
          <p className="small">{t('cut.measuredFrom', { nominal: lenUnit(nominal.thickness) })}</p>
        )}
        {told && (
          <p className="small" role="status">
            {told}
          </p>
        )}
      </section>
      <section className="section">
        <h2>{t('cut.parts')}</h2>
        <ul className="plain-list">
          {sheet.placements.map((placed, i) => {
            const cut = sheet.cut.includes(placed.part) && !placed.spoiled;
            const own = boardMass(item.material, placed.length, placed.width);
            return (
              <li key={`${placed.part}:${i}`} className="row wrap gap-4">
                <span className="grow">
                  {placed.part}
                  <br />
                  <span className="soft small figures">
                    {sawn(placed.length)} × {sawn(placed.width)}
                    {own !== null && ` · ${t('cut.massOf', { mass: own.toFixed(1) })}`}
                    {handOf(placed.part)}
                  </span>
                </span>
                {placed.spoiled ? (
                  <span className="needs small">{t('cut.part.spoiled')}</span>
                ) : cut ? (
                  <span className="done small">✓ {t('cut.part.cut')}</span>
                ) : (
                  <>
                    <Check
                      label={t('cut.part.locked')}
                      name={t('cut.lock', { part: placed.part })}
                      checked={placed.locked}
                      onCheck={(locked) => {
                        change(...keepingFirst(item, kept), {
                          name: 'lockPart',
                          payload: { material: item.material.id, part: placed.part, locked },
                        });
                      }}
                    />
                    {!sheet.begun && item.job.method === 'guillotine' && (
                      <Button
                        size="small"
                        className="narrow"
                        aria-label={t('cut.moveOf', { part: placed.part })}
                        onClick={() => setMoving(moving === placed.part ? null : placed.part)}
                      >
                        {t('cut.move')}
                      </Button>
                    )}
                  </>
                )}
                {moving === placed.part && (
                  <div className="stack whole">
                    <p className="small soft">
                      {places.length > 0 ? t('cut.moveHint', { part: placed.part }) : t('cut.moveNone')}
                    </p>
                    {places.map((place) => (
                      <Button
                        key={`${place.sheet}:${place.x}:${place.y}:${String(place.turned)}`}
                        size="small"
                        onClick={() => move(placed.part, place)}
                      >
                        {t('cut.movePlace', {
                          letter: letter(place.sheet),
                          x: len(place.x),
                          y: len(place.y),
                          turned: place.turned === placed.turned ? '' : t('cut.moveTurned'),
                        })}
                      </Button>
                    ))}
                  </div>
                )}
              </li>
            );
          })}
        </ul>
      </section>
      {sheet.left.length > 0 && (
        <section className="section stack">
          {sheet.left.map((rest) => (
            <div key={`${rest.x}:${rest.y}`} className="row apart">
              <span className="small figures">
                {t('cut.offcut', { length: len(rest.length), width: len(rest.width) })}
              </span>
              {sheet.begun && (
                <Button
                  size="small"
                  aria-label={t('cut.keepOffcutOf', { length: len(rest.length), width: len(rest.width) })}
                  onClick={() => {
                    const plan = keptNow(item);
                    const taken = plan.sheets.map((candidate) =>
                      candidate.id === sheet.id
                        ? { ...candidate, left: candidate.left.filter((other) => other !== rest) }
                        : candidate,
                    );
                    if (
                      !act({
                        name: 'putOffcut',
                        payload: {
                          offcut: {
                            id: nextId('oc', scene.project.offcuts).id,
                            material: item.material.id,
                            length: rest.length,
                            width: rest.width,
                            place: '',
                          },
                        },
                      })
                    )
                      act({ name: 'keepPlan', payload: { ...plan, sheets: taken } });
                  }}
                >
                  {t('cut.keepOffcut')}
                </Button>
              )}
            </div>
          ))}
        </section>
      )}
      <section className="section stack">
        <h2>{t('cut.merchant')}</h2>
        <p className="small">
          {merchant.cuts.length === 0 && merchant.tooLarge === 0
            ? t('cut.merchantNone', { length: len(cutting.car.length), width: len(cutting.car.width) })
            : t('cut.merchantCuts', {
                count: merchant.cuts.length,
                list: merchant.cuts
                  .map((cut) => `${t(`cut.${cut.axis}`)} ${setting({ setting: cut.at - cut.edge })}`)
                  .join(', '),
              })}
        </p>
        {merchant.tooLarge > 0 && (
          <p className="small needs">
            {t('cut.merchantTooLarge', {
              count: merchant.tooLarge,
              length: len(cutting.car.length),
              width: len(cutting.car.width),
            })}
          </p>
        )}
      </section>
    </>
  );
}
