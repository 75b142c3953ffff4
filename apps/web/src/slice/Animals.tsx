import type { Scene as RulesScene } from '@nestplank/core/furniture';
import { petsLain } from '@nestplank/core/layout';
import { standingAnimal } from '../kit/body.js';
import { BodyOutline } from '../kit/BodyOutline.js';
import type { Speech } from '../words/words.js';
import type { View } from './view.js';

/** Animals that lie at the slice, standing up where they lie, with what is left over their heads as it is judged. */
export function Animals({
  scene,
  x,
  view,
  speech,
}: {
  readonly scene: RulesScene;
  readonly x: number;
  readonly view: View;
  readonly speech: Speech;
}) {
  return (
    <>
      {petsLain(scene).map(({ pet, room }) => {
        const half = (room.turned ? pet.width : pet.length) / 2;
        if (Math.abs(x - room.x) > half) return null;
        const spare = room.high - pet.height;
        const label = `${pet.name} ${speech.t('slice.head', { spare: speech.len(spare) })}`;
        const [tx, ty] = view.at(room.y, room.foot + pet.height);
        return (
          <g key={pet.id} role="img" aria-label={label}>
            <BodyOutline
              body={standingAnimal(pet)}
              at={([across, up]) => view.at(room.y + across, room.foot + up)}
              scale={view.scale}
            />
            <text
              x={tx}
              y={ty - 6}
              textAnchor="middle"
              className={spare < 0 ? 'needs halo size-12' : 'data halo size-12'}
            >
              {label}
            </text>
          </g>
        );
      })}
    </>
  );
}
