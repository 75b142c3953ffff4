import { memo, useMemo, useState } from 'react';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import ToggleButton from '@mui/material/ToggleButton';
import { frontLineOf, type Unit } from '@nestplank/core/document';
import { sceneOf } from '@nestplank/core/derive';
import { madeBeds } from '@nestplank/core/layout';
import { FAMILIES, freeUnitId, type Family } from '@nestplank/core/furniture';
import { FieldGrid } from '../../kit/FieldGrid.js';
import { familyOf, fieldLabel } from '../../kit/unit-words.js';
import { useChange } from '../../kit/use-change.js';
import { useStable } from '../../kit/use-stable.js';
import { act, notify } from '../../state/session.js';
import { unitName, type Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { grouped } from '../../foldout/UnitLayer.js';
import { bestPlace, startIn } from './gaps.js';
import { WishesOf } from './WishList.js';

const NO_SHEETS: readonly never[] = [];

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
        sheets={NO_SHEETS}
        people={scene.project.people}
        things={scene.project.things}
        onTake={(name, value) => act({ name: 'changeUnit', payload: { id: unit.id, changes: { [name]: value } } })}
        onRefused={(why) => notify(speech.said(why), 'trouble')}
      />
    </div>
  );
}

/** Figures that a family tells of its own, such as how a board tilts by the knots of its ropes. */
function Told({ unit, scene }: { readonly unit: Unit; readonly scene: Scene }) {
  const { said } = useSpeech();
  const { inner, arches } = scene.derived;
  const told =
    inner &&
    familyOf(unit.family)?.tells?.(unit, { inner, arches, book: scene.book, things: scene.project.things ?? [] });
  if (!told || told.length === 0) return null;
  return <p className="small figures told">{told.map((one) => said(one)).join(' ')}</p>;
}

