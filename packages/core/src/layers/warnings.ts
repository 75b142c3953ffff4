import type { Settings, Survey } from '../document/schema.js';
import { message, type Message } from '../words/message.js';
import { type BuildUpDepth, type BuildUpDepths } from './buildup.js';

/** Something about the order of layers that builders regret. */
export interface LayerWarning {
  readonly surface: string;
  readonly said: Message;
}

/** Equal to so many metres of still air: a barrier. */
const BARRIER_SD = 20;
/** Below this a layer keeps warmth, W/mK. */
const INSULATES = 0.06;

const isBarrier = ({ material, thickness }: BuildUpDepth['layers'][number]): boolean =>
  material !== null &&
  (material.vapour * thickness) / 1000 >= BARRIER_SD &&
  !material.deadening &&
  !insulates(material.conductivity);
const insulates = (conductivity: number): boolean => conductivity > 0 && conductivity <= INSULATES;

/** A barrier belongs on the warm side of all insulation, and behind the battens, so that no screw row opens it. */
function orderOf(depth: BuildUpDepth): LayerWarning[] {
  const { surface, layers } = depth;
  const barrier = layers.findIndex((layer) => layer.layer.place === 'continuous' && isBarrier(layer));
  if (barrier < 0) return [];
  const name = layers[barrier]?.material?.name ?? '';
  const later = layers.slice(barrier + 1).find(({ material }) => material && insulates(material.conductivity));
  const battens = layers.slice(0, barrier).some(({ layer }) => layer.place === 'battens');
  return [
    ...(later
      ? [{ surface, said: message('layers.barrierCold', { barrier: name, insulation: later.material?.name ?? '' }) }]
      : []),
    ...(battens && surface !== 'floor' ? [{ surface, said: message('layers.barrierBattens', { barrier: name }) }] : []),
  ];
}

/** Pockets beside the big surfaces where cold comes in: doors, and the wells of steps, by their names. */
export interface Pockets {
  readonly doors: readonly string[];
  readonly steps: readonly string[];
}
const NO_POCKETS: Pockets = { doors: [], steps: [] };

/** The pockets of a vehicle. */
export const pocketsOf = (survey: Survey): Pockets => ({
  doors: survey.openings.flatMap(({ kind, surface, name }) => (kind === 'door' && surface !== 'roof' ? [name] : [])),
  steps: survey.arches.flatMap(({ kind, name }) => (kind === 'step' ? [name] : [])),
});

/** What is pressed in between the ribs and has nothing over it that keeps it there. */
function unbacked({ surface, layers }: BuildUpDepth): LayerWarning[] {
  const last = layers.findLastIndex(({ layer, material }) => layer.place === 'in-ribs' && material !== null);
  const loose = last >= 0 && !layers.slice(last + 1).some(({ layer }) => layer.place === 'continuous');
  return loose ? [{ surface, said: message('layers.unbacked', { material: layers[last]?.material?.name ?? '' }) }] : [];
}

/**
 * What is wrong with the order of layers: a barrier on the cold side, a barrier over the battens, walls or a ceiling with
 * no insulation beside insulated ones, doors and step wells that were forgotten, insulation that nothing holds in its place,
 * and a floor cut to the bare metal though walls will be built up before it.
 */
export function layerWarnings(
  depths: BuildUpDepths,
  settings: Pick<Settings, 'floorMeets' | 'floorClearance'>,
  pockets: Pockets = NO_POCKETS,
): LayerWarning[] {
  const warm = (depth: BuildUpDepth): boolean =>
    depth.layers.some(({ material }) => material !== null && insulates(material.conductivity));
  // what is insulated is judged where ribs or floor ask for it; an end may be the cab's
  const judged = ['floor', 'left', 'right', 'ceiling'] as const;
  const insulated = judged.filter((surface) => warm(depths[surface]));
  const bare = judged.filter((surface) => !warm(depths[surface]));
  // a board kept back by as much as the walls get leaves them their room
  const built = (['left', 'right'] as const).some((side) => depths[side].total > settings.floorClearance);
  return [
    ...Object.values(depths).flatMap((depth) => (depth ? orderOf(depth) : [])),
    ...Object.values(depths).flatMap((depth) => (depth ? unbacked(depth) : [])),
    ...(insulated.length > 0 ? bare.map((surface) => ({ surface, said: message(`layers.cold.${surface}`) })) : []),
    ...(insulated.length > 0 && pockets.doors.length > 0 && !warm(depths.doors)
      ? [{ surface: 'doors', said: message('layers.cold.doors', { names: pockets.doors.join(', ') }) }]
      : []),
    ...(warm(depths.floor) && pockets.steps.length > 0
      ? [{ surface: 'floor', said: message('layers.cold.steps', { names: pockets.steps.join(', ') }) }]
      : []),
    ...(settings.floorMeets === 'shell' && built && depths.floor.layers.some(({ layer }) => layer.board)
      ? [{ surface: 'floor', said: message('layers.floorTight') }]
      : []),
  ];
}
