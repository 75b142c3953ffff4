/** The hatch of every material and of what waits, so that nothing is told by colour alone. Used by every drawing on the page. */
export function Hatches() {
  const line = { stroke: 'var(--ink)', strokeOpacity: 0.28, strokeWidth: 1 };
  return (
    <svg className="out-of-flow" width="0" height="0" aria-hidden="true">
      <defs>
        {/* leaning by one in four without being turned: every unit is filled with it at each step of a drag, and a turned
            one takes several times as long to fill */}
        <pattern id="hatch-birch" width="36" height="9" patternUnits="userSpaceOnUse">
          <rect width="36" height="9" fill="var(--birch)" />
          <path d="M-4 1 L4 -1 M-4 10 L40 -1 M32 10 L40 8" {...line} strokeOpacity={0.2} />
        </pattern>
        <pattern id="hatch-pine" width="8" height="8" patternUnits="userSpaceOnUse">
          <rect width="8" height="8" fill="var(--pine)" />
          <path d="M0 2.5 Q4 0.5 8 2.5 M0 6.5 Q4 4.5 8 6.5" fill="none" {...line} />
        </pattern>
        <pattern id="hatch-poplar" width="10" height="10" patternUnits="userSpaceOnUse" patternTransform="rotate(60)">
          <rect width="10" height="10" fill="var(--birch)" />
          <path d="M0 3 H10" {...line} strokeDasharray="5 3" />
        </pattern>
        <pattern id="hatch-foam" width="8" height="8" patternUnits="userSpaceOnUse">
          <rect width="8" height="8" fill="var(--foam)" />
          <circle cx="2" cy="2" r="1" fill="none" {...line} />
          <circle cx="6" cy="6" r="1" fill="none" {...line} />
        </pattern>
        <pattern id="hatch-wool" width="14" height="10" patternUnits="userSpaceOnUse">
          <rect width="14" height="10" fill="var(--wool)" />
          <path d="M0 5 C3 0 5 0 7 5 S11 10 14 5" fill="none" {...line} />
        </pattern>
        <pattern id="hatch-grey" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" fill="var(--grey)" />
          <path d="M0 3 H6" {...line} />
        </pattern>
        <pattern id="hatch-solid" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 3 H7" {...line} strokeOpacity={0.45} />
        </pattern>
        <pattern id="hatch-doubt" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 4 H9" stroke="var(--needs)" strokeOpacity={0.5} strokeWidth={1.25} />
        </pattern>
        <pattern id="hatch-doubt-deep" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 2 H5" stroke="var(--needs)" strokeOpacity={0.7} strokeWidth={1.5} />
        </pattern>
        <pattern id="hatch-glass" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-50)">
          <rect width="9" height="9" fill="var(--paper)" />
          <path d="M0 2 H9" {...line} />
        </pattern>
      </defs>
    </svg>
  );
}
