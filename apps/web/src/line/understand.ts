import { sceneOf, type Derived } from '@nestplank/core/derive';
import {
  familyNamed,
  fieldNamed,
  frontLineOf,
  describeAddress,
  parseAddress,
  unitOf,
  type Operation,
  type PriceBook,
  type Project,
  type Unit,
} from '@nestplank/core/document';
import { FAMILIES, freeUnitId, type Family } from '@nestplank/core/furniture';
import { gapsOf, nearestDen, offeredIn, ruleNamed } from '@nestplank/core/layout';
import { halfWidth, roofHeight } from '@nestplank/core/shell';
import { formatMoney, parseLength } from '@nestplank/core/words';
import { readValue, valueTextUnit } from '../kit/read-value.js';
import { fieldLabel } from '../kit/unit-words.js';
import { STAGES, type StageName } from '../stages/stages.js';
import type { Speech } from '../words/words.js';

/** What the line looks at. */
export interface LineContext {
  readonly project: Project;
  readonly derived: Derived | null;
  readonly book: PriceBook;
  readonly stage: StageName;
  /** The reading that is being asked for. */
  readonly address: string | null;
  readonly undoName: string | null;
  readonly redoName: string | null;
  readonly now: string;
  /** The families whose words it knows; those that come with the application when nothing is said. */
  readonly families?: readonly Family[];
}

/** What Enter will do. */
export type Effect =
  | { readonly kind: 'operations'; readonly operations: readonly Operation[] }
  | { readonly kind: 'go'; readonly stage: StageName }
  | { readonly kind: 'slice'; readonly x: number }
  | { readonly kind: 'undo' | 'redo' };

/** What the line made of what was typed. */
export interface Understood {
  readonly text: string;
  readonly effect: Effect | null;
  readonly trouble: boolean;
}

const answer = (text: string): Understood => ({ text, effect: null, trouble: false });
const trouble = (text: string): Understood => ({ text, effect: null, trouble: true });
const will = (text: string, effect: Effect): Understood => ({ text, effect, trouble: false });

const DIRECTIONS = ['left', 'right', 'forward', 'back', 'up', 'down', 'at'] as const;
/** The words a unit takes: the directions it moves in, and its fields that are typed. */
function wordsOf(unit: Unit, families: readonly Family[]): readonly string[] {
  const sideways = frontLineOf(unit) !== null;
  const typed = (familyNamed(families, unit.family)?.fields ?? []).filter(
    (field) =>
      (field.kind === 'length' || field.kind === 'count') && field.name !== 'x' && field.when?.(unit) !== false,
  );
  return [
    ...DIRECTIONS.filter((word) => sideways || (word !== 'left' && word !== 'right')),
    ...typed.map((field) => field.name),
  ];
}
const QUESTIONS = ['headroom', 'width', 'bed', 'cost', 'mass', 'warmth', 'survey'];

/** The unit whose name or id begins with a word. */
function unitCalled(word: string, project: Project): Unit | null {
  const low = word.toLowerCase();
  return (
    project.layout.units.find((unit) => unit.name.toLowerCase() === low) ??
    project.layout.units.find(
      (unit) =>
        unit.name
          .toLowerCase()
          .split(/\s+/)
          .some((part) => part.startsWith(low)) || unit.id.startsWith(low),
    ) ??
    null
  );
}

/** The field a direction moves, and which way. Left and right move a front; what reaches from wall to wall has none. */
function moveOf(
  unit: Unit,
  word: string,
  families: readonly Family[],
): { readonly field: string; readonly sign: 1 | -1 | 0 } | null {
  if (word === 'at') return { field: 'x', sign: 0 };
  if (word === 'forward') return { field: 'x', sign: -1 };
  if (word === 'back') return { field: 'x', sign: 1 };
  if (word === 'up') return { field: 'height', sign: 1 };
  if (word === 'down') return { field: 'height', sign: -1 };
  const line = frontLineOf(unit);
  if ((word === 'left' || word === 'right') && line) return { field: 'front', sign: word === line.side ? 1 : -1 };
  const field = wordsOf(unit, families).find((candidate) => candidate.toLowerCase() === word);
  return field && !DIRECTIONS.some((direction) => direction === field) ? { field, sign: 0 } : null;
}

