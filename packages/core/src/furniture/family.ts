import type { PriceBook, Project } from '../document/schema.js';
import { endOf, scribeAllowance, standsAt } from '../document/body.js';
import type { Field, UnitFault } from '../document/kit.js';
import type { CutWay, Division, Face, OptionValue, Unit } from '../document/unit-schema.js';
import { z } from 'zod';
import type { Shell } from '../shell/shell.js';
import { message, type Message } from '../words/message.js';
import type { SceneFamily } from './scene.js';
import type { Surroundings } from './surroundings.js';

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
  /** One as it would stand in a free stretch; null where it does not fit there, or is of no use. Better ones have more of what it needs. */
  readonly inGap?: (gap: Gap, start: Start) => Offer | null;
  /** Figures of its own that somebody who builds or uses it wants to know. */
  readonly tells?: (unit: Unit, room: Surroundings) => readonly Message[];
  /** Parts of which role can be made of several that one person carries, and what is set for it. */
  readonly splits?: { readonly role: string; readonly into: Readonly<Record<string, string>> };
  /** Which ways its bays can be cut into several, each said what it holds and how it is closed. */
  readonly cuts: readonly CutWay[];
}

/** A free stretch of the room: against a wall or in the middle, from one height to another, mm. */
export interface Gap {
  readonly where: 'left' | 'right' | 'middle';
  /** On the floor, hung under the ceiling, or in a door of the wall: from its sill to its head. */
  readonly zone: 'floor' | 'high' | 'door';
  readonly x0: number;
  readonly x1: number;
  /** Heights above the finished floor. */
  readonly z0: number;
  readonly z1: number;
  /** From the wall to where the way has to stay free; in the middle all there is across. */
  readonly deep: number;
  /** Where across the middle is of one in the middle; 0 for one at a wall. */
  readonly middle: number;
  /** How far from the centre line the wall is, the least over the stretch. */
  readonly wall: number;
  /** In the middle: what of that one walks in, beside wheel arches and what else stands on the floor. */
  readonly walked?: number;
  /** In the middle: from where to where across one gets on at its front end; left out where nobody does. */
  readonly through?: { readonly from: number; readonly to: number };
}
export interface Offer {
  readonly unit: Unit;
  /** How well it fits there: 1 as it is usually made, 0 just. */
  readonly fits: number;
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
    get: ({ body }) =>
      of === 'front' ? (body.stands === 'across' || body.stands === 'free' ? 0 : body.front) : body[of],
    set: (unit, value) => ({ ...unit, body: { ...unit.body, [of]: value } as Unit['body'] }),
  };
}

/** Where something free stands across, and how wide it is. */
export function freeField(name: string, of: 'y' | 'width'): Field {
  return {
    name,
    ...position({ group: 'place', ...(of === 'width' ? { least: SMALLEST } : {}) }),
    get: ({ body }) => (body.stands === 'free' ? body[of] : 0),
    set: (unit, value) =>
      unit.body.stands === 'free' ? { ...unit, body: { ...unit.body, [of]: value } as Unit['body'] } : unit,
  };
}
/** How high above the finished floor it begins. Its height stays what it was. */
export const fromField: Field = {
  name: 'from',
  ...position({ group: 'place', least: 0, most: 5000 }),
  get: ({ body }) => body.from,
  set: (unit, value) => {
    const high = unit.body.to - unit.body.from;
    return { ...unit, body: { ...unit.body, from: Number(value), to: Number(value) + high } };
  },
};
/** A yes or no among its options. */
export const yesNoField = (name: string, group: Field['group'] = 'made'): Field => ({
  name,
  kind: 'yes-no',
  group,
  get: ({ options }) => options[name] === true,
  set: (unit, value) =>
    value === false && !(name in unit.options) ? unit : { ...unit, options: { ...unit.options, [name]: value } },
});
/** One word of several among its options. */
export const choiceField = (name: string, choices: readonly string[], group: Field['group'] = 'place'): Field => ({
  name,
  kind: 'choice',
  group,
  choices,
  // what a unit of an earlier version has not said is the first
  get: ({ options }) => String(options[name] ?? choices[0]),
  set: (unit, value) => ({ ...unit, options: { ...unit.options, [name]: value } }),
});

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

/** The data sheet of what it is, among its options. */
export const thingField: Field = {
  name: 'thing',
  kind: 'thing',
  group: 'place',
  get: ({ options }) => String(options['thing'] ?? ''),
  set: (unit, value) => ({ ...unit, options: { ...unit.options, thing: value } }),
};
/** The thing that field names; null where none is named yet. */
export const thingOption = ({ options }: Unit): string | null => {
  const { thing } = options;
  return typeof thing === 'string' && thing !== '' ? thing : null;
};

/** A whole number among its options. */
export const countField = (name: string, least: number, most: number, group: Field['group'] = 'place'): Field => ({
  name,
  kind: 'count',
  group,
  least,
  most,
  get: ({ options }) => options[name] ?? 0,
  set: (unit, value) => ({ ...unit, options: { ...unit.options, [name]: value } }),
});

/** A number among a unit's options, which its family has checked. */
export const numberOption = ({ options }: Unit, name: string): number => {
  const value = options[name];
  if (typeof value !== 'number') throw new TypeError(`option ${name} is no number`);
  return value;
};

/** Whether a division is cut in no other ways than these. */
const cutAsIn = (division: Division, cuts: readonly CutWay[]): boolean =>
  !('cut' in division) || (cuts.includes(division.cut) && division.parts.every((part) => cutAsIn(part, cuts)));

/** What every family holds a unit to: where it may stand, its materials, its options. */
export function faultsBy(wanted: {
  readonly stands: readonly Unit['body']['stands'][];
  readonly materials: readonly string[];
  readonly options: z.ZodType;
  readonly cuts: readonly CutWay[];
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
    if (!cutAsIn(unit.division, wanted.cuts)) say(['division'], 'division');
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

/**
 * The first free stretch of floor of a length along a side wall, from the front; the front of the left wall where there is none.
 * @param above height above the floor from which it has to be free, mm
 */
export function freePlace(
  { layout, room }: Pick<Start, 'layout' | 'room'>,
  length: number,
  sides: readonly ('left' | 'right')[] = ['left', 'right'],
  above = 0,
): { readonly side: 'left' | 'right'; readonly x: number } {
  const taken = (side: 'left' | 'right', from: number, to: number): boolean =>
    layout.units.some((unit) => standsAt(unit, side) && unit.body.x < to && endOf(unit) > from && unit.body.to > above);
  const places = sides.flatMap((side) =>
    Array.from({ length: Math.max(1, Math.floor((room.length - length) / 50)) }, (_, i) => ({ side, x: i * 50 })),
  );
  return places.find(({ side, x }) => !taken(side, x, x + length)) ?? { side: sides[0] ?? 'left', x: 0 };
}

/** An id no unit has yet, and how many of its kind there are with it. An id has no blanks: a name of two words is joined. */
export function freeUnitId(units: readonly Unit[], name: string): { readonly id: string; readonly number: number } {
  const stem = name.replace(/[^A-Za-z0-9_-]+/g, '-');
  let number = 1;
  const id = (): string => (number === 1 ? stem : `${stem}-${number}`);
  while (units.some((unit) => unit.id === id())) number += 1;
  return { id: id(), number };
}

export type { Field, OptionValue, Surroundings };
