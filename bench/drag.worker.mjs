// A drag measured where it happens: in a worker of the browser. Each step is the operation and what it changes of parts and checks.
import { createDeriver } from '@nestplank/core/derive';
import { readProjectFile } from '@nestplank/core/formats';
import { crowded } from './layouts.mjs';

globalThis.onmessage = ({ data: { demo, steps } }) => {
  const file = readProjectFile(demo);
  const { forty, sixty, fortyMoved, sixtyMoved } = crowded(file);
  const drag = (on, moved) => {
    const deriver = createDeriver();
    deriver.shape(on, file.priceBook, true);
    return Array.from({ length: steps }, (_, i) => {
      const start = performance.now();
      deriver.shape(moved(i), file.priceBook, 'by-hand');
      return performance.now() - start;
    });
  };
  globalThis.postMessage({ sixty: drag(sixty, sixtyMoved), forty: drag(forty, fortyMoved) });
};