function unitCommand(unit: Unit, words: readonly string[], context: LineContext, speech: Speech): Understood {
  const [word = '', ...rest] = words;
  const unknown = (): Understood => trouble(speech.t('line.notUnderstood', { typed: [unit.name, ...words].join(' ') }));
  const families = context.families ?? FAMILIES;
  const family = familyNamed(families, unit.family);
  const move = moveOf(unit, word.toLowerCase(), families);
  const field = family && move && fieldNamed(family, move.field);
  if (!move || !field) return unknown();
  const typed = rest.join(' ');
  if (typed === '') return answer(speech.t('line.needs', { unit: unit.name, field: word }));
  const counted = field.kind === 'count';
  const read = counted
    ? /^\d+$/.test(typed)
      ? { ok: true as const, mm: Number(typed) }
      : null
    : parseLength(typed, speech.style.units);
  if (!read) return trouble(speech.t('line.notUnderstood', { typed }));
  if (!read.ok) return trouble(speech.said(read.error));
  const from = Number(field.get(unit));
  const to = move.sign === 0 ? read.mm : from + move.sign * read.mm;
  const show = (value: number): string => (counted ? String(value) : speech.lenUnit(value));
  const operation: Operation = { name: 'changeUnit', payload: { id: unit.id, changes: { [move.field]: to } } };
  const name = fieldLabel(family, move.field, speech).toLowerCase();
  return will(speech.t('line.set', { unit: unit.name, field: name, from: show(from), to: show(to) }), {
    kind: 'operations',
    operations: [operation],
  });
}

function why(question: string, context: LineContext, speech: Speech): Understood {
  const { derived, book } = context;
  const { shell, room, inner, depths } = derived ?? {};
  if (!QUESTIONS.some((known) => question !== '' && known.startsWith(question))) return answer(speech.t('why.unknown'));
  const known = QUESTIONS.find((candidate) => candidate.startsWith(question));
  if (known === 'cost' && derived)
    return answer(
      speech.t('why.cost', {
        total: formatMoney(derived.shopping.total, book.currency),
        lines: derived.shopping.lines.length,
        sheets: derived.plans
          .filter((plan) => plan.job.kind === 'sheet')
          .reduce((sum, plan) => sum + plan.plan.sheets.length, 0),
      }),
    );
  if (known === 'mass' && derived)
    return answer(speech.t('why.mass', { mass: derived.mass.total.toFixed(1), parts: derived.parts.length }));
  const { climate } = context.project.settings;
  if (known === 'warmth' && derived?.warmth)
    return answer(
      speech.t('why.warmth', {
        watts: Math.round(derived.warmth.watts),
        inside: climate.inside,
        outside: climate.outside,
        most: derived.warmth.of.reduce((most, next) => (next.watts > most.watts ? next : most)).id,
      }),
    );
  if (known === 'survey' && derived?.quality)
    return answer(
      speech.t('why.survey', {
        worst: speech.lenUnit(derived.quality.worst),
        side: derived.quality.at.surface,
        x: speech.lenUnit(derived.quality.at.x),
        z: speech.lenUnit(derived.quality.at.at),
        goal: speech.lenUnit(derived.quality.goal),
      }),
    );
  if (!shell || !inner || !room || !depths) return answer(speech.t('why.notYet'));
  const bareWidth = (x: number, z: number): number => halfWidth(shell, 'left', x, z) + halfWidth(shell, 'right', x, z);
  if (known === 'headroom')
    return answer(
      speech.t('why.headroom', {
        value: speech.lenUnit(room.standing.value),
        x: speech.lenUnit(room.standing.x),
        roof: speech.lenUnit(roofHeight(shell, room.standing.x, 0)),
        floor: speech.lenUnit(depths.floor.total),
        ceiling: speech.lenUnit(depths.ceiling.total),
      }),
    );
  if (known === 'width')
    return answer(
      speech.t('why.width', {
        value: speech.lenUnit(room.widthAtFloor.value),
        x: speech.lenUnit(room.widthAtFloor.x),
        bare: speech.lenUnit(bareWidth(room.widthAtFloor.x, inner.floor)),
        left: speech.lenUnit(depths.left.total),
        right: speech.lenUnit(depths.right.total),
      }),
    );
  return answer(
    speech.t('why.bed', {
      value: speech.lenUnit(room.widthAtBed.value),
      x: speech.lenUnit(room.widthAtBed.x),
      bare: speech.lenUnit(bareWidth(room.widthAtBed.x, inner.floor + 800)),
    }),
  );
}

