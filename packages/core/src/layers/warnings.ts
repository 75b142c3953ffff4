import type { Settings } from '../document/schema.js';
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

/**
 * What is wrong with the order of layers: a barrier on the cold side, a barrier over the battens, walls or a ceiling with
 * no insulation beside insulated ones, and a floor cut to the bare metal though walls will be built up before it.
 */
export function layerWarnings(depths: BuildUpDepths, settings: Pick<Settings, 'floorMeets'>): LayerWarning[] {
  const warm = (depth: BuildUpDepth): boolean =>
    depth.layers.some(({ material }) => material !== null && insulates(material.conductivity));
  // what is insulated is judged where ribs or floor ask for it; an end may be the cab's
  const judged = ['floor', 'left', 'right', 'ceiling'] as const;
  const insulated = judged.filter((surface) => warm(depths[surface]));
  const bare = judged.filter((surface) => !warm(depths[surface]));
  const built = (['left', 'right'] as const).some((side) => depths[side].total > 0);
  return [
    ...Object.values(depths).flatMap((depth) => (depth ? orderOf(depth) : [])),
    ...(insulated.length > 0 ? bare.map((surface) => ({ surface, said: message(`layers.cold.${surface}`) })) : []),
    ...(settings.floorMeets === 'shell' && built && depths.floor.layers.some(({ layer }) => layer.board)
      ? [{ surface: 'floor', said: message('layers.floorTight') }]
      : []),
  ];
}
