const tab = (name) => async (page) => {
  await page.getByRole('tab', { name }).click();
  await page.waitForTimeout(400);
};

const material = (name) => async (page) => {
  await page.getByRole('button', { name }).first().click();
  await page.waitForTimeout(400);
};

const chart = async (page) => {
  await page.locator('.apexcharts-series path').first().waitFor({ timeout: 20_000 });
  await page.waitForTimeout(300);
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
  build: {
    path: 'build',
    act: async (page) => {
      await page.getByRole('button', { name: 'Kitchen', exact: true }).click();
      await page.waitForTimeout(300);
    },
  },
  wall: {
    project: 'Thimble',
    path: 'build',
    act: async (page) => {
      await page.getByRole('button', { name: 'Left wall', exact: true }).click();
      await page.getByRole('button', { name: 'Fixings', exact: true }).click();
      await page.waitForTimeout(300);
    },
  },
  ceiling: {
    path: 'build',
    act: async (page) => {
      await page.getByRole('button', { name: 'Ceiling', exact: true }).click();
      await page.waitForTimeout(300);
    },
  },
  floor: {
    path: 'build',
    act: async (page) => {
      await page.getByRole('button', { name: 'Floor', exact: true }).click();
      await page.getByRole('button', { name: 'Screws', exact: true }).click();
      await page.waitForTimeout(300);
    },
  },
  cut: { path: 'cut', act: material('Birch plywood 15') },
  bench: {
    path: 'cut',
    act: async (page) => {
      await material('Birch plywood 15')(page);
      await page.getByRole('button', { name: 'Bench view' }).click();
      await page.waitForTimeout(400);
    },
  },
  'what-if': {
    path: 'cut',
    act: async (page) => {
      await material('Birch plywood 15')(page);
      await page.getByRole('tab', { name: 'What if' }).click();
      await page.getByRole('button', { name: 'Work it out' }).click();
      await page.getByRole('button', { name: 'Work it out' }).waitFor({ timeout: 60_000 });
      await page.waitForTimeout(400);
    },
  },
  buy: { path: 'buy', act: chart },
  work: { path: 'work' },
  'measure-phone': { project: 'Bulrush', path: 'measure', size: [390, 844] },
};