/** `rule bed-length clear=1838 stature=1752`: values are lengths, or true and false. */
function askRule(words: readonly string[], speech: Speech): Understood {
  const [name = '', ...pairs] = words;
  const rule = ruleNamed(name);
  if (!rule) return trouble(speech.t('line.ruleUnknown', { name }));
  const input: Record<string, unknown> = {};
  for (const pair of pairs) {
    const [key = '', value = ''] = pair.split('=');
    const read = parseLength(value, speech.style.units);
    input[key] = read.ok ? read.mm : value;
  }
  const checked = rule.input.safeParse(input);
  if (!checked.success) {
    const issue = checked.error.issues[0];
    return trouble(
      speech.t('line.ruleInput', { name, place: issue?.path.join('.') || rule.formula, why: issue?.message ?? '' }),
    );
  }
  const result = rule.run(checked.data);
  const said =
    typeof result === 'object' && result !== null && 'said' in result
      ? speech.said(result.said as Parameters<Speech['said']>[0])
      : Object.entries(result as Record<string, unknown>)
          .map(
            ([key, value]) => `${key} ${typeof value === 'number' ? Math.round(value * 1000) / 1000 : String(value)}`,
          )
          .join(', ');
  return answer(speech.t('line.rule', { name: rule.title, answer: said }));
}

function reading(typed: string, context: LineContext, speech: Speech): Understood {
  if (!context.address) return answer(speech.t('line.noReadingHere'));
  const read = readValue(typed, context.address, speech);
  if (!read.ok) return trouble(speech.said(read.error));
  const place = parseAddress(context.address);
  const method = place && unitOf(place) === 'degrees' ? 'angle-finder' : 'tape';
  const operation: Operation = {
    name: 'takeReading',
    payload: { address: context.address, reading: { value: read.value, method, at: context.now } },
  };
  return will(
    speech.t('line.reading', {
      what: speech.said(describeAddress(context.project.survey, context.address)),
      value: valueTextUnit(read.value, context.address, speech),
    }),
    { kind: 'operations', operations: [operation] },
  );
}

/** The family a word speaks of: by the words of its name, or of what it is called in a sentence. */
function familyCalled(low: string, families: readonly Family[]): Family | null {
  return (
    families.find((family) => namesOf(family).includes(low)) ??
    families.find((family) => namesOf(family).some((name) => low.length > 2 && name.startsWith(low))) ??
    null
  );
}
const namesOf = ({ words: { noun, name, add } }: Family): string[] => [
  noun,
  ...noun.split('-'),
  ...name.toLowerCase().split(/\s+/),
  ...add.toLowerCase().split(/\s+/),
];

