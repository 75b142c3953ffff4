import type { Corner, Lined } from '@nestplank/core/document';
import type { Lining } from '@nestplank/core/lining';
import type { Message } from '@nestplank/core/words';
import type { Scene } from '../../../state/scene.js';
import { act } from '../../../state/session.js';
import { LengthField } from '../../../kit/LengthField.js';
import { NamedList } from '../../../kit/NamedList.js';
import { NumberField } from '../../../kit/NumberField.js';
import { useChange } from '../../../kit/use-change.js';
import { PickField } from '../../../kit/PickField.js';
import { nextId } from '../../measure/next-id.js';
import { useSpeech } from '../../../words/use-speech.js';

/** Pieces that are sawn on their back and bent round a pillar or a header: their blank, their cuts, a piece to try them on. */
export function Corners({ lining, scene }: { readonly lining: Lining; readonly scene: Scene }) {
  const { sawn, t, len } = useSpeech();
  const change = useChange();
  const surface: Lined = lining.surface;
  const { corners } = scene.project;
  const { kerf } = scene.project.settings.cutting;
  const sheets = scene.book.items.filter((item) => item.stocks.length > 0);
  const put = (corner: Corner): Message | null => act({ name: 'putCorner', payload: { corner } });
  return (
    <NamedList
      title={t('kerf.title')}
      hint={t('kerf.none')}
      items={corners.filter((corner) => corner.surface === surface)}
      nameLabel={t('fitting.name')}
      freeId={nextId('cn', corners).id}
      line={(corner) => `${len(corner.legs[0])} + ${len(corner.legs[1])} × ${len(corner.height)}`}
      onAdd={(id, name) =>
        put({
          id,
          name,
          surface,
          board: lining.material.stocks.length > 0 ? lining.material.id : (sheets[0]?.id ?? 'birch-9'),
          height: 1000,
          legs: [150, 150],
          radius: 60,
          angle: 90,
          skin: 1.5,
          grainRound: true,
        })
      }
      problems={(corner) => scene.shape.lined.corners.find(({ id }) => id === corner.id)?.problems ?? []}
      onRemove={({ id }) => change({ name: 'removeCorner', payload: { id } })}
    >
      {(corner) => {
        const piece = scene.shape.lined.corners.find((candidate) => candidate.id === corner.id);
        return (
          <>
            <div className="fields two">
              <PickField
                label={t('box.board')}
                value={corner.board}
                choices={sheets.map((item) => ({ value: item.id, text: item.name }))}
                onPick={(board) => put({ ...corner, board })}
              />
              <PickField
                label={t('kerf.grain')}
                value={corner.grainRound ? 'round' : 'along'}
                choices={(['round', 'along'] as const).map((value) => ({ value, text: t(`kerf.grain.${value}`) }))}
                onPick={(value) => put({ ...corner, grainRound: value === 'round' })}
              />
            </div>
            <div className="fields three">
              <LengthField
                label={t('kerf.height')}
                value={corner.height}
                onTake={(height) => put({ ...corner, height })}
              />
              <LengthField
                label={t('kerf.leg', { number: 1 })}
                value={corner.legs[0]}
                onTake={(leg) => put({ ...corner, legs: [leg, corner.legs[1]] })}
              />
              <LengthField
                label={t('kerf.leg', { number: 2 })}
                value={corner.legs[1]}
                onTake={(leg) => put({ ...corner, legs: [corner.legs[0], leg] })}
              />
              <LengthField
                label={t('kerf.radius')}
                value={corner.radius}
                onTake={(radius) => put({ ...corner, radius })}
              />
              <NumberField
                label={t('kerf.angle')}
                value={corner.angle}
                least={1}
                most={180}
                onTake={(angle) => put({ ...corner, angle })}
              />
              <LengthField label={t('kerf.skin')} value={corner.skin} onTake={(skin) => put({ ...corner, skin })} />
            </div>
            {piece?.bend && (
              <p className="small figures" role="status">
                {t('kerf.is', {
                  developed: sawn(piece.developed),
                  cuts: piece.bend.cuts,
                  depth: sawn(piece.bend.depth),
                  spacing: sawn(piece.bend.spacing),
                  zone: sawn(piece.bend.zone),
                  kerf: sawn(kerf),
                })}
              </p>
            )}
          </>
        );
      }}
    </NamedList>
  );
}
