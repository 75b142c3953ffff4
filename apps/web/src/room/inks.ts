import * as THREE from 'three';
import type { Colours } from '../theme.js';

const TILE_PX = 128;
/** One tile of a hatch is so large on the material, mm. */
const TILE_MM = 160;

type Hatch = 'birch' | 'pine' | 'poplar' | 'foam' | 'wool' | 'grey';
const HATCHES: readonly Hatch[] = ['birch', 'pine', 'poplar', 'foam', 'wool', 'grey'];
const TONE: Readonly<Record<Hatch, keyof Colours>> = {
  birch: 'birch',
  pine: 'pine',
  poplar: 'birch',
  foam: 'foam',
  wool: 'wool',
  grey: 'grey',
};

/** Lines of each hatch on its tile: drawn so that the tiles meet. */
function drawHatch(ink: CanvasRenderingContext2D, hatch: Hatch): void {
  const line = (points: readonly (readonly [number, number])[]): void => {
    ink.beginPath();
    points.forEach(([x, y], i) => (i === 0 ? ink.moveTo(x, y) : ink.lineTo(x, y)));
    ink.stroke();
  };
  const rows = hatch === 'pine' ? 5 : 4;
  for (let row = 0; row < rows; row += 1) {
    const y = ((row + 0.5) * TILE_PX) / rows;
    if (hatch === 'foam') {
      for (let dot = 0; dot < 4; dot += 1) {
        ink.beginPath();
        ink.arc(((dot + (row % 2) / 2 + 0.25) * TILE_PX) / 4, y, 3, 0, 2 * Math.PI);
        ink.stroke();
      }
    } else if (hatch === 'pine' || hatch === 'wool') {
      line(
        Array.from({ length: 17 }, (_, i): readonly [number, number] => [
          (i * TILE_PX) / 16,
          y + 4 * Math.sin((i * Math.PI) / (hatch === 'pine' ? 8 : 4)),
        ]),
      );
    } else {
      ink.setLineDash(hatch === 'poplar' ? [32, 32] : []);
      line([
        [0, y],
        [TILE_PX, y],
      ]);
    }
  }
}

function textureOf(hatch: Hatch, colours: Colours): THREE.Texture | null {
  const canvas = document.createElement('canvas');
  canvas.width = TILE_PX;
  canvas.height = TILE_PX;
  const ink = canvas.getContext('2d');
  if (!ink) return null;
  ink.fillStyle = colours[TONE[hatch]];
  ink.fillRect(0, 0, TILE_PX, TILE_PX);
  ink.globalAlpha = 0.22;
  ink.strokeStyle = colours.ink;
  ink.lineWidth = 1.5;
  drawHatch(ink, hatch);
  const texture = new THREE.CanvasTexture(canvas);
  texture.wrapS = THREE.RepeatWrapping;
  texture.wrapT = THREE.RepeatWrapping;
  texture.repeat.set(1 / TILE_MM, 1 / TILE_MM);
  texture.colorSpace = THREE.SRGBColorSpace;
  texture.anisotropy = 4;
  return texture;
}

/** What everything in the room is drawn with: the same papers and inks as on the other drawings, matt. */
export interface Inks {
  readonly material: (hatch: string | undefined) => THREE.MeshLambertMaterial;
  readonly paper: THREE.MeshLambertMaterial;
  /** The edge of a lining in an opening. */
  readonly edge: THREE.MeshLambertMaterial;
  readonly floor: THREE.MeshLambertMaterial;
  /** Doors of the vehicle. */
  readonly leaf: THREE.MeshLambertMaterial;
  readonly glass: THREE.MeshBasicMaterial;
  readonly cut: THREE.MeshBasicMaterial;
  readonly line: THREE.LineBasicMaterial;
  readonly joint: THREE.LineBasicMaterial;
  readonly chosen: THREE.LineBasicMaterial;
  readonly bodyInk: THREE.MeshBasicMaterial;
  readonly bodyPaper: THREE.MeshBasicMaterial;
  readonly dispose: () => void;
}

/** Faces lie a little behind their inked edges. */
const BEHIND = { polygonOffset: true, polygonOffsetFactor: 0.5, polygonOffsetUnits: 1 } as const;

export function inksFor(colours: Colours): Inks {
  const made = new Map<Hatch, THREE.MeshLambertMaterial>();
  const flat = (color: string, more: THREE.MeshLambertMaterialParameters = {}) =>
    new THREE.MeshLambertMaterial({ color, ...BEHIND, ...more });
  const inks = {
    // boards of the lining lie on it
    paper: flat(colours.paper, { polygonOffsetFactor: 2, polygonOffsetUnits: 8 }),
    edge: flat(colours.foam),
    floor: flat(colours.grey, { polygonOffsetFactor: 2, polygonOffsetUnits: 8 }),
    leaf: flat(colours.ground, { polygonOffsetFactor: 2, polygonOffsetUnits: 8 }),
    glass: new THREE.MeshBasicMaterial({
      color: colours.data,
      transparent: true,
      opacity: 0.1,
      side: THREE.DoubleSide,
      depthWrite: false,
    }),
    cut: new THREE.MeshBasicMaterial({ color: colours.ink, side: THREE.DoubleSide }),
    line: new THREE.LineBasicMaterial({ color: colours.ink }),
    joint: new THREE.LineBasicMaterial({ color: colours.rule }),
    chosen: new THREE.LineBasicMaterial({ color: colours.data }),
    bodyInk: new THREE.MeshBasicMaterial({ color: colours.ink, side: THREE.BackSide }),
    bodyPaper: new THREE.MeshBasicMaterial({ color: colours.paper }),
  };
  return {
    ...inks,
    material: (name) => {
      const hatch = HATCHES.find((own) => own === name) ?? 'grey';
      const known = made.get(hatch);
      if (known) return known;
      const map = textureOf(hatch, colours);
      const fresh = flat(map ? '#ffffff' : colours[TONE[hatch]], { ...(map ? { map } : {}), side: THREE.DoubleSide });
      made.set(hatch, fresh);
      return fresh;
    },
    dispose: () => {
      for (const material of [...Object.values(inks), ...made.values()]) material.dispose();
      for (const { map } of made.values()) map?.dispose();
    },
  };
}