/** `add bench right 1400`: a new one of a family where it fits best, on a side, of a length, at a place. */
function addUnit(words: readonly string[], context: LineContext, speech: Speech): Understood {
  const families = context.families ?? FAMILIES;
  const [word = '', ...more] = words;
  const family = familyCalled(word, families);
  // `wash room` are two words of one name
  const named = family ? more.findIndex((own) => !namesOf(family).includes(own)) : 0;
  const rest = named < 0 ? [] : more.slice(named);
  if (word === '')
    return answer(speech.t('line.addWhat', { families: families.map(({ words: own }) => own.noun).join(', ') }));
  if (!family) return trouble(speech.t('line.addUnknown', { typed: word }));
  const { derived, project, book } = context;
  const scene = derived && sceneOf(project, derived, book, families);
  if (!scene) return answer(speech.t('why.notYet'));
  const side = rest.find((own) => own === 'left' || own === 'right') ?? null;
  const at = rest.indexOf('at');
  const read = (text: string): ReturnType<typeof parseLength> | null =>
    text === '' ? null : parseLength(text, speech.style.units);
  const length = read((at < 0 ? rest : rest.slice(0, at)).filter((own) => own !== side).join(' '));
  const place = at < 0 ? null : read(rest.slice(at + 1).join(' '));
  for (const one of [length, place]) if (one && !one.ok) return trouble(speech.said(one.error));
  const wanted = length?.ok ? length.mm : null;
  const from = place?.ok ? place.mm : null;
  const { id, number } = freeUnitId(project.layout.units, family.words.noun);
  const start = {
    id,
    name: number === 1 ? family.words.start : `${family.words.start} ${number}`,
    layout: project.layout,
    people: project.people,
    room: scene.inner,
    book,
  };
  const offers = gapsOf(scene)
    .filter((gap) => side === null || gap.where === side || gap.where === 'middle')
    .filter((gap) => wanted === null || gap.x1 - gap.x0 >= wanted - 0.5)
    .filter((gap) => from === null || (from >= gap.x0 - 0.5 && from + (wanted ?? 0) <= gap.x1 + 0.5))
    .flatMap((gap) => offeredIn(family, gap, start, scene) ?? [])
    .sort((a, b) => b.fits - a.fits);
  const best = offers[0]?.unit ?? (wanted === null && side === null ? family.start(start) : null);
  if (!best) return trouble(speech.t(family.inGap ? 'line.addNoRoom' : 'line.addPlain', { what: family.words.name }));
  const unit: Unit = {
    ...best,
    body: { ...best.body, ...(wanted === null ? {} : { length: wanted }), ...(from === null ? {} : { x: from }) },
  };
  return will(
    speech.t('line.add', { what: unit.name, x: speech.lenUnit(unit.body.x), length: speech.lenUnit(unit.body.length) }),
    { kind: 'operations', operations: [{ name: 'placeUnit', payload: { unit } }] },
  );
}

/** `lay wool at 1500 left 200 across`: an animal at a place on the floor; where there is room, while no place is said. */
function layPet(words: readonly string[], context: LineContext, speech: Speech): Understood {
  const { derived, project, book } = context;
  const pets = project.pets ?? [];
  const [word = '', ...rest] = words;
  const pet = pets.find(({ name }) => word !== '' && name.toLowerCase().startsWith(word));
  if (!pet)
    return pets.length === 0
      ? trouble(speech.t('line.layNone'))
      : answer(speech.t('line.layWhom', { names: pets.map(({ name }) => name).join(', ') }));
  const scene = derived && sceneOf(project, derived, book, context.families ?? FAMILIES);
  if (!scene) return answer(speech.t('why.notYet'));
  const turned = rest.at(-1) === 'across';
  const told = (turned || rest.at(-1) === 'along' ? rest.slice(0, -1) : rest).filter((own) => own !== 'at');
  const side = told.findIndex((own) => own === 'left' || own === 'right');
  const read = (text: string): ReturnType<typeof parseLength> | null =>
    text === '' ? null : parseLength(text, speech.style.units);
  const [x, y] = [
    read((side < 0 ? told : told.slice(0, side)).join(' ')),
    read(side < 0 ? '' : told.slice(side + 1).join(' ')),
  ];
  for (const one of [x, y]) if (one && !one.ok) return trouble(speech.said(one.error));
  const at = x?.ok
    ? { x: x.mm, y: y?.ok ? (told[side] === 'left' ? -y.mm : y.mm) : 0, turned }
    : nearestDen(pet, [(scene.inner.start + scene.inner.length) / 2, 0], scene);
  if (!at || !('x' in at)) return trouble(speech.t('pets.noRoom', { name: pet.name }));
  return will(
    speech.t(at.turned ? 'line.layAcross' : 'line.layAlong', {
      who: pet.name,
      x: speech.lenUnit(at.x),
      y: speech.lenUnit(Math.abs(at.y)),
      side: speech.t(at.y < 0 ? 'common.left' : 'common.right'),
    }),
    { kind: 'operations', operations: [{ name: 'layPet', payload: { pet: pet.id, at } }] },
  );
}

