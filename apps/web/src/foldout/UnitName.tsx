import { memo } from 'react';
import type { Unit } from '@nestplank/core/document';
import { useSpeech } from '../words/use-speech.js';
import type { FoldOutFrame } from './geometry.js';
import { labelPlace } from './label-place.js';

/** The name and length of a unit on it; written along where there is too little room across, small where it is small. */
export const UnitName = memo(function UnitName({ frame, unit }: { readonly frame: FoldOutFrame; readonly unit: Unit }) {
  const { len } = useSpeech();
  const place = labelPlace(frame, unit);
  if (!place) return null;
  const { x, y, turned, small } = place;
  // written at a place of its own that is moved: letters are not set anew for each step
  return (
    <g pointerEvents="none" transform={`translate(${x} ${y})${turned ? ' rotate(-90)' : ''}`}>
      <text className={small ? 'size-12 strong halo' : 'size-15 strong'} y={turned ? 4 : -2} textAnchor="middle">
        {unit.name}
      </text>
      {!small && (
        <text y={14} textAnchor="middle" className="soft">
          {len(unit.body.length)}
        </text>
      )}
    </g>
  );
});
