import type { Survey } from '@nestplank/core/document';
import { Check } from '../../kit/Check.js';
import { useSpeech } from '../../words/use-speech.js';
import { PLACES } from './FoundPanel.js';
import { HoleList } from './HoleList.js';
import { nextId } from './next-id.js';
import { OpeningList } from './OpeningList.js';
import { SurveyPlan } from './SurveyPlan.js';
import { ThingList, usePick, useRead } from './ThingList.js';

const RIB_ON = ['ring', 'left', 'right', 'roof', 'floor'] as const;
const ARCH_KINDS = ['arch', 'step', 'hump', 'pillar', 'duct'] as const;
const ARCH_SHAPES = ['box', 'rounded', 'tapered'] as const;
const KEPT_ON = ['floor', 'roof'] as const;
const KEEP_OUT_REASONS = ['tank', 'axle', 'exhaust', 'beam', 'cable', 'other'] as const;

function Stations({ survey }: { readonly survey: Survey }) {
  const { t } = useSpeech();
  const { one } = useRead(survey);
  return (
    <ThingList
      title={t('measure.stations')}
      items={survey.stations}
      line={({ id }) => t('things.at', { x: one(`station/${id}/x`) })}
      addText={t('measure.addStation')}
      add={() => {
        const { id, number } = nextId('s', survey.stations);
        return {
          id,
          operation: {
            name: 'putStation',
            payload: { station: { id, name: t('things.newStation', { number }), planned: true } },
          },
        };
      }}
      put={(station) => ({ name: 'putStation', payload: { station } })}
      remove={({ id }) => ({ name: 'removeStation', payload: { id } })}
    />
  );
}

function Ribs({ survey }: { readonly survey: Survey }) {
  const { t } = useSpeech();
  const pick = usePick();
  const { one } = useRead(survey);
  return (
    <ThingList
      title={t('measure.ribs')}
      items={survey.ribs}
      line={({ id, on, flat }) =>
        `${t(`things.on.${on}`)} · ${t('things.at', { x: one(`rib/${id}/x`) })}${flat ? '' : ` · ${t('things.notFlat')}`}`
      }
      addText={t('measure.addRib')}
      add={() => {
        const { id, number } = nextId('r', survey.ribs);
        return {
          id,
          operation: {
            name: 'putRib',
            payload: { rib: { id, name: t('things.newRib', { number }), on: 'ring', flat: true } },
          },
        };
      }}
      put={(rib) => ({ name: 'putRib', payload: { rib } })}
      remove={({ id }) => ({ name: 'removeRib', payload: { id } })}
      fields={(item, change) => (
        <>
          {pick(t('things.ribOn'), item.name, item.on, RIB_ON, 'things.on.', (on) => change({ on }))}
          <Check label={t('things.flat')} checked={item.flat} onCheck={(flat) => change({ flat })} />
          {item.on !== 'floor' && (
            <Check
              label={t('things.ribLeans')}
              checked={item.leans ?? false}
              onCheck={(leans) => change({ leans: leans ? true : undefined })}
            />
          )}
          <Check
            label={t('things.ribTapers')}
            checked={item.tapers ?? false}
            onCheck={(tapers) => change({ tapers: tapers ? true : undefined })}
          />
        </>
      )}
    />
  );
}

function Arches({ survey }: { readonly survey: Survey }) {
  const { t } = useSpeech();
  const pick = usePick();
  const { span } = useRead(survey);
  return (
    <ThingList
      title={t('measure.arches')}
      items={survey.arches}
      line={({ id, kind, side }) =>
        `${t(`things.kind.${kind}`)} · ${t(`surface.${side}`)} · ${span(`arch/${id}/from`, `arch/${id}/to`)}`
      }
      addText={t('measure.addArch')}
      add={() => {
        const { id, number } = nextId('a', survey.arches);
        return {
          id,
          operation: {
            name: 'putArch',
            payload: {
              arch: { id, name: t('things.newArch', { number }), side: 'left', kind: 'arch', shape: 'box' },
            },
          },
        };
      }}
      put={(arch) => ({ name: 'putArch', payload: { arch } })}
      remove={({ id }) => ({ name: 'removeArch', payload: { id } })}
      fields={(item, change) => (
        <>
          {pick(t('things.kind'), item.name, item.kind, ARCH_KINDS, 'things.kind.', (kind) => change({ kind }))}
          {pick(t('field.side'), item.name, item.side, ['left', 'right'], 'surface.', (side) => change({ side }))}
          {pick(t('things.shapeOf'), item.name, item.shape, ARCH_SHAPES, 'shape.', (shape) => change({ shape }))}
        </>
      )}
    />
  );
}

function KeepOuts({ survey }: { readonly survey: Survey }) {
  const { t } = useSpeech();
  const pick = usePick();
  const { span } = useRead(survey);
  return (
    <ThingList
      title={t('things.keepOuts')}
      items={survey.keepOuts}
      line={({ id, reason, on = 'floor' }) =>
        `${t(`things.keptOn.${on}`)} · ${t(`things.reason.${reason}`)} · ${span(`keepout/${id}/from`, `keepout/${id}/to`)}`
      }
      addText={t('things.addKeepOut')}
      add={() => {
        const { id, number } = nextId('k', survey.keepOuts);
        return {
          id,
          operation: {
            name: 'putKeepOut',
            payload: { keepOut: { id, name: t('things.newKeepOut', { number }), reason: 'tank', note: '' } },
          },
        };
      }}
      put={(keepOut) => ({ name: 'putKeepOut', payload: { keepOut } })}
      remove={({ id }) => ({ name: 'removeKeepOut', payload: { id } })}
      fields={(item, change) => (
        <>
          {pick(t('things.reason'), item.name, item.reason, KEEP_OUT_REASONS, 'things.reason.', (reason) =>
            change({ reason }),
          )}
          {pick(t('things.keptWhere'), item.name, item.on ?? 'floor', KEPT_ON, 'things.keptOn.', (on) =>
            change({ on }),
          )}
        </>
      )}
    />
  );
}

function Slopes({ survey }: { readonly survey: Survey }) {
  const { t } = useSpeech();
  const pick = usePick();
  return (
    <ThingList
      title={t('things.angles')}
      items={survey.angles}
      line={({ surface }) => t(`surface.${surface}`)}
      addText={t('things.addAngle')}
      add={() => {
        const { id, number } = nextId('g', survey.angles);
        return {
          id,
          operation: {
            name: 'putAngle',
            payload: { angle: { id, name: t('things.newAngle', { number }), surface: 'left' } },
          },
        };
      }}
      put={(angle) => ({ name: 'putAngle', payload: { angle } })}
      remove={({ id }) => ({ name: 'removeAngle', payload: { id } })}
      fields={(item, change) =>
        pick(t('things.surface'), item.name, item.surface, PLACES, 'surface.', (surface) => change({ surface }))
      }
    />
  );
}

/** What is to be measured: stations, ribs, what stands in the way, openings, keep-outs, holes, slopes, and at which heights. */
export function ThingsPanel({ survey }: { readonly survey: Survey }) {
  return (
    <div className="stack gap-18">
      <Stations survey={survey} />
      <Ribs survey={survey} />
      <Arches survey={survey} />
      <OpeningList survey={survey} />
      <KeepOuts survey={survey} />
      <HoleList survey={survey} />
      <Slopes survey={survey} />
      <SurveyPlan survey={survey} />
    </div>
  );
}
