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
  readings: { path: 'measure', act: tab('Readings') },
  things: { path: 'measure', act: tab('What is measured') },
  datum: { path: 'measure', act: tab('Datum') },
  found: { path: 'measure', act: tab('Found') },
  exchange: { path: 'measure', act: tab('In and out') },
  layers: { path: 'layers' },
  warmth: { path: 'layers', act: tab('Warmth') },
  depths: { path: 'layers', act: tab('Depths') },
  'layers-compare': { path: 'layers', act: tab('Compare') },
  vehicles: { path: '/compare' },
  layout: { path: 'layout' },
  build: { path: 'build' },
  cut: { path: 'cut' },
  buy: { path: 'buy' },
  work: { path: 'work' },
};
