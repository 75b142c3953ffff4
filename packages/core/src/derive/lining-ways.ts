import { liningOn } from '../document/create.js';
import { layersOn } from '../document/surfaces.js';
import type { Lined, LiningChoice, PriceBook, PriceItem, Project } from '../document/schema.js';
import { isBar } from '../materials/bars.js';
import { createDeriver } from './derive.js';
import { outlineArea } from '../numeric/plane.js';
import { faceLayer } from '../lining/surface/face.js';
import { justTooNarrow } from '../lining/surface/seam-figures.js';

/** What one way to line a surface comes to, for the whole build. */
export interface LiningCase {
  readonly material: string;
  readonly school: LiningChoice['school'];
  /** Joints opened so wide and covered with strips, which saves a panel; null where they stay as they are, mm. */
  readonly gap: number | null;
  /** The way it is lined now. */
  readonly now: boolean;
  readonly pieces: number;
  /** Sheets or lengths of the material in the whole build. */
  readonly bought: number;
  readonly cost: number;
  readonly mass: number;
  /** Work to put it up, by the price book's figure for the material, h. */
  readonly hours: number;
  /** Joints between pieces, m. */
  readonly joints: number;
  /** It bends to the section; null when the material's stiffness is not known. */
  readonly bends: boolean | null;
  readonly legal: boolean;
}

/** A wider joint does not go under a strip, mm. */
const WIDEST_JOINT_MM = 20;
/** A sheet thicker than this is no lining, mm. */
const THICKEST_MM = 9.5;

/** Ways to line a surface with what the price book sells, all of them. */
export const compareLinings = (project: Project, book: PriceBook, surface: Lined): readonly LiningCase[] => [
  ...eachLining(project, book, surface),
];

/** The same one by one, so that whoever asks may stop in between. */
export function* eachLining(project: Project, book: PriceBook, surface: Lined): Generator<LiningCase> {
  const layers = layersOn(project.buildUps, surface);
  const deriver = createDeriver();
  const here = faceLayer(deriver.shape(project, book).depths[surface]);
  if (!here) return;
  const materials = book.items.filter(
    (item) =>
      item.id === here.material.id ||
      (item.group === 'lining' && isBar(item)) ||
      (item.group === 'sheet' && item.stocks.length > 0 && item.thickness <= THICKEST_MM),
  );
  const cases = materials.flatMap((item): { item: PriceItem; school: LiningChoice['school']; open: boolean }[] =>
    isBar(item)
      ? [{ item, school: 'boards', open: false }]
      : [
          { item, school: 'sheets', open: false },
          { item, school: 'sheets', open: true },
          { item, school: 'strips', open: false },
        ],
  );
  const own = liningOn(project.linings, surface);
  /** What the sheets of the case before are short of, when one panel fewer would nearly do. */
  let nearly: ReturnType<typeof justTooNarrow> = null;
  for (const { item, school, open } of cases) {
    if (open && (nearly === null || nearly.gap > WIDEST_JOINT_MM)) continue;
    const choice: LiningChoice = {
      ...own,
      school,
      seams: null,
      ...(open && nearly ? { gap: nearly.gap, covered: true } : {}),
    };
    const changed: Project = {
      ...project,
      buildUps: {
        ...project.buildUps,
        [surface]: layers.map((layer) =>
          layer.id === here.id ? { ...layer, material: item.id, thickness: item.thickness, measured: null } : layer,
        ),
      },
      linings: { ...project.linings, [surface]: choice },
    };
    const derived = deriver.derive(changed, book);
    const lining = derived.lined.linings.find((candidate) => candidate.surface === surface);
    if (!lining) continue;
    nearly = school === 'sheets' && !open ? justTooNarrow(lining, choice) : null;
    const area = lining.pieces.reduce((sum, piece) => sum + outlineArea(piece.outline), 0) / 1e6;
    yield {
      material: item.id,
      school: lining.school,
      gap: open ? choice.gap : null,
      now:
        !open &&
        item.id === here.material.id &&
        lining.school === school &&
        school === schoolNow(project, surface, item.stocks.length > 0),
      pieces: lining.pieces.length,
      bought: derived.plans.find((plan) => plan.material.id === item.id)?.sheets.length ?? 0,
      cost: derived.shopping.total,
      mass: derived.mass.total,
      hours: area * item.hours,
      joints: jointLength(lining.pieces.map((piece) => piece.outline.outer)),
      bends: lining.bend.fits,
      legal: lining.problems.length === 0,
    };
  }
}

const schoolNow = (project: Project, surface: Lined, sheets: boolean): LiningChoice['school'] => {
  const { school } = liningOn(project.linings, surface);
  return sheets ? (school === 'boards' ? 'sheets' : school) : 'boards';
};

/** Half of all edges, less the outside: about what is jointed, m. */
function jointLength(rings: readonly (readonly (readonly [number, number])[])[]): number {
  const perimeter = (ring: readonly (readonly [number, number])[]): number =>
    ring.reduce((sum, [x, y], i) => {
      const [a, b] = ring[(i + 1) % ring.length] ?? [x, y];
      return sum + Math.hypot(a - x, b - y);
    }, 0);
  const us = rings.flat().map(([u]) => u);
  const vs = rings.flat().map(([, v]) => v);
  const outside = 2 * (Math.max(...us) - Math.min(...us) + Math.max(...vs) - Math.min(...vs));
  return Math.max(0, (rings.reduce((sum, ring) => sum + perimeter(ring), 0) - outside) / 2) / 1000;
}
