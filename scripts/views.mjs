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
  home: {
    path: '/',
    act: async (page) => {
      await page.waitForFunction(() => document.querySelectorAll('.small-build path').length > 12, null, {
        timeout: 60_000,
      });
    },
  },
  'look-round': {
    path: '/',
    act: async (page) => {
      await page.getByRole('button', { name: 'Start a build' }).click();
      await page.getByLabel('Name of the build').fill('Finch');
      await page.getByRole('button', { name: 'Start measuring' }).click();
      const sketch = page.locator('[data-sketch]');
      await sketch.waitFor();
      const box = await sketch.boundingBox();
      const tap = async (what, x, y) => {
        await page.getByRole('button', { name: what, exact: true }).click();
        await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
      };
      for (const y of [0.36, 0.52, 0.68]) await tap('Rib all round', 0.2, y).then(() => page.keyboard.press('Escape'));
      await tap('Window', 0.2, 0.6);
      await tap('Sliding door', 0.8, 0.46);
      await page.mouse.move(10, 400);
      await page.waitForTimeout(400);
    },
  },
  measure: {
    project: 'Bulrush',
    path: 'measure',
  },
  datum: { path: 'measure', act: tab('Datum') },
  found: { path: 'measure', act: tab('Found') },
  layers: { path: 'layers' },
  vehicles: { path: '/compare' },
  layout: { path: 'layout' },
  room: {
    path: 'layout',
    act: async (page) => {
      await page.getByRole('button', { name: 'In place of the fold-out' }).click();
      await page.locator('.room-drawing canvas').waitFor();
      await page.getByRole('button', { name: 'Kitchen', exact: true }).click();
      await page
        .getByRole('group', { name: /Open and shut/ })
        .getByRole('button')
        .first()
        .click();
      await page.waitForTimeout(1500);
    },
  },
  build: {
    path: 'build',
    act: async (page) => {
      await page.getByRole('button', { name: 'Kitchen', exact: true }).click();
      await page.getByRole('button', { name: 'Put together' }).click();
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
