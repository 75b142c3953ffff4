import { ThemeProvider } from '@mui/material/styles';
import { lazy, Suspense, useEffect, useMemo } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { Home } from './home/Home.js';
import { useView } from './state/view.js';
import { colourVariables, muiTheme } from './theme.js';

// the list of builds is there before what works on one of them
const Frame = lazy(async () => ({ default: (await import('./frame/Frame.js')).Frame }));
const CompareVehicles = lazy(async () => ({
  default: (await import('./home/CompareVehicles.js')).CompareVehicles,
}));
const MeasureStage = lazy(() => import('./stages/measure/MeasureStage.js'));
const LayersStage = lazy(() => import('./stages/layers/LayersStage.js'));
const LayoutStage = lazy(() => import('./stages/layout/LayoutStage.js'));
const BuildStage = lazy(() => import('./stages/build/BuildStage.js'));
const CutStage = lazy(() => import('./stages/cut/CutStage.js'));
const BuyStage = lazy(() => import('./stages/buy/BuyStage.js'));
const WorkStage = lazy(() => import('./stages/work/WorkStage.js'));

export function App() {
  const name = useView((view) => view.theme);
  const theme = useMemo(() => muiTheme(name), [name]);
  useEffect(() => {
    document.documentElement.dataset['theme'] = name;
    for (const [variable, value] of Object.entries(colourVariables(name)))
      document.documentElement.style.setProperty(variable, value);
  }, [name]);
  return (
    <ThemeProvider theme={theme}>
      <BrowserRouter>
        <Suspense fallback={null}>
          <Routes>
            <Route path="/" element={<Home />} />
            <Route path="/compare" element={<CompareVehicles />} />
            <Route path="/build/:id" element={<Frame />}>
              <Route index element={<Navigate to="layout" replace />} />
              <Route path="measure" element={<MeasureStage />} />
              <Route path="layers" element={<LayersStage />} />
              <Route path="layout" element={<LayoutStage />} />
              <Route path="build" element={<BuildStage />} />
              <Route path="cut" element={<CutStage />} />
              <Route path="buy" element={<BuyStage />} />
              <Route path="work" element={<WorkStage />} />
            </Route>
            <Route path="*" element={<Navigate to="/" replace />} />
          </Routes>
        </Suspense>
      </BrowserRouter>
    </ThemeProvider>
  );
}
