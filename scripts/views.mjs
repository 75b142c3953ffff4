const tab = (name) => async (page) => {
  await page.getByRole('tab', { name }).click();
  await page.waitForTimeout(400);
};

/** The main views of the application, each with what has to be done to show it. */
export const VIEWS = {
  home: { path: '/' },
  measure: {
    project: 'Bulrush',
    path: 'measure',
  },
  datum: { path: 'measure', act: tab('Datum') },
  found: { path: 'measure', act: tab('Found') },
  layers: { path: 'layers' },
  warmth: { path: 'layers', act: tab('Warmth') },
  'layers-compare': { path: 'layers', act: tab('Compare') },
  vehicles: { path: '/compare' },
  layout: { path: 'layout' },
  build: { path: 'build' },
  cut: { path: 'cut' },
  buy: { path: 'buy' },
  work: { path: 'work' },
  'measure-phone': { project: 'Bulrush', path: 'measure', size: [390, 844] },
};
