import { memo, startTransition, useEffect, useState, type ComponentType } from 'react';
import { flushSync } from 'react-dom';
import { createPace } from './pace.js';
import { sceneNow, type Scene } from './scene.js';
import { useSession } from './session.js';

const page = createPace({
  now: () => performance.now(),
  // behind what the hand's own step takes of a frame, where most is left of it
  after: (work, ms) => void setTimeout(() => requestAnimationFrame(() => setTimeout(work)), ms),
  // drawn to its end here and now, and set in its place, so that what it took is known and the next step of the hand does
  // not wait for it
  atOnce: (work) => {
    flushSync(work);
    document.body.getBoundingClientRect();
  },
});

/** Tells the scene and how it goes on: during a drag in turns, else at once. @returns ends it */
function follow(tell: (scene: Scene | null) => void): () => void {
  let told: Scene | null = null;
  let leave: (() => void) | null = null;
  const show = (): void => {
    leave = null;
    told = sceneNow();
    tell(told);
  };
  const changed = (): void => {
    const scene = sceneNow();
    if (scene === told) return;
    if (scene?.previewing) leave ??= page.join(show);
    else {
      leave?.();
      // what comes up for the first time comes with the drawing, not after it
      if (told) startTransition(show);
      else show();
    }
  };
  changed();
  const end = useSession.subscribe(changed);
  return () => {
    end();
    leave?.();
  };
}

/**
 * The scene for what is shown beside a drag: it follows the hand as often as it can without being felt, and everything else
 * as soon as there is time. What the hand itself moves takes the scene as it is.
 */
export function useLater(): Scene | null {
  const [shown, setShown] = useState(sceneNow);
  useEffect(() => follow(setShown), []);
  return shown;
}

/** Something that is shown beside a drag, drawn in turns of its own. */
export function beside<P extends { readonly scene: Scene }>(Shown: ComponentType<P>) {
  return memo(function Beside(props: Omit<P, 'scene'>) {
    const scene = useLater();
    return scene && <Shown {...({ ...props, scene } as P)} />;
  });
}
