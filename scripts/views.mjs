/** The main views of the application, each with what has to be done to show it. */
export const VIEWS = {
  home: { path: '/' },
  measure: { path: 'measure' },
  layers: { path: 'layers' },
  layout: { path: 'layout' },
  build: { path: 'build' },
  cut: { path: 'cut' },
  buy: { path: 'buy' },
  work: { path: 'work' },
};
