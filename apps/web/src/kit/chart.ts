import { lazy } from 'react';

/** Charts are loaded when the first one is shown. The package is CommonJS: its component is one or two defaults deep. */
export const Chart = lazy(async () => {
  const module = (await import('react-apexcharts')) as unknown as {
    default: { default?: typeof import('react-apexcharts').default } & typeof import('react-apexcharts').default;
  };
  return { default: module.default.default ?? module.default };
});
