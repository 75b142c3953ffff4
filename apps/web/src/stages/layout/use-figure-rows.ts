import type { LayoutFigures } from '@nestplank/core/derive';
import { groupDigits } from '@nestplank/core/words';
import { useSpeech } from '../../words/use-speech.js';

/** What a layout comes to, line by line: what each figure is called, and how it is written. */
export function useFigureRows(
  currency: string,
): readonly (readonly [name: string, written: (figures: LayoutFigures) => string])[] {
  const { t, len } = useSpeech();
  return [
    [t('variants.fails'), ({ fails, tight }) => `${fails} / ${tight}`],
    [
      t('variants.comfort'),
      ({ comfort }) => (comfort.length === 0 ? '–' : len(Math.min(...comfort.map(({ spare }) => spare)))),
    ],
    [
      t('variants.storage'),
      ({ storage: { low, middle, high } }) => [low, middle, high].map((litres) => Math.round(litres)).join(' / '),
    ],
    [t('variants.worktop'), ({ worktop }) => len(worktop)],
    [t('variants.way'), ({ way }) => (way === null ? '–' : len(way))],
    [t('variants.glass'), ({ glass }) => (glass === null ? '–' : `${Math.round(glass * 100)} %`)],
    [t('variants.kg'), ({ kg }) => String(Math.round(kg))],
    [t('variants.cost', { currency }), ({ cost }) => groupDigits(cost / 100, 0)],
    [t('variants.hours'), ({ hours }) => hours.toFixed(0)],
    [t('variants.sheets'), ({ sheets }) => String(sheets)],
  ];
}
