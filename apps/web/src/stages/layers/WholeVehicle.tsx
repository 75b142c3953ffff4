import Button from '@mui/material/Button';
import { useState } from 'react';
import { FLOOR_SCHOOLS, LINING_SCHOOLS, WALL_SCHOOLS, wholeSchool, type WholeSchool } from '@nestplank/core/layers';
import { PickField } from '../../kit/PickField.js';
import { useChange } from '../../kit/use-change.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';

/** Floor, walls, ceiling and doors begun at once, from one choice of how they are kept dry, lined and floored. */
export function WholeVehicle({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const change = useChange();
  const [school, setSchool] = useState<WholeSchool>({ moisture: 'barrier', lining: 'battens', floor: 'framed' });
  const start = (): boolean =>
    change(
      ...Object.entries(wholeSchool(school, scene.book)).map(([surface, layers]) => ({
        name: 'replaceLayers' as const,
        payload: { surface, layers },
      })),
    );
  return (
    <section className="sample stack" aria-label={t('layers.whole')}>
      <h2>{t('layers.whole')}</h2>
      <p className="soft">{t('layers.wholeHint')}</p>
      <div className="stack">
        <PickField
          label={t('layers.wholeWalls')}
          value={school.moisture}
          choices={WALL_SCHOOLS.map((value) => ({ value, text: t(`layers.school.${value}`) }))}
          onPick={(moisture) => setSchool({ ...school, moisture })}
        />
        <PickField
          label={t('layers.wholeLining')}
          value={school.lining}
          choices={LINING_SCHOOLS.map((value) => ({ value, text: t(`layers.lining.${value}`) }))}
          onPick={(lining) => setSchool({ ...school, lining })}
        />
        <PickField
          label={t('layers.wholeFloor')}
          value={school.floor}
          choices={FLOOR_SCHOOLS.map((value) => ({ value, text: t(`layers.school.${value}`) }))}
          onPick={(floor) => setSchool({ ...school, floor })}
        />
      </div>
      <div>
        <Button variant="contained" onClick={start}>
          {t('layers.wholeStart')}
        </Button>
      </div>
    </section>
  );
}
