import ToggleButton from '@mui/material/ToggleButton';
import { partMass, type Part } from '@nestplank/core';
import { useScene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/words.js';
import { PartFan } from './PartFan.js';
import { PartPanel } from './PartPanel.js';
import { HowMade } from './HowMade.js';

/** Build: one unit taken apart, each part with its drawing, and how it is made. */
export default function BuildStage() {
  const { t } = useSpeech();
  const scene = useScene();
  const group = useView((view) => view.group);
  const chosenPart = useView((view) => view.part);
  if (!scene) return <main className="stage" />;
  const { parts } = scene.shape;
  const groups: { readonly id: string; readonly name: string; readonly parts: readonly Part[] }[] = [
    ...(parts.some((part) => part.unit === null)
      ? [{ id: 'subfloor', name: t('build.subfloor'), parts: parts.filter((part) => part.unit === null) }]
      : []),
    ...scene.project.units.map((unit) => ({
      id: unit.id,
      name: unit.name,
      parts: parts.filter((part) => part.unit === unit.id),
    })),
  ];
  const open = groups.find((candidate) => candidate.id === group) ?? groups[0];
  const part = open?.parts.find((candidate) => candidate.id === chosenPart) ?? open?.parts[0] ?? null;
  const mass = open?.parts.reduce((sum, item) => sum + (partMass(item, scene.book) ?? 0), 0) ?? 0;
  return (
    <main className="stage">
      <div className="board">
        {!open ? (
          <p className="empty">{t('build.none')}</p>
        ) : (
          <>
            <div
              className="strip row apart wrap"
              style={{ borderTop: 0, borderBottom: 'var(--line) solid var(--ink)' }}
            >
              <div className="chips">
                {groups.map((candidate) => (
                  <ToggleButton
                    key={candidate.id}
                    value={candidate.id}
                    selected={candidate.id === open.id}
                    onChange={() => look({ group: candidate.id, part: null })}
                  >
                    {candidate.name}
                  </ToggleButton>
                ))}
              </div>
              <span className="soft figures">
                {t('build.parts', { count: open.parts.length, mass: mass.toFixed(1) })}
              </span>
            </div>
            <PartFan parts={open.parts} chosen={part?.id ?? null} scene={scene} />
          </>
        )}
      </div>
      <div className="side">
        {part ? <PartPanel part={part} scene={scene} /> : <p className="soft">{t('build.pick')}</p>}
        {open && <HowMade group={open.id} scene={scene} />}
      </div>
    </main>
  );
}
