import { memo } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import ToggleButton from '@mui/material/ToggleButton';
import type { Message, Operation, Unit } from '@nestplank/core';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { LengthField } from '../../ui/LengthField.js';
import { PickField } from '../../ui/PickField.js';
import { useSpeech } from '../../words/words.js';
import { newBed, newCupboard } from './new-unit.js';

type Changes = Extract<Operation, { name: 'changeUnit' }>['payload']['changes'];

/** The places and sizes of the chosen unit. */
function PlaceFields({ unit, scene }: { readonly unit: Unit; readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const change = (changes: Changes): Message | null => act({ name: 'changeUnit', payload: { id: unit.id, changes } });
  const bed = unit.kind === 'platform-bed' ? unit : null;
  return (
    <div className="fields" style={{ paddingTop: 12 }}>
      <LengthField label={t('field.x')} value={unit.x} onTake={(x) => change({ x })} />
      <LengthField
        label={t(bed ? 'field.bedLength' : 'field.length')}
        value={unit.length}
        onTake={(length) => change({ length })}
      />
      <LengthField label={t('field.height')} value={unit.height} onTake={(height) => change({ height })} />
      {unit.kind === 'base-cupboard' && (
        <>
          <LengthField label={t('field.front')} value={unit.front} onTake={(front) => change({ front })} />
          <PickField
            label={t('field.side')}
            value={unit.side}
            choices={(['left', 'right'] as const).map((value) => ({ value, text: t(`surface.${value}`) }))}
            onPick={(side) => {
              const refused = change({ side });
              if (refused) notify(said(refused), 'trouble');
            }}
          />
        </>
      )}
      {bed && (
        <LengthField label={t('field.mattress')} value={bed.mattress} onTake={(mattress) => change({ mattress })} />
      )}
      {bed && scene.project.people.length > 0 && (
        <div role="group" aria-label={t('field.sleepers')} style={{ gridColumn: 'span 2' }}>
          {scene.project.people.map((person) => (
            <FormControlLabel
              key={person.id}
              control={
                <Checkbox
                  checked={bed.sleepers.includes(person.id)}
                  onChange={(_event, sleeps) =>
                    change({
                      sleepers: sleeps ? [...bed.sleepers, person.id] : bed.sleepers.filter((id) => id !== person.id),
                    })
                  }
                />
              }
              label={person.name}
            />
          ))}
        </div>
      )}
    </div>
  );
}

/** The units as a row to choose from, to add to, and the chosen one's figures. */
export const UnitStrip = memo(function UnitStrip({ scene }: { readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const chosen = useView((view) => view.unit);
  const { project, room, book } = scene;
  const unit = project.units.find((candidate) => candidate.id === chosen);
  if (!room) return null;
  const place = (made: Unit): void => {
    const refused = act({ name: 'placeUnit', payload: { unit: made } });
    if (refused) notify(said(refused), 'trouble');
    else look({ unit: made.id, sliceX: made.x + made.length / 2 });
  };
  return (
    <div className="strip unit-strip no-print">
      <div className="row apart wrap">
        <div className="chips">
          {project.units.map((candidate) => (
            <ToggleButton
              key={candidate.id}
              value={candidate.id}
              selected={candidate.id === chosen}
              onChange={() =>
                look(
                  candidate.id === chosen
                    ? { unit: null }
                    : { unit: candidate.id, sliceX: candidate.x + candidate.length / 2 },
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
                act({ name: 'removeUnit', payload: { id: unit.id } });
                look({ unit: null });
              }}
            >
              {t('layout.remove', { name: unit.name })}
            </Button>
          )}
        </div>
        <div className="chips">
          <Button size="small" onClick={() => place(newBed(project, room, book, t('layout.name.bed')))}>
            + {t('layout.addBed')}
          </Button>
          <Button size="small" onClick={() => place(newCupboard(project, room, book, t('layout.name.cupboard')))}>
            + {t('layout.addCupboard')}
          </Button>
        </div>
      </div>
      {unit ? (
        <PlaceFields key={unit.id} unit={unit} scene={scene} />
      ) : (
        <p className="soft" style={{ paddingTop: 18 }}>
          {t(project.units.length === 0 ? 'layout.none' : 'layout.choose')}
        </p>
      )}
    </div>
  );
});
