import { memo } from 'react';
import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import type { Unit } from '@nestplank/core/document';
import { FAMILIES, freeUnitId, type Family } from '@nestplank/core/furniture';
import type { Shell } from '@nestplank/core/shell';
import { FieldGrid } from '../../kit/FieldGrid.js';
import { familyOf, fieldLabel } from '../../kit/unit-words.js';
import { useChange } from '../../kit/use-change.js';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/words.js';

/** The places and sizes of the chosen unit, as its family asks for them. */
function PlaceFields({ unit, scene }: { readonly unit: Unit; readonly scene: Scene }) {
  const speech = useSpeech();
  const family = familyOf(unit.family);
  if (!family) return null;
  return (
    <div className="strip-fields">
      <FieldGrid
        fields={family.fields.filter((field) => field.group === 'place')}
        of={unit}
        labelOf={(name) => fieldLabel(family, name, speech)}
        sheets={[]}
        people={scene.project.people}
        onTake={(name, value) => act({ name: 'changeUnit', payload: { id: unit.id, changes: { [name]: value } } })}
        onRefused={(why) => notify(speech.said(why), 'trouble')}
      />
    </div>
  );
}

/** A new unit of a family, called as its family calls it, on a place that is free. */
function startOf(family: Family, scene: Scene, room: Shell): Unit {
  const { layout, people } = scene.project;
  const { id, number } = freeUnitId(layout.units, family.words.noun);
  const name = number === 1 ? family.words.start : `${family.words.start} ${number}`;
  return family.start({ id, name, layout, people, room, book: scene.book });
}

/** The units as a row to choose from, to add to, and the chosen one's figures. */
export const UnitStrip = memo(function UnitStrip({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const change = useChange();
  const chosen = useView((view) => view.unit);
  const { project, room } = scene;
  const unit = project.layout.units.find((candidate) => candidate.id === chosen);
  if (!room) return null;
  const place = (made: Unit): void => {
    if (change({ name: 'placeUnit', payload: { unit: made } }))
      look({ unit: made.id, sliceX: made.body.x + made.body.length / 2 });
  };
  return (
    <div className="strip unit-strip no-print">
      <div className="row apart wrap">
        <div className="chips">
          {project.layout.units.map((candidate) => (
            <ToggleButton
              key={candidate.id}
              value={candidate.id}
              selected={candidate.id === chosen}
              onChange={() =>
                look(
                  candidate.id === chosen
                    ? { unit: null }
                    : { unit: candidate.id, sliceX: candidate.body.x + candidate.body.length / 2 },
                )
              }
            >
              {candidate.name}
            </ToggleButton>
          ))}
          {unit && (
            <Button
              size="small"
              variant="text"
              onClick={() => {
                if (change({ name: 'removeUnit', payload: { id: unit.id } })) look({ unit: null });
              }}
            >
              {t('layout.remove', { name: unit.name })}
            </Button>
          )}
        </div>
        <div className="chips">
          {FAMILIES.map((family) => (
            <Button key={family.id} size="small" onClick={() => place(startOf(family, scene, room))}>
              + {family.words.add}
            </Button>
          ))}
        </div>
      </div>
      {unit ? (
        <PlaceFields key={unit.id} unit={unit} scene={scene} />
      ) : (
        <p className="soft below">{t(project.layout.units.length === 0 ? 'layout.none' : 'layout.choose')}</p>
      )}
    </div>
  );
});
