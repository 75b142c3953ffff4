import type { Scene } from '../../../state/scene.js';
import { act } from '../../../state/session.js';
import { LengthField } from '../../../kit/LengthField.js';
import { useSpeech } from '../../../words/use-speech.js';

/** Panels of the doors: how far they keep back from the edge, how large they come out, which still wait for readings. */
export function DoorPanels({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { doors } = scene.shape.lined;
  return (
    <section className="section stack">
      <h2>{t('doors.title')}</h2>
      <div className="fields">
        <LengthField
          label={t('doors.inset')}
          value={scene.project.doorLining.inset}
          onTake={(inset) => act({ name: 'changeDoors', payload: { changes: { inset } } })}
        />
      </div>
      {doors.panels.map((panel) => (
        <p key={`${panel.opening}:${panel.leaf}`} className="small figures">
          {t(panel.leaf === 'whole' ? 'doors.panel' : 'doors.leaf', {
            name: panel.name,
            leaf: panel.leaf === 'whole' ? '' : t(`at.${panel.leaf}`),
            length: len(panel.length),
            height: len(panel.height),
            screws: panel.parts.reduce((sum, part) => sum + (part.marks?.screws.length ?? 0), 0),
          })}
          {panel.windows.length > 0 && ` ${t('doors.windows', { names: panel.windows.join(', ') })}`}
        </p>
      ))}
      {doors.held?.fixing.pick && (
        <p className="small figures">
          {t('doors.screw', { count: doors.held.count, item: doors.held.fixing.pick.name })}
        </p>
      )}
      {doors.pending.length > 0 && (
        <p className="small needs">{t('doors.pending', { names: doors.pending.join(', ') })}</p>
      )}
      <p className="small soft">{t('doors.how')}</p>
    </section>
  );
}
