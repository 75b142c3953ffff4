import type { Raw } from './raw.js';

const plainLining = (): Raw => ({
  school: 'boards',
  seams: null,
  strip: 300,
  gap: 1,
  edge: 5,
  sliver: 60,
  undersize: 10,
  groove: { spacing: 0, depth: 1.5, width: 3, direction: 'upright' },
  scribe: 0,
  removable: false,
});

/** From version 3 to 4: linings are cut into panels and boards. Frozen. */
export function fromThird(raw: Raw): Raw {
  return {
    linings: {
      left: plainLining(),
      right: plainLining(),
      ceiling: plainLining(),
      boxes: {
        board: 'birch-9',
        trim: 'trim-30',
        arches: [],
        clearance: 25,
        load: 'step',
        stored: 0,
        access: 'fixed',
      },
      floor: {
        direction: null,
        finish: 'everywhere',
        keepBack: 0,
        fixing: 'screwed',
        tiles: 'half',
        joint: 3,
        coat: 'floor-varnish',
        coats: 0,
      },
      doors: { inset: 25 },
    },
    reserved: [],
    headers: [],
    corners: [],
    fittings: [],
    floorHatches: [],
    measured: [],
    scribes: [],
    patterns: [],
    ...raw,
    version: 4,
  };
}
