import Button from '@mui/material/Button';
import { useState } from 'react';
import { learntAllowance, scribeLine, takenOff, twinPasses, type Part } from '@nestplank/core/parts';
import type { ScribePass } from '@nestplank/core/document';
import { unitName, type Scene } from '../../state/scene.js';
import { act } from '../../state/session.js';
import { LengthList } from '../../kit/LengthList.js';
import { useChange } from '../../kit/use-change.js';
import { partName } from './names.js';
import { nextId } from '../measure/next-id.js';
import { useSpeech } from '../../words/use-speech.js';

interface ScribePassesProps {
  readonly part: Part;
  readonly edge: Part['edges'][number];
  readonly scene: Scene;
}

/** The passes of one scribed edge: from the gaps read with the part held in place to the line to cut along. */
export function ScribePasses({ part, edge, scene }: ScribePassesProps) {
  const speech = useSpeech();
  const { sawn, t, lenUnit } = speech;
  const change = useChange();
  const [gaps, setGaps] = useState<readonly number[]>([]);
  const { scribes } = scene.project;
  const passes = scribes.filter((pass) => pass.part === part.id && pass.edge === edge.at).length;
  const taken = takenOff(scribes, part.id, edge.at);
  const line = gaps.length > 1 ? scribeLine(gaps, edge.allowance - taken) : null;
  const learnt = learntAllowance(scribes);
  const twin = twinPasses(part, edge.at, scene.shape.parts, scribes);
  const twinPart = scene.shape.parts.find(({ id }) => id === twin?.part);
  const passOf = (given: readonly number[], after: number): ScribePass => ({
    id: `sp${nextId('sp', scribes).number + after}`,
    part: part.id,
    edge: edge.at,
    gaps: [...given],
    at: new Date().toISOString(),
  });
  const log = (): void => {
    const refused = act({ name: 'logScribe', payload: { scribe: passOf(gaps, 0) } });
    if (!refused) setGaps([]);
  };
  return (
    <section className="section stack">
      <div className="row apart">
        <h2>{t('scribe.title', { at: t(`at.${edge.at}`) })}</h2>
        {passes > 0 && (
          <span className="soft small figures">{t('scribe.passes', { count: passes, taken: lenUnit(taken) })}</span>
        )}
      </div>
      <LengthList
        label={t('scribe.gaps')}
        values={gaps}
        asTyped
        mayBeEmpty
        onTake={(values) => {
          if (values.length === 1) return t('scribe.need');
          setGaps(values);
          return null;
        }}
      />
      {line && (
        <>
          <p className="small figures">
            {t('scribe.line', {
              compass: lenUnit(line.compass),
              off: line.off.map((off) => sawn(off)).join('; '),
            })}
          </p>
          <p className={line.left < 0 ? 'small needs' : 'small soft'} role="status">
            {line.left < 0
              ? t('scribe.small', { short: lenUnit(-line.left) })
              : t('scribe.left', { left: lenUnit(line.left) })}
          </p>
          <div>
            <Button disabled={line.left < 0} onClick={log}>
              {t('scribe.log')}
            </Button>
          </div>
        </>
      )}
      {twin && twinPart && (
        <>
          <p className="small figures">
            {t('scribe.twin', {
              twin: `${twinPart.of ?? unitName(scene, twinPart.unit ?? '')}, ${partName(twinPart, scene.shape.parts, speech)}`,
              count: twin.gaps.length,
              off: lenUnit(takenOff(scribes, twin.part, edge.at)),
            })}
          </p>
          <div>
            <Button
              onClick={() =>
                change(
                  ...twin.gaps.map((given, i) => ({
                    name: 'logScribe' as const,
                    payload: { scribe: passOf(given, i) },
                  })),
                )
              }
            >
              {t('scribe.twinTake')}
            </Button>
          </div>
        </>
      )}
      {learnt && (
        <div className="row apart wrap">
          <p className="small soft">
            {t('scribe.learnt', { edges: learnt.edges, allowance: lenUnit(learnt.allowance) })}
          </p>
          {learnt.allowance !== edge.allowance && (
            <Button
              size="small"
              variant="text"
              onClick={() => change({ name: 'leaveToScribe', payload: { allowance: learnt.allowance } })}
            >
              {t('scribe.learntTake', { allowance: lenUnit(learnt.allowance) })}
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
