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
  return (
    <g pointerEvents="none" transform={turned ? `rotate(-90 ${x} ${y})` : undefined}>
      <text
        className={small ? 'size-12 strong halo' : 'size-15 strong'}
        x={x}
        y={turned ? y + 4 : y - 2}
        textAnchor="middle"
      >
        {unit.name}
      </text>
      {!small && (
        <text x={x} y={y + 14} textAnchor="middle" className="soft">
          {len(unit.body.length)}
        </text>
      )}
    </g>
  );
});
