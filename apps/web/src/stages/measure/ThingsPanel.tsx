import type { AnglePlace, Arch, KeepOut, Rib, Survey } from '@nestplank/core';
import { act, notify } from '../../state/session.js';
import { useSpeech } from '../../words/words.js';
import { PLACES } from './FoundPanel.js';
import { HoleList } from './HoleList.js';
import { nextId } from './next-id.js';
import { OpeningList } from './OpeningList.js';
import { SurveyPlan } from './SurveyPlan.js';
import { ThingList, Tick, usePick, type Perform } from './ThingList.js';

/** What is to be measured: stations, ribs, what stands in the room, openings, keep-outs, holes, slopes, and at which heights. */
export function ThingsPanel({ survey }: { readonly survey: Survey }) {
  const { t, said } = useSpeech();
  const pick = usePick();
  const perform: Perform = (operation) => {
    const refused = act(operation);
    if (refused) notify(said(refused), 'trouble');
    return refused && said(refused);
  };
  const putArch = (arch: Arch): string | null => perform({ name: 'putArch', payload: { arch } });
  const putRib = (rib: Rib): string | null => perform({ name: 'putRib', payload: { rib } });
  const putKeepOut = (keepOut: KeepOut): string | null => perform({ name: 'putKeepOut', payload: { keepOut } });
  const putAngle = (angle: AnglePlace): string | null => perform({ name: 'putAngle', payload: { angle } });
  const station = nextId('s', survey.stations);
  const rib = nextId('r', survey.ribs);
  const arch = nextId('a', survey.arches);
  const keepOut = nextId('k', survey.keepOuts);
  const angle = nextId('g', survey.angles);
  return (
    <div className="stack" style={{ gap: 20, paddingTop: 6 }}>
      <SurveyPlan survey={survey} perform={perform} />
      <ThingList
        title={t('measure.stations')}
        items={survey.stations}
        addText={t('measure.addStation')}
        add={() =>
          perform({
            name: 'putStation',
            payload: { station: { id: station.id, name: `Station ${station.number}`, planned: true } },
          })
        }
        rename={(item, name) => perform({ name: 'putStation', payload: { station: { ...item, name } } })}
        remove={(item) => perform({ name: 'removeStation', payload: { id: item.id } })}
      />
      <ThingList
        title={t('measure.ribs')}
        items={survey.ribs}
        addText={t('measure.addRib')}
        add={() => putRib({ id: rib.id, name: `rib ${rib.number}`, on: 'ring', flat: true })}
        rename={(item, name) => putRib({ ...item, name })}
        remove={(item) => perform({ name: 'removeRib', payload: { id: item.id } })}
        fields={(item) => (
          <>
            {pick(
              t('things.ribOn', { name: item.name }),
              item.on,
              ['ring', 'left', 'right', 'roof', 'floor'],
              'things.on.',
              (on) => putRib({ ...item, on }),
            )}
            <Tick label={t('things.flat')} checked={item.flat} onTick={(flat) => putRib({ ...item, flat })} />
          </>
        )}
      />
      <ThingList
        title={t('measure.arches')}
        items={survey.arches}
        addText={t('measure.addArch')}
        add={() => putArch({ id: arch.id, name: `Arch ${arch.number}`, side: 'left', kind: 'arch', shape: 'box' })}
        rename={(item, name) => putArch({ ...item, name })}
        remove={(item) => perform({ name: 'removeArch', payload: { id: item.id } })}
        fields={(item) => (
          <>
            {pick(
              t('things.kind', { name: item.name }),
              item.kind,
              ['arch', 'step', 'hump', 'pillar', 'duct'],
              'things.kind.',
              (kind) => putArch({ ...item, kind }),
            )}
            {pick(`${t('field.side')}: ${item.name}`, item.side, ['left', 'right'], 'surface.', (side) =>
              putArch({ ...item, side }),
            )}
            {pick(
              t('things.shapeOf', { name: item.name }),
              item.shape,
              ['box', 'rounded', 'tapered'],
              'shape.',
              (shape) => putArch({ ...item, shape }),
            )}
          </>
        )}
      />
      <OpeningList survey={survey} perform={perform} />
      <ThingList
        title={t('things.keepOuts')}
        items={survey.keepOuts}
        addText={t('things.addKeepOut')}
        add={() => putKeepOut({ id: keepOut.id, name: `Keep-out ${keepOut.number}`, reason: 'tank', note: '' })}
        rename={(item, name) => putKeepOut({ ...item, name })}
        remove={(item) => perform({ name: 'removeKeepOut', payload: { id: item.id } })}
        fields={(item) =>
          pick(
            t('things.reason', { name: item.name }),
            item.reason,
            ['tank', 'axle', 'exhaust', 'beam', 'cable', 'other'],
            'things.reason.',
            (reason) => putKeepOut({ ...item, reason }),
          )
        }
      />
      <HoleList survey={survey} perform={perform} />
      <ThingList
        title={t('things.angles')}
        items={survey.angles}
        addText={t('things.addAngle')}
        add={() => putAngle({ id: angle.id, name: `Surface ${angle.number}`, surface: 'left' })}
        rename={(item, name) => putAngle({ ...item, name })}
        remove={(item) => perform({ name: 'removeAngle', payload: { id: item.id } })}
        fields={(item) =>
          pick(`${t('things.surface')}: ${item.name}`, item.surface, PLACES, 'surface.', (surface) =>
            putAngle({ ...item, surface }),
          )
        }
      />
    </div>
  );
}
