import Button from '@mui/material/Button';
import { memo } from 'react';
import { sceneOf } from '@nestplank/core/derive';
import { baysOf, type Den, type Pet } from '@nestplank/core/document';
import { FAMILIES } from '@nestplank/core/furniture';
import { nearestDen } from '@nestplank/core/layout';
import { Fold } from '../../kit/Fold.js';
import { LengthField } from '../../kit/LengthField.js';
import { NamedList } from '../../kit/NamedList.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { useChange } from '../../kit/use-change.js';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';
import { nextId } from '../measure/next-id.js';

/** A dog of middle size, until it is measured, mm. */
const MIDDLE_SIZE = { length: 650, width: 200, height: 560 };
const ON_FLOOR = 'floor';
const NOWHERE = '';

/** Animals that travel along: how large they are, where each lies, and what holds it on the road. */
export const Pets = memo(function Pets({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const change = useChange();
  const { project, derived, book } = scene;
  const { pets = [] } = project;
  const { dens = [], units } = project.layout;
  const atOf = (pet: Pet): Den['at'] | null => dens.find((den) => den.pet === pet.id)?.at ?? null;
  const put = (pet: Pet, changes: Partial<Pet>) => act({ name: 'putPet', payload: { pet: { ...pet, ...changes } } });
  const lay = (pet: Pet, at: Den['at'] | null) => act({ name: 'layPet', payload: { pet: pet.id, at } });
  const bays = units.flatMap((unit) =>
    baysOf(unit.division)
      .filter(({ holds }) => holds.kind === 'open' || holds.kind === 'hold')
      .map((bay) => ({ value: `${unit.id} ${bay.name}`, text: `${unit.name}, ${bay.name}` })),
  );
  /** On the floor where there is room: as near as can be to where it lies, or to the middle. */
  const onFloor = (pet: Pet) => {
    const seen = sceneOf(project, derived, book, FAMILIES);
    if (!seen) return null;
    const at = atOf(pet);
    const near: readonly [number, number] =
      at && 'x' in at ? [at.x, at.y] : [(seen.inner.start + seen.inner.length) / 2, 0];
    const free = nearestDen(pet, near, seen);
    if (!free) notify(t('pets.noRoom', { name: pet.name }), 'trouble');
    return free && lay(pet, free);
  };
  const pick = (pet: Pet, value: string) => {
    if (value === NOWHERE) return lay(pet, null);
    if (value === ON_FLOOR) return onFloor(pet);
    const [unit, bay] = value.split(' ');
    return unit && bay ? lay(pet, { unit, bay }) : null;
  };
  const placeOf = (at: Den['at'] | null): string =>
    at === null ? NOWHERE : 'unit' in at ? `${at.unit} ${at.bay}` : ON_FLOOR;
  return (
    <Fold title={t('pets.title')} line={t('pets.count', { count: pets.length })}>
      <NamedList
        title={t('pets.title')}
        hint={t('pets.none')}
        items={pets}
        nameLabel={t('pets.name')}
        freeId={nextId('pet', pets).id}
        onAdd={(id, name) => act({ name: 'putPet', payload: { pet: { id, name, ...MIDDLE_SIZE } } })}
        onRemove={(pet) => void change({ name: 'removePet', payload: { id: pet.id } })}
        line={(pet) => t('pets.line', { length: len(pet.length), width: len(pet.width), height: len(pet.height) })}
      >
        {(pet) => {
          const at = atOf(pet);
          return (
            <div className="stack gap-4">
              <p className="small soft">{t('pets.how')}</p>
              <div className="fields">
                {(['length', 'width', 'height'] as const).map((name) => (
                  <LengthField
                    key={name}
                    label={t(`pets.${name}`)}
                    value={pet[name]}
                    onTake={(value) => put(pet, { [name]: value })}
                  />
                ))}
                <NumberField
                  label={t('pets.mass')}
                  value={pet.mass ?? null}
                  least={0.1}
                  most={150}
                  onTake={(mass) => put(pet, { mass })}
                />
                <PickField
                  label={t('pets.rides')}
                  of={pet.name}
                  value={pet.rides ?? ''}
                  choices={[
                    { value: '', text: t('pets.ridesNot') },
                    ...(['crate', 'harness'] as const).map((value) => ({ value, text: t(`pets.${value}`) })),
                  ]}
                  onPick={(value) => {
                    const { id, name, length, width, height, mass } = pet;
                    const bare = { id, name, length, width, height, ...(mass === undefined ? {} : { mass }) };
                    const holds = value === 'crate' || value === 'harness' ? { rides: value } : {};
                    return act({ name: 'putPet', payload: { pet: { ...bare, ...holds } } });
                  }}
                />
                <PickField
                  label={t('pets.place')}
                  of={pet.name}
                  value={placeOf(at)}
                  choices={[
                    { value: NOWHERE, text: t('pets.nowhere') },
                    { value: ON_FLOOR, text: t('pets.onFloor') },
                    ...bays,
                  ]}
                  onPick={(value) => pick(pet, value)}
                />
                {at && 'x' in at && (
                  <>
                    <LengthField label={t('pets.x')} value={at.x} onTake={(x) => lay(pet, { ...at, x })} />
                    <LengthField label={t('pets.y')} value={at.y} onTake={(y) => lay(pet, { ...at, y })} />
                    <div>
                      <Button size="small" onClick={() => lay(pet, { ...at, turned: !at.turned })}>
                        {t(at.turned ? 'pets.turnAlong' : 'pets.turnAcross')}
                      </Button>
                    </div>
                  </>
                )}
              </div>
            </div>
          );
        }}
      </NamedList>
    </Fold>
  );
});
