import ToggleButton from '@mui/material/ToggleButton';
import { useEffect, useId } from 'react';
import { startPointing, stopPointing, usePointing, type Pointed } from '../state/pointing.js';
import { useSpeech } from '../words/use-speech.js';

interface PointButtonProps {
  readonly what: string;
  readonly takes: (place: Pointed) => boolean;
  readonly onPoint: (place: Pointed) => void;
}

/** Puts a thing where the next press on the drawing is; Escape or a second press leaves it. */
export function PointButton({ what, takes, onPoint }: PointButtonProps) {
  const { t } = useSpeech();
  const by = useId();
  const waiting = usePointing(({ now }) => now?.by === by);
  useEffect(() => {
    if (!waiting) return undefined;
    const leave = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') stopPointing(by);
    };
    window.addEventListener('keydown', leave);
    return () => window.removeEventListener('keydown', leave);
  }, [waiting, by]);
  // what is not on the screen any more cannot be pointed at
  useEffect(() => () => stopPointing(by), [by]);
  return (
    <div className="row wrap">
      <ToggleButton
        value="point"
        size="small"
        selected={waiting}
        onChange={() => (waiting ? stopPointing(by) : startPointing({ by, what, takes, put: onPoint }))}
      >
        {t('point.start')}
      </ToggleButton>
      {waiting && (
        <span className="small data" role="status">
          {t('point.now', { what })}
        </span>
      )}
    </div>
  );
}
