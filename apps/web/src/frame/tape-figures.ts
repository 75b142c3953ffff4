import type { Derived } from '@nestplank/core/derive';
import type { PriceBook, Project } from '@nestplank/core/document';
import { formatMoney } from '@nestplank/core/words';
import type { StageName } from '../stages/stages.js';
import type { Speech } from '../words/words.js';

export interface TapeFigure {
  readonly text: string;
  readonly tone: 'plain' | 'needs' | 'proved';
}
const plain = (text: string): TapeFigure => ({ text, tone: 'plain' });

/** Money without its decimals, as fits on the tape. */
const roundMoney = (minor: number, currency: string): string =>
  formatMoney(Math.round(minor / 100) * 100, currency).replace(/\.00/, '');
const shortDay = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });
export const dayName = (iso: string): string => shortDay.format(new Date(`${iso}T12:00:00`));

/** One honest figure for each stage: how far it has got. */
export function tapeFigure(
  stage: StageName,
  project: Project,
  derived: Derived,
  book: PriceBook,
  { t, len }: Speech,
): TapeFigure {
  switch (stage) {
    case 'measure': {
      const off =
        derived.outliers.length +
        derived.closures.filter((c) => c.verdict === 'fails').length +
        derived.problems.filter((p) => p.stage === 'measure' && p.place !== 'survey').length;
      const { quality } = derived;
      if (quality)
        return {
          text: t(quality.worth.length === 0 ? 'tape.measure.known' : 'tape.measure.worth', {
            worst: len(quality.worst),
            count: quality.worth.length,
          }),
          tone: off > 0 ? 'needs' : 'plain',
        };
      return {
        text: t('tape.measure', { taken: derived.progress.taken, total: derived.progress.total }),
        tone: off > 0 ? 'needs' : 'plain',
      };
    }
    case 'layers': {
      const { floor, ceiling, left, right } = derived.depths;
      if (derived.shell && !derived.inner) return { text: t('tape.layers.thick'), tone: 'needs' };
      if (floor.layers.length + ceiling.layers.length + left.layers.length + right.layers.length === 0)
        return plain(t('tape.layers.none'));
      return plain(
        t('tape.layers', { height: len(floor.total + ceiling.total), width: len(left.total + right.total) }),
      );
    }
    case 'layout': {
      if (project.layout.units.length === 0) return plain(t('tape.layout.none'));
      const fails = derived.checks.filter((check) => check.grade === 'fails' && check.aside === null).length;
      if (fails === 0 && derived.missing.some(({ stages }) => stages.includes('layout')))
        return plain(t('tape.layout.unknown', { units: project.layout.units.length }));
      if (fails === 0) return { text: t('tape.layout.fits', { units: project.layout.units.length }), tone: 'proved' };
      return {
        text: t('tape.layout.fails', { count: fails }),
        tone: 'needs',
      };
    }
    case 'build':
      return plain(
        derived.parts.length === 0 ? t('tape.build.none') : t('tape.build', { parts: derived.parts.length }),
      );
    case 'cut': {
      const problems = derived.problems.filter((p) => p.stage === 'cut');
      const conflicts = derived.plans.reduce((sum, plan) => sum + plan.conflicts.length, 0);
      const trouble = problems.length - conflicts;
      const sheets = derived.plans
        .filter((plan) => plan.job.kind === 'sheet')
        .reduce((sum, plan) => sum + plan.plan.sheets.length, 0);
      if (trouble > 0) return { text: t('tape.cut.problems', { count: trouble }), tone: 'needs' };
      if (conflicts > 0) return { text: t('tape.cut.conflicts', { count: conflicts }), tone: 'needs' };
      if (sheets === 0) return plain(t('tape.cut.none'));
      return derived.plans.every((plan) => plan.plan.proved)
        ? { text: t('tape.cut.proved', { sheets }), tone: 'proved' }
        : plain(t('tape.cut', { sheets }));
    }
    case 'buy': {
      const { total, currency } = derived.shopping;
      if (total === 0) return plain(t('tape.buy.none'));
      const { budget } = project.settings;
      if (budget === 0) return plain(roundMoney(total, currency));
      return {
        text: t('tape.buy', {
          total: roundMoney(total, currency).replace(/\u00a0.*/, ''),
          budget: roundMoney(budget, book.currency),
        }),
        tone: total > budget ? 'needs' : 'plain',
      };
    }
    case 'work': {
      const { nextWait, ends } = derived.schedule;
      const { done, tasks } = derived.schedule;
      if (done > 0) return plain(t('tape.work.done', { done, all: done + tasks.length }));
      if (!ends) return plain(t('tape.work.none'));
      return plain(
        nextWait ? t('tape.work.wait', { date: dayName(nextWait.from) }) : t('tape.work', { date: dayName(ends) }),
      );
    }
  }
}