/** The bed that a top makes when it is lowered between its seats, and the cushions to be cut for it. */
function Bed({ unit, scene }: { readonly unit: Unit; readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { project, derived, book } = scene;
  const bed = useMemo(() => {
    const world = sceneOf(project, derived, book, FAMILIES);
    return world ? madeBeds(world).find((one) => one.unit.id === unit.id) : undefined;
  }, [project, derived, book, unit.id]);
  if (!bed) return null;
  const size = ({ length, width, thick }: { length: number; width: number; thick: number }): string =>
    t('bed.size', { length: len(length), width: len(width), thick: len(thick) });
  const { middle } = bed;
  return (
    <p className="small figures told">
      {t('bed.made', { length: len(bed.length), width: len(bed.width) })}{' '}
      {bed.seats.map((seat) => t('bed.seat', { name: seat.unit.name, size: size(seat.cushion) })).join(' ')}{' '}
      {t(middle.backrests ? 'bed.backrests' : 'bed.middle', { n: middle.count, size: size(middle.cushion) })}
      {bed.uneven > 1 && <span className="needs"> {t('bed.uneven', { by: len(bed.uneven) })}</span>}
    </p>
  );
}

/** One of a family where it fits best, else where its family starts one. */
function bestOf(family: Family, scene: Scene): Unit | null {
  const room = scene.derived.inner ?? scene.room;
  if (!room) return null;
  return bestPlace(family, scene) ?? family.start(startIn(family, scene, room));
}

/** Puts in a unit by its family's name. */
const AddByName = memo(function AddByName({ onAdd }: { readonly onAdd: (family: Family) => void }) {
  const { t } = useSpeech();
  const [at, setAt] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button size="small" aria-haspopup="menu" onClick={(event) => setAt(event.currentTarget)}>
        + {t('add.choose')}
      </Button>
      <Menu anchorEl={at} open={at !== null} onClose={() => setAt(null)}>
        {FAMILIES.map((family) => (
          <MenuItem
            key={family.id}
            onClick={() => {
              setAt(null);
              onAdd(family);
            }}
          >
            {family.words.add}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
});

/** The same again beside it, or at the other wall. */
function twinOf(unit: Unit, scene: Scene, mirror: boolean): Unit {
  const family = familyOf(unit.family);
  const { id, number } = freeUnitId(scene.project.layout.units, family?.words.noun ?? unit.family);
  const { body } = unit;
  const name = `${family?.words.start ?? unit.name} ${number}`;
  if (mirror && (body.stands === 'left' || body.stands === 'right'))
    return { ...unit, id, name, body: { ...body, stands: body.stands === 'left' ? 'right' : 'left' } };
  if (mirror && body.stands === 'free') return { ...unit, id, name, body: { ...body, y: -body.y - body.width } };
  return { ...unit, id, name, body: { ...body, x: body.x + body.length } };
}

/** One unit in the row. */
const Chip = memo(function Chip({
  id,
  name,
  selected,
  onPress,
}: Pick<Unit, 'id' | 'name'> & {
  readonly selected: boolean;
  readonly onPress: (id: string, shift: boolean) => void;
}) {
  return (
    <ToggleButton
      value={id}
      selected={selected}
      onChange={(event) => onPress(id, (event.nativeEvent as MouseEvent).shiftKey)}
    >
      {name}
    </ToggleButton>
  );
});

/** What is done with the chosen unit. */
const Does = memo(function Does({
  name,
  mirrored,
  onTwin,
  onRemove,
}: Pick<Unit, 'name'> & {
  /** Whether it has another wall to go to. */
  readonly mirrored: boolean;
  readonly onTwin: (mirror: boolean) => void;
  readonly onRemove: () => void;
}) {
  const { t } = useSpeech();
  return (
    <>
      <Button size="small" variant="text" onClick={() => onTwin(false)}>
        {t('layout.copy')}
      </Button>
      {mirrored && (
        <Button size="small" variant="text" onClick={() => onTwin(true)}>
          {t('layout.mirror')}
        </Button>
      )}
      <Button size="small" variant="text" onClick={onRemove}>
        {t('layout.remove', { name })}
      </Button>
    </>
  );
});

/** The units as a row to choose from, to add to, and the chosen one's figures. */
export const UnitStrip = memo(function UnitStrip({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const change = useChange();
  const chosen = useView((view) => view.unit);
  const picked = useView((view) => view.together);
  const { project, room } = scene;
  const together = picked.filter((id) => project.layout.units.some((own) => own.id === id));
  const unit = project.layout.units.find((candidate) => candidate.id === chosen);
  const place = (made: Unit): void => {
    if (change({ name: 'placeUnit', payload: { unit: made } }))
      look({ unit: made.id, gap: null, sliceX: made.body.x + made.body.length / 2 });
  };
  const add = useStable((family: Family): void => {
    const made = bestOf(family, scene);
    if (made) place(made);
  });
  const twin = useStable((mirror: boolean): void => {
    if (unit) place(twinOf(unit, scene, mirror));
  });
  const remove = useStable((): void => {
    if (unit && change({ name: 'removeUnit', payload: { id: unit.id } })) look({ unit: null });
  });
  const press = useStable((id: string, shift: boolean): void => {
    const pressed = project.layout.units.find((own) => own.id === id);
    if (!pressed) return;
    if (shift) look({ together: grouped(together, chosen, id) });
    else if (id === chosen) look({ unit: null });
    else look({ unit: id, gap: null, sliceX: pressed.body.x + pressed.body.length / 2 });
  });
  if (!room) return null;
  return (
    <>
      <div className="row apart unit-row">
        <div className="chips one-row">
          {project.layout.units.map(({ id, name }) => (
            <Chip key={id} id={id} name={name} selected={id === chosen} onPress={press} />
          ))}
        </div>
        <div className="chips unit-does">
          {unit && (
            <Does
              name={unit.name}
              mirrored={frontLineOf(unit) !== null || unit.body.stands === 'free'}
              onTwin={twin}
              onRemove={remove}
            />
          )}
          <AddByName onAdd={add} />
        </div>
      </div>
      {together.length > 1 && (
        <p className="small">
          {t('layout.together', { names: together.map((id) => unitName(scene, id)).join(', ') })}{' '}
          <Button size="small" variant="text" onClick={() => look({ together: [] })}>
            {t('layout.part')}
          </Button>
        </p>
      )}
      <div className="unit-figures">
        {unit ? (
          <>
            <PlaceFields key={unit.id} unit={unit} scene={scene} />
            <Told unit={unit} scene={scene} />
            <Bed unit={unit} scene={scene} />
            <WishesOf scene={scene} unit={unit.id} />
          </>
        ) : (
          <p className="soft small">
            {project.layout.units.length === 0
              ? `${t('layout.none')} ${t('gap.hint')}`
              : `${t('layout.choose')} ${t('gap.hint')}`}
          </p>
        )}
      </div>
    </>
  );
});
