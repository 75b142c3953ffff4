import { Suspense } from 'react';
import { formatMoney } from '@nestplank/core/words';
import { useView } from '../../state/view.js';
import { Chart } from '../../kit/chart.js';
import { COLOURS, FIGURES_FONT } from '../../theme.js';

/** What each phase costs, as bars. */
export default function PhaseChart({
  phases,
  currency,
}: {
  readonly phases: readonly { readonly name: string; readonly total: number }[];
  readonly currency: string;
}) {
  const theme = useView((view) => view.theme);
  const c = COLOURS[theme];
  return (
    <Suspense fallback={<div style={{ height: 44 * phases.length + 30 }} />}>
      <div
        role="img"
        aria-label={phases.map((phase) => `${phase.name} ${formatMoney(phase.total, currency)}`).join(', ')}
      >
        <Chart
          type="bar"
          height={44 * phases.length + 30}
          series={[{ name: currency, data: phases.map((phase) => phase.total / 100) }]}
          options={{
            chart: {
              toolbar: { show: false },
              animations: { enabled: false },
              fontFamily: FIGURES_FONT,
              foreColor: c.ink,
              background: 'transparent',
            },
            plotOptions: { bar: { horizontal: true, barHeight: '58%', dataLabels: { position: 'top' } } },
            colors: [c.soft],
            fill: { type: 'pattern', pattern: { style: ['slantedLines'], width: 5, height: 5, strokeWidth: 1.5 } },
            stroke: { width: 1.5, colors: [c.ink] },
            dataLabels: {
              enabled: true,
              formatter: (value: unknown) => Number(value).toFixed(0),
              textAnchor: 'start',
              offsetX: 8,
              style: { fontSize: '14px', fontWeight: 600, colors: [c.ink] },
              background: { enabled: false },
            },
            xaxis: {
              categories: phases.map((phase) => phase.name),
              labels: { show: false },
              axisBorder: { show: false },
              axisTicks: { show: false },
              max: (Math.max(...phases.map((phase) => phase.total)) / 100) * 1.22,
            },
            yaxis: { labels: { style: { fontSize: '14px', colors: [c.ink] }, maxWidth: 130 } },
            grid: { show: false, padding: { left: 0, right: 0, top: -16, bottom: -10 } },
            tooltip: { enabled: false },
            legend: { show: false },
            states: { hover: { filter: { type: 'none' } }, active: { filter: { type: 'none' } } },
          }}
        />
      </div>
    </Suspense>
  );
}
