import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useRef, useState } from 'react';
import type { Project } from '@nestplank/core/document';
import { keepingFirst, type MaterialPlan, sheetLetter } from '@nestplank/core/plan';
import type { Scene } from '../../state/scene.js';
import { act, useSession } from '../../state/session.js';
import { LengthField } from '../../kit/LengthField.js';
import { PickField } from '../../kit/PickField.js';
import { nextId } from '../measure/next-id.js';
import { useSpeech } from '../../words/use-speech.js';

type Remedy = Project['waste'][number]['remedy'];
const REMEDIES: readonly Remedy[] = ['recut', 'smaller', 'patch'];

interface SpoiledFormProps {
  readonly item: MaterialPlan;
  readonly scene: Scene;
  readonly onTold: (text: string) => void;
  readonly onClose: () => void;
}

/** Records what was cut wrong and what is to become of it; says where the part is cut from instead. */
export function SpoiledForm({ item, scene, onTold, onClose }: SpoiledFormProps) {
  const { t } = useSpeech();
  const begun = item.sheets.filter((sheet) => sheet.begun);
  const choices = begun.flatMap((sheet) => sheet.placements.filter((placed) => !placed.spoiled));
  const cut = new Set(begun.flatMap((sheet) => sheet.cut));
  const [part, setPart] = useState(
    choices.filter((placed) => cut.has(placed.part)).at(-1)?.part ?? choices[0]?.part ?? '',
  );
  const [reason, setReason] = useState('');
  const [remedy, setRemedy] = useState<Remedy>('recut');
  const placed = choices.find((candidate) => candidate.part === part);
  const [size, setSize] = useState<{ readonly length: number; readonly width: number } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  /** The part whose new place is to be told once the plan has been worked out again. */
  const waiting = useRef<{ readonly part: string; readonly before: unknown } | null>(null);
  const plans = useSession((s) => s.derived?.plans);
  useEffect(() => {
    if (!waiting.current || waiting.current.before === plans) return;
    const name = waiting.current.part;
    const after = plans?.find((candidate) => candidate.material.id === item.material.id);
    if (!after) return;
    waiting.current = null;
    const at = after.sheets.findIndex((sheet) => sheet.placements.some((p) => p.part === name && !p.spoiled));
    const sheet = after.sheets[at];
    onTold(
      !sheet
        ? t('bench.recutNowhere', { part: name })
        : t('bench.recutFrom', {
            part: name,
            where: t(after.anew.includes(sheet.id) && !sheet.begun ? 'bench.recutNew' : 'bench.recutSheet', {
              letter: sheetLetter(at),
            }),
          }),
    );
    onClose();
  }, [plans, item, onTold, onClose, t]);
  if (choices.length === 0)
    return (
      <footer className="bench-foot stack">
        <p>{t('bench.wrongNone')}</p>
        <Button onClick={onClose}>{t('bench.wrongCancel')}</Button>
      </footer>
    );
  const record = (): void => {
    if (!placed) return;
    if (reason.trim() === '') {
      setProblem(t('bench.wrongNoReason'));
      return;
    }
    const sheet = item.sheets.find((candidate) => candidate.placements.includes(placed));
    const share = sheet ? (placed.length * placed.width) / (sheet.length * sheet.width) : 0;
    const { waste, offcuts } = scene.project;
    const piece = size ?? { length: placed.length, width: placed.width };
    waiting.current = remedy === 'patch' ? null : { part, before: plans };
    const kept = scene.project.keptPlans.find((plan) => plan.material === item.material.id);
    const refused = act(...keepingFirst(item, kept), {
      name: 'spoilPart',
      payload: {
        waste: {
          id: nextId('w', waste).id,
          material: item.material.id,
          part,
          length: placed.length,
          width: placed.width,
          cost: remedy === 'recut' ? Math.round(share * (sheet?.price ?? 0)) : 0,
          reason: reason.trim(),
          remedy,
          date: new Date().toISOString().slice(0, 10),
        },
        offcut:
          remedy === 'smaller'
            ? { id: nextId('oc', offcuts).id, material: item.material.id, ...piece, place: part.slice(0, 60) }
            : null,
      },
    });
    if (refused) {
      waiting.current = null;
      return;
    }
    if (remedy === 'patch') {
      onTold(t('bench.patched', { part }));
      onClose();
    }
  };
  return (
    <footer className="bench-foot bench-wrong">
      <h2>{t('bench.wrongTitle')}</h2>
      <PickField
        label={t('bench.wrongPart')}
        value={part}
        choices={choices.map((candidate) => ({ value: candidate.part, text: candidate.part }))}
        onPick={(value) => {
          setPart(value);
          setSize(null);
        }}
      />
      <TextField
        label={t('bench.wrongWhy')}
        value={reason}
        error={problem !== null}
        helperText={problem}
        onChange={(event) => {
          setReason(event.target.value);
          setProblem(null);
        }}
      />
      <PickField
        label={t('bench.wrongRemedy')}
        value={remedy}
        choices={REMEDIES.map((value) => ({ value, text: t(`bench.remedy.${value}`) }))}
        onPick={setRemedy}
      />
      {remedy === 'smaller' && placed && (
        <>
          <LengthField
            label={t('bench.wrongLength')}
            value={size?.length ?? placed.length}
            onTake={(length) => {
              setSize({ length, width: size?.width ?? placed.width });
              return null;
            }}
          />
          <LengthField
            label={t('bench.wrongWidth')}
            value={size?.width ?? placed.width}
            onTake={(width) => {
              setSize({ length: size?.length ?? placed.length, width });
              return null;
            }}
          />
        </>
      )}
      <div className="row">
        <Button variant="contained" onClick={record}>
          {t('bench.wrongTake')}
        </Button>
        <Button onClick={onClose}>{t('bench.wrongCancel')}</Button>
      </div>
    </footer>
  );
}
