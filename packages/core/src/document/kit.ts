import type { SurfaceTraits } from './surfaces.js';
import type { Message } from '../words/message.js';
import type { OptionValue, Unit } from './unit-schema.js';

/** What a field takes: a length in mm, a whole number, one of some words, a material sold in sheets, people, a thing with a data sheet, or yes and no. */
export type FieldKind = 'length' | 'count' | 'choice' | 'sheet' | 'people' | 'thing' | 'yes-no';

/** One thing of a unit that is typed or picked, in the form, in the line and in operations, always under the same name. */
export interface Field {
  readonly name: string;
  readonly kind: FieldKind;
  /** Where it is asked for: with the unit's place, or with how it is made. */
  readonly group: 'place' | 'made';
  /** Limits of a length or count, both allowed. */
  readonly least?: number;
  readonly most?: number;
  readonly choices?: readonly string[];
  /** Asked for only then. */
  readonly when?: (unit: Unit) => boolean;
  readonly get: (unit: Unit) => OptionValue;
  readonly set: (unit: Unit, value: OptionValue) => Unit;
}

/** What is wrong with a unit, and where in it. */
export interface UnitFault {
  readonly path: readonly (string | number)[];
  readonly said: Message;
}

/** What the document knows of a family of furniture: enough to change one and to hold it to its limits. */
export interface UnitFamily {
  readonly id: string;
  readonly fields: readonly Field[];
  readonly schools: readonly string[];
  readonly faults: (unit: Unit) => readonly UnitFault[];
}

/** What the document is held against besides its own shape. */
export interface DocumentKit {
  readonly families: readonly UnitFamily[];
  readonly surfaces: readonly SurfaceTraits[];
}

export const familyNamed = <F extends UnitFamily>(families: readonly F[], id: string): F | null =>
  families.find((family) => family.id === id) ?? null;
export const fieldNamed = (family: UnitFamily, name: string): Field | null =>
  family.fields.find((field) => field.name === name) ?? null;

/** The people a unit speaks of: whatever its fields of people hold. */
export function peopleOf(unit: Unit, families: readonly UnitFamily[]): readonly string[] {
  const family = familyNamed(families, unit.family);
  return (family?.fields ?? [])
    .filter((field) => field.kind === 'people')
    .flatMap((field) => {
      const value = field.get(unit);
      return Array.isArray(value) ? value : [];
    });
}
