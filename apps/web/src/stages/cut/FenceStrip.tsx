import { useEffect, useRef } from 'react';
import { sheetLetter, type FenceSetting, type MaterialPlan } from '@nestplank/core/plan';
import { useSpeech } from '../../words/use-speech.js';

import { SheetDrawing } from './SheetDrawing.js';

interface FenceStripProps {
  readonly item: MaterialPlan;
  readonly order: readonly FenceSetting[];
  readonly open: number;
  readonly onOpen: (index: number) => void;
}

/** What a setting reads at the fence, in the step of a saw. */
export function useSetting(): (setting: FenceSetting | { readonly setting: number }) => string {
  const { sawn } = useSpeech();
  return ({ setting }) => sawn(setting);
}

/** The work at the saw as a strip of fence settings, each with the sheets it touches; what is cut is greyed. */
export function FenceStrip({ item, order, open, onOpen }: FenceStripProps) {
  const { t } = useSpeech();
  const setting = useSetting();
  const done = new Set(item.sheets.flatMap((sheet) => sheet.done.map((step) => `${sheet.id} ${step}`)));
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    const chosen = list.current?.children[open];
    if (list.current && chosen instanceof HTMLElement)
      list.current.scrollLeft = chosen.offsetLeft - list.current.offsetLeft - 24;
  }, [open]);
  const widest = Math.max(...item.sheets.map((sheet) => sheet.length), 1);
  return (
    <ol className="fences" ref={list} aria-label={t('cut.fences')}>
      {order.map((fence, i) => {
        const finished = fence.steps.filter((step) => done.has(`${step.sheet} ${step.name}`)).length;
        const letters = fence.sheets.map((id) => sheetLetter(item.sheets.findIndex((sheet) => sheet.id === id)));
        return (
          <li key={`${fence.kind}:${fence.setting}:${i}`}>
            <button
              type="button"
              className={finished === fence.steps.length ? 'fence finished' : 'fence'}
              aria-pressed={open === i}
              aria-label={t('cut.fenceName', {
                number: i + 1,
                kind: t(`cut.${fence.kind}`),
                setting: setting(fence),
                count: fence.steps.length,
                done: finished,
                sheets: letters.join(', '),
              })}
              onClick={() => onOpen(i)}
            >
              <span className="fence-number figures">{setting(fence)}</span>
              <span className="small">
                {t('cut.fenceCount', {
                  kind:
                    fence.angle > 0
                      ? t('cut.angled', { kind: t(`cut.${fence.kind}`), angle: Math.round(fence.angle * 10) / 10 })
                      : t(`cut.${fence.kind}`),
                  count: fence.steps.length,
                })}
                {finished > 0 && ` · ${finished === fence.steps.length ? '✓' : finished} ${t('cut.fenceDone')}`}
              </span>
              <span className="fence-sheets">
                {fence.sheets.slice(0, 4).map((id, k) => {
                  const sheet = item.sheets.find((candidate) => candidate.id === id);
                  return (
                    sheet && (
                      <span key={id} className="fence-sheet">
                        <span className="small">{letters[k]}</span>
                        <SheetDrawing
                          item={item}
                          sheet={sheet}
                          scale={100 / widest}
                          labels={false}
                          bring={fence.steps}
                          title={t('cut.sheetOf', { letter: letters[k] ?? '' })}
                        />
                      </span>
                    )
                  );
                })}
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}