/** Says what a line means, before Enter. Null for an empty line. It never throws, whatever is typed. */
export function understand(typed: string, context: LineContext, speech: Speech): Understood | null {
  const words = typed.trim().split(/\s+/).filter(Boolean);
  const [first = '', ...rest] = words;
  const low = first.toLowerCase();
  if (first === '') return null;
  if (/^[-+(\d.½¼¾⅛⅜⅝⅞]/.test(first) && context.stage === 'measure') return reading(typed, context, speech);
  if (low === 'undo' || low === 'redo') {
    const name = low === 'undo' ? context.undoName : context.redoName;
    return name === null
      ? trouble(speech.t('line.nothing', { what: low }))
      : will(speech.t(`line.${low}`, { what: name }), { kind: low });
  }
  if (low === 'why') return why(rest.join(' ').toLowerCase(), context, speech);
  if (low === 'rule') return askRule(rest, speech);
  if (low === 'add')
    return addUnit(
      rest.map((word) => word.toLowerCase()),
      context,
      speech,
    );
  if (low === 'lay')
    return layPet(
      rest.map((word) => word.toLowerCase()),
      context,
      speech,
    );
  if (low === 'slice' && rest.length > 0) {
    const read = parseLength(rest.join(' '), speech.style.units);
    return read.ok
      ? will(speech.t('line.slice', { x: speech.lenUnit(read.mm) }), { kind: 'slice', x: read.mm })
      : trouble(speech.said(read.error));
  }
  const stage =
    STAGES.find((candidate) => candidate === low) ??
    (low === 'go' ? STAGES.find((candidate) => candidate === rest[0]?.toLowerCase()) : undefined);
  if (stage) return will(speech.t('line.go', { stage: speech.t(`stage.${stage}`) }), { kind: 'go', stage });
  const unit = unitCalled(first, context.project);
  if (unit && rest.length > 0) return unitCommand(unit, rest, context, speech);
  if (unit)
    return answer(
      speech.t('line.needs', {
        unit: unit.name,
        field: wordsOf(unit, context.families ?? FAMILIES).join(', '),
      }),
    );
  return trouble(speech.t('line.notUnderstood', { typed: typed.trim() }));
}

/** What the word being typed could become. */
export function completions(typed: string, project: Project, families: readonly Family[] = FAMILIES): string[] {
  const words = typed.trimStart().split(/\s+/);
  const last = (words.at(-1) ?? '').toLowerCase();
  if (last === '' && words.length < 2) return [];
  const stem = words.slice(0, -1).join(' ');
  const unit = words.length > 1 ? unitCalled(words[0] ?? '', project) : null;
  const choices =
    words.length === 1
      ? [
          ...project.layout.units.map((u) => u.name.split(/\s+/)[0]?.toLowerCase() ?? u.id),
          ...STAGES,
          'add',
          ...((project.pets ?? []).length > 0 ? ['lay'] : []),
          'slice',
          'why',
          'rule',
          'undo',
          'redo',
        ]
      : words.length === 2 && words[0] === 'why'
        ? QUESTIONS
        : words.length === 2 && words[0] === 'add'
          ? families.map((family) => family.words.noun)
          : words.length === 2 && words[0] === 'lay'
            ? (project.pets ?? []).map(({ name }) => name.toLowerCase())
            : words.length === 2 && unit
              ? wordsOf(unit, families)
              : [];
  return [...new Set(choices)]
    .filter((choice) => choice.toLowerCase().startsWith(last) && choice.toLowerCase() !== last)
    .slice(0, 6)
    .map((choice) => (stem === '' ? choice : `${stem} ${choice}`));
}
