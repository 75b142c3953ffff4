import type { PriceBook, Project } from '../document/schema.js';
import { scribeAllowance } from '../document/body.js';
import type { Field, UnitFault } from '../document/kit.js';
import type { Face, OptionValue, Unit } from '../document/unit-schema.js';
import { z } from 'zod';
import type { ArchShape } from '../shell/arch.js';
import type { Shell } from '../shell/shell.js';
import { message } from '../words/message.js';
import type { SceneFamily } from './scene.js';
import type { Skeleton } from './skeleton.js';

/** What a unit is made in. */
export interface Surroundings {
  readonly inner: Shell;
  readonly arches: readonly ArchShape[];
  readonly book: PriceBook;
}

/** What a new unit starts from. */
export interface Start {
  readonly id: string;
  readonly name: string;
  readonly layout: Project['layout'];
  readonly people: Project['people'];
  readonly room: Shell;
  readonly book: PriceBook;
}

/**
 * A family of furniture: sensible starts, limits, what it adds, its own rules. Everything else asks a unit through its
 * body, its skeleton and what its family says here, never by the family's name.
 */
export interface Family extends SceneFamily {
  readonly words: {
    readonly name: string;
    /** What the button says that adds one. */
    readonly add: string;
    /** What a new one is called, and what it is called in the middle of a sentence. */
    readonly start: string;
    readonly noun: string;
    /** Labels of its fields and names of its parts' roles, where the common ones do not do. */
    readonly fields: Readonly<Record<string, string>>;
    readonly roles: Readonly<Record<string, string>>;
  };
  readonly start: (start: Start) => Unit;
  readonly skeleton: (unit: Unit, room: Surroundings) => Skeleton;
  /** Its bays can be divided, and each said what it holds and how it is closed. */
  readonly divides: boolean;
}

const LARGEST = 100_000;
/** A size is no smaller than this, mm. */
const SMALLEST = 1;

interface Said {
  readonly group: Field['group'];
  readonly least?: number;
  readonly most?: number;
}
const position = (said: Said): Pick<Field, 'kind' | 'group' | 'least' | 'most'> => ({
  kind: 'length',
  least: -LARGEST,
  most: LARGEST,
  ...said,
});

/** A field of the body that is a length. */
export function bodyField(name: string, of: 'x' | 'length' | 'front' | 'to'): Field {
  return {
    name,
    ...position({ group: 'place', ...(of === 'length' || of === 'to' ? { least: SMALLEST } : {}) }),
    get: ({ body }) => (of === 'front' ? (body.stands === 'across' ? 0 : body.front) : body[of]),
    set: (unit, value) => ({ ...unit, body: { ...unit.body, [of]: value } as Unit['body'] }),
  };
}

/** Which side wall it has its back to. */
export const sideField: Field = {
  name: 'side',
  kind: 'choice',
  group: 'place',
  choices: ['left', 'right'],
  get: ({ body }) => body.stands,
  set: (unit, value) => ({ ...unit, body: { ...unit.body, stands: value } as Unit['body'] }),
};

export const materialField = (name: string): Field => ({
  name,
  kind: 'sheet',
  group: 'made',
  get: ({ materials }) => materials[name] ?? '',
  set: (unit, value) => ({ ...unit, materials: { ...unit.materials, [name]: String(value) } }),
});

/** What is left on at the faces that are cut to the vehicle's curve. */
export const scribeField = (faces: readonly Face[]): Field => ({
  name: 'scribe',
  kind: 'length',
  group: 'made',
  least: 0,
  most: 1000,
  get: (unit) => scribeAllowance(unit) ?? 0,
  set: (unit, value) => ({
    ...unit,
    meets: {
      ...unit.meets,
      ...Object.fromEntries(faces.map((face) => [face, { how: 'scribed', allowance: Number(value) }])),
    },
  }),
});

/** A length among its options. */
export const optionField = (name: string, said: Said): Field => ({
  name,
  ...position({ least: 0, most: 1000, ...said }),
  get: ({ options }) => options[name] ?? 0,
  set: (unit, value) => ({ ...unit, options: { ...unit.options, [name]: value } }),
});

export const peopleField = (name: string): Field => ({
  name,
  kind: 'people',
  group: 'place',
  get: ({ options }) => options[name] ?? [],
  set: (unit, value) => ({ ...unit, options: { ...unit.options, [name]: value } }),
});

/** A number among a unit's options, which its family has checked. */
export const numberOption = ({ options }: Unit, name: string): number => {
  const value = options[name];
  if (typeof value !== 'number') throw new TypeError(`option ${name} is no number`);
  return value;
};

/** What every family holds a unit to: where it may stand, its materials, its options. */
export function faultsBy(wanted: {
  readonly stands: readonly Unit['body']['stands'][];
  readonly materials: readonly string[];
  readonly options: z.ZodType;
  readonly divides: boolean;
}): (unit: Unit) => readonly UnitFault[] {
  return (unit) => {
    const faults: UnitFault[] = [];
    const say = (path: UnitFault['path'], what: string): void =>
      void faults.push({ path, said: message('operation.badUnit', { name: unit.name, what }) });
    if (!wanted.stands.includes(unit.body.stands)) say(['body', 'stands'], 'stands');
    if (unit.body.from >= unit.body.to) say(['body', 'to'], 'height');
    for (const role of wanted.materials) if (!unit.materials[role]) say(['materials', role], role);
    for (const role of Object.keys(unit.materials))
      if (!wanted.materials.includes(role)) say(['materials', role], role);
    if (!wanted.divides && 'cut' in unit.division) say(['division'], 'division');
    const checked = wanted.options.safeParse(unit.options);
    for (const issue of checked.success ? [] : checked.error.issues)
      say(['options', ...issue.path.map(String)], issue.path.join('.') || 'options');
    return faults;
  };
}

/** A sheet of about this thickness from the price book; the first of two equally near. */
export function sheetAbout(book: PriceBook, thickness: number): string {
  const sheets = book.items.filter((item) => item.stocks.length > 0 && item.group === 'sheet');
  const near = [...sheets].sort((a, b) => Math.abs(a.thickness - thickness) - Math.abs(b.thickness - thickness))[0];
  return near?.id ?? 'sheet';
}

/** An id no unit has yet, and how many of its kind there are with it. */
export function freeUnitId(units: readonly Unit[], stem: string): { readonly id: string; readonly number: number } {
  let number = 1;
  const id = (): string => (number === 1 ? stem : `${stem}-${number}`);
  while (units.some((unit) => unit.id === id())) number += 1;
  return { id: id(), number };
}

export type { Field, OptionValue };
