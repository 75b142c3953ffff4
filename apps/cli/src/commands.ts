import { mkdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { z } from 'zod';
import { createDeriver, derive, worsenedBy } from '@nestplank/core/derive';
import { createProject, describeAddress, OperationError, valueAt } from '@nestplank/core/document';
import { applyOperation } from '@nestplank/core/furniture';
import { ruleNamed, RULES } from '@nestplank/core/layout';
import { floorCards, floorOutlines } from '@nestplank/core/layout';
import { templateParts } from '@nestplank/core/lining';
import { startPriceBook } from '@nestplank/core/materials';
import { sheetLetter } from '@nestplank/core/plan';
import { halfWidth, roofHeight, type Shell, wallTop } from '@nestplank/core/shell';
import { PLAIN_VOICE, say } from '@nestplank/core/words';
import { loadProgram, solveJob, type CutPlan } from '@nestplank/core/cutting';
import { projectFileText, readCutJob, readJson, readOperations, reportOf } from '@nestplank/core/formats';
import { CommandFailure } from './failure.js';
import { load, openProject, print, put, read, save, speaker } from './files.js';

/** Searches shorter than this do without the program solver. */
const SECONDS_FOR_PROGRAM = 0.5;
export function reportCommand(path: string): void {
  const { project, priceBook } = openProject(path);
  print(JSON.stringify(reportOf(project, priceBook, derive(project, priceBook)), null, 1));
}

/** What a project is held against, by what can be asked for alone. */
export const CHECKED = ['rules', 'problems', 'closures', 'slips'] as const;

export function checkCommand(path: string, options: { only?: string } = {}): void {
  const only = options.only?.split(',').map((name) => name.trim());
  const unknown = only?.find((name) => !CHECKED.some((known) => known === name));
  if (unknown !== undefined) throw new CommandFailure(2, `“${unknown}” is none of ${CHECKED.join(', ')}.`);
  const wanted = (name: (typeof CHECKED)[number]): boolean => only === undefined || only.includes(name);
  const { project, priceBook } = openProject(path);
  const derived = derive(project, priceBook);
  const told = speaker(project);
  const deriver = createDeriver();
  const mended = ({ id, mends: [mend] }: (typeof derived.checks)[number]): string => {
    if (!mend) return '';
    const worse = worsenedBy(project, priceBook, mend.operations, id, deriver).map(({ said }) => told(said));
    return ` ${told(mend.said)}.${worse.length > 0 ? ` But then: ${worse.slice(0, 3).join(' ')}` : ''}`;
  };
  const lines = [
    ...(wanted('problems') ? derived.problems.map(({ stage, said }) => `${stage}: ${told(said)}`) : []),
    ...(wanted('rules')
      ? derived.checks
          .filter(({ grade, aside }) => grade === 'fails' && aside === null)
          .map((check) => `${check.rule}: ${told(check.said)}${mended(check)}`)
      : []),
    ...(wanted('closures')
      ? derived.closures
          .filter(({ verdict }) => verdict === 'fails')
          .map(({ what, said }) => `closure: ${say(what)}: ${say(said)}`)
      : []),
    ...(wanted('slips')
      ? derived.outliers.map(
          ({ address, value, expected, slip }) =>
            `slip: ${say(describeAddress(project.survey, address))}: ${value}, the others say ${expected.value.toFixed(0)}${slip ? `; ${say(slip)}` : ''}`,
        )
      : []),
  ];
  for (const line of lines) print(line);
  const held =
    (wanted('problems') ? derived.problems.length : 0) +
    (wanted('rules') ? derived.checks.length : 0) +
    (wanted('closures') ? derived.closures.length : 0) +
    (wanted('slips') ? derived.outliers.length : 0);
  if (lines.length > 0) throw new CommandFailure(1, `${lines.length} of ${held} checks fail.`);
  print(`${held} checks, none fails.`);
  // what is good without it may be good by accident
  if (only === undefined) for (const { said } of derived.missing) print(`not known: ${say(said)}`);
}

const KINDS = ['van', 'bus', 'trailer'] as const;

/** Writes a new project with the readings that a first survey of its kind asks for, and the prices everybody starts with. */
export function newCommand(options: { output: string; kind: string; name: string; units: string }): void {
  const kind = KINDS.find((known) => known === options.kind);
  if (!kind) throw new CommandFailure(2, `“${options.kind}” is none of ${KINDS.join(', ')}.`);
  const { units, name } = options;
  if (units !== 'mm' && units !== 'in') throw new CommandFailure(2, `“${units}” is neither mm nor in.`);
  const id = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  if (id === '') throw new CommandFailure(2, `“${name}” has no letter or figure in it.`);
  const startDate = new Date().toISOString().slice(0, 10);
  const project = createProject({ id, name: name.trim(), kind, model: '', units, startDate });
  save(options.output, projectFileText(project, startPriceBook()));
}

/** The places of the walk in their order: where, what is to be read, what was. */
export function walkCommand(path: string): void {
  const { project, priceBook } = openProject(path);
  const { walk } = derive(project, priceBook);
  const { survey } = project;
  print(
    JSON.stringify(
      walk.map((address) => ({
        address,
        said: say(describeAddress(survey, address)),
        taken: valueAt(survey, address),
        skipped: survey.skipped.includes(address),
      })),
      null,
      1,
    ),
  );
}

/** The reading that would help most, and by how much; null once the survey is as good as it is to be. */
export function nextCommand(path: string): void {
  const { project, priceBook } = openProject(path);
  const { quality } = derive(project, priceBook);
  const next = quality?.next ?? null;
  print(
    JSON.stringify(
      {
        worst: quality?.worst ?? null,
        goal: project.survey.goal,
        good: quality?.good ?? false,
        next: next && {
          station: next.station,
          readings: next.addresses.map((address) => ({
            address,
            said: next.station ? null : say(describeAddress(project.survey, address)),
          })),
          before: next.before,
          after: next.after,
        },
      },
      null,
      1,
    ),
  );
}

/** A section every so far up and across, mm. */
const SECTION_MM = 10;

/** The section of the vehicle at one place: bare and inside the linings. */
export function sectionCommand(path: string, options: { x: number }): void {
  const { project, priceBook } = openProject(path);
  const { shell, inner } = derive(project, priceBook);
  const { x } = options;
  const sectionOf = (room: Shell | null) => {
    if (room === null) return null;
    if (x < room.start || x > room.length)
      throw new CommandFailure(
        2,
        `x ${x} lies outside the vehicle, which reaches from ${room.start} to ${room.length}.`,
      );
    const steps = (from: number, to: number): number[] => [
      ...Array.from({ length: Math.ceil((to - from) / SECTION_MM) }, (_, i) => from + i * SECTION_MM),
      to,
    ];
    const wall = (side: 'left' | 'right') =>
      steps(room.floor, wallTop(room, side, x)).map((z) => [z, halfWidth(room, side, x, z)]);
    const reach = (side: 'left' | 'right'): number => halfWidth(room, side, x, wallTop(room, side, x));
    return {
      floor: room.floor,
      left: wall('left'),
      right: wall('right'),
      roof: steps(-reach('left'), reach('right')).map((y) => [y, roofHeight(room, x, y)]),
    };
  };
  print(JSON.stringify({ x, bare: sectionOf(shell), net: sectionOf(inner) }, null, 1));
}

/** What would let a part that is too large be cut. */
const WAYS_OUT: Readonly<Record<CutPlan['unplaced'][number]['why'], string>> = {
  turn: 'it would fit turned: let it turn against the grain',
  longer: 'it is longer than any stock: take longer stock or join it from two',
  wider: 'it is wider than any stock: take wider stock or join it from two',
  both: 'it is longer and wider than any stock: take larger stock or join it',
  stock: 'there is not enough stock',
};

export async function cutCommand(
  path: string,
  options: { output?: string; seconds: number; seed: number },
): Promise<void> {
  const started = performance.now();
  const seconds = (): number => (performance.now() - started) / 1000;
  const job = read(path, readCutJob);
  // loading the program solver takes a moment, which a short search has better use for
  const program = options.seconds >= SECONDS_FOR_PROGRAM ? await loadProgram() : undefined;
  const plan = solveJob(
    job,
    { seed: options.seed, steps: Number.MAX_SAFE_INTEGER, program },
    () => seconds() >= options.seconds,
  );
  put(options.output, `${JSON.stringify({ ...plan, seconds: Math.round(seconds() * 1000) / 1000 }, null, 1)}\n`);
  const tooLarge = plan.unplaced.filter(({ why }) => why !== 'stock');
  const lines = plan.unplaced.map(
    ({ part, quantity, why }) => `${path}: ${quantity} of “${part}” left out: ${WAYS_OUT[why]}.`,
  );
  if (lines.length > 0) throw new CommandFailure(tooLarge.length > 0 ? 2 : 1, lines.join('\n'));
}

const BATTENS: ReadonlySet<string> = new Set(['floor-batten', 'wall-batten', 'noggin', 'packer', 'arch-rail']);

/** A font file as it ships with the program. */
function font(weight: 400 | 700): Uint8Array {
  return readFileSync(
    createRequire(import.meta.url).resolve(
      `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
    ),
  );
}

export async function exportCommand(
  path: string,
  options: { as: string; output: string; mode?: string },
): Promise<void> {
  const { project, priceBook } = openProject(path);
  const into = (name: string, content: string | Uint8Array): void => save(join(options.output, name), content);
  const folder = (): void => void mkdirSync(options.output, { recursive: true });
  const derived = derive(project, priceBook);
  const {
    cutDiagramsPdf,
    cutListCsv,
    labelsPdf,
    partDxf,
    partDxfR12,
    partSvg,
    scheduleIcs,
    sheetDxf,
    sheetDxfR12,
    sheetSvg,
    shoppingPdf,
    surveySheetPdf,
    TEMPLATE_PAGES,
    templatePages,
    templatePdf,
  } = await import('@nestplank/core/export');
  switch (options.as) {
    case 'json':
      folder();
      return into(`${project.id}.json`, projectFileText(project, priceBook));
    case 'csv':
      folder();
      return into(`${project.id}-cut-list.csv`, cutListCsv(derived.parts, project, priceBook));
    case 'dxf':
    case 'svg':
      folder();
      for (const part of derived.parts)
        into(`${part.id}.${options.as}`, options.as === 'dxf' ? partDxf(part) : partSvg(part));
      return;
    case 'dxf-r12':
      folder();
      for (const part of derived.parts) into(`${part.id}.dxf`, partDxfR12(part));
      for (const { material, sheets } of derived.plans)
        sheets.forEach((sheet, i) => into(`${material.id}-${sheetLetter(i)}.dxf`, sheetDxfR12(sheet, derived.parts)));
      return;
    case 'sheets':
      folder();
      for (const { material, sheets } of derived.plans)
        sheets.forEach((sheet, i) => {
          into(`${material.id}-${sheetLetter(i)}.dxf`, sheetDxf(sheet, derived.parts));
          into(`${material.id}-${sheetLetter(i)}.svg`, sheetSvg(sheet, derived.parts));
        });
      return;
    case 'labels':
      folder();
      return into(
        `${project.id}-labels.pdf`,
        await labelsPdf(project, derived.parts, (part) => part.id, priceBook, { regular: font(400), bold: font(700) }),
      );
    case 'ics': {
      const { units, fraction } = project.settings;
      folder();
      return into(
        `${project.id}-days.ics`,
        scheduleIcs(project, derived.schedule, project.settings.startDate, {
          ...PLAIN_VOICE,
          lengths: { units, fraction },
        }),
      );
    }
    case 'shopping':
      folder();
      return into(
        `${project.id}-to-buy.pdf`,
        await shoppingPdf(project, derived.shopping, priceBook, { regular: font(400), bold: font(700) }),
      );
    case 'templates': {
      folder();
      const room = derived.inner ?? derived.shell;
      // a batten is marked with a tape, not with paper
      for (const part of [
        ...templateParts(derived).filter((candidate) => !BATTENS.has(candidate.role)),
        ...(room ? floorCards(floorOutlines(project.layout.units, room)) : []),
      ]) {
        const pages = templatePages(part, 'a4');
        if (pages > TEMPLATE_PAGES.most) {
          process.stderr.write(`${part.id}: ${pages} pages, no more than ${TEMPLATE_PAGES.most} are made: left out\n`);
          continue;
        }
        into(
          `${part.id}-template.pdf`,
          await templatePdf(project, part, derived.parts, 'a4', { regular: font(400), bold: font(700) }),
        );
      }
      return;
    }
    case 'pdf':
      folder();
      return into(
        `${project.id}-cut-diagrams.pdf`,
        await cutDiagramsPdf(
          project,
          derived.plans,
          derived.parts,
          priceBook,
          { regular: font(400), bold: font(700) },
          derived.floor.finish,
        ),
      );
    case 'gltf': {
      const modes = project.layout.modes ?? [];
      const mode = modes.find(({ id, name }) => id === options.mode || name === options.mode);
      if (options.mode !== undefined && !mode)
        throw new CommandFailure(
          2,
          `--mode ${options.mode}: ${modes.length === 0 ? 'it has no modes' : `it has ${modes.map(({ name }) => name).join(', ')}`}.`,
        );
      const room = derived.inner ?? derived.shell;
      if (!room) throw new CommandFailure(2, `${path}: there is no room before its first section is measured.`);
      folder();
      const { roomFile } = await import('./room-file.js');
      return into(
        `${project.id}.glb`,
        await roomFile({ project, book: priceBook, shape: derived, derived, room }, mode?.states ?? {}),
      );
    }
    case 'readings': {
      folder();
      const { readingsCsv } = await import('@nestplank/core/exchange');
      return into(`${project.id}-readings.csv`, readingsCsv(project.survey, derived.walk));
    }
    case 'survey':
      folder();
      return into(
        `${project.id}-survey-sheet.pdf`,
        await surveySheetPdf(project, { regular: font(400), bold: font(700) }),
      );
    default:
      throw new CommandFailure(
        2,
        `--as ${options.as}: json, csv, dxf, dxf-r12, svg, pdf, gltf, labels, sheets, templates, shopping, ics, readings and survey can be written.`,
      );
  }
}

/** A price book out as CSV; or materials of a CSV taken into it, in a new file. */
export async function bookCommand(path: string, options: { take?: string; output?: string }): Promise<void> {
  const { project, priceBook } = openProject(path);
  const { bookCsv, readBookCsv, withMaterials } = await import('@nestplank/core/exchange');
  if (options.take === undefined) return put(options.output, bookCsv(priceBook));
  const { take } = options;
  const read = readBookCsv(load(take), priceBook, new Date().toISOString().slice(0, 10));
  if (read.fault) throw new CommandFailure(2, `${take}: ${say(read.fault)}`);
  put(options.output, projectFileText(project, withMaterials(priceBook, read.items)));
  rowsLeftOut(take, read);
}

/** Rows of a file that were not taken end a command with what is wrong with each. */
function rowsLeftOut(
  path: string,
  { problems }: { readonly problems: readonly { readonly row: number; readonly said: Parameters<typeof say>[0] }[] },
): void {
  if (problems.length > 0)
    throw new CommandFailure(1, problems.map(({ row, said }) => `${path}: row ${row}: ${say(said)}`).join('\n'));
}

/** Readings of a CSV taken into a project, in a new file. */
async function importReadings(path: string, csv: string, output: string | undefined): Promise<void> {
  const { project, priceBook } = openProject(path);
  const { readReadingsCsv } = await import('@nestplank/core/exchange');
  const { survey, settings } = project;
  const read = readReadingsCsv(load(csv), survey, settings.units, new Date().toISOString());
  if (read.fault) throw new CommandFailure(2, `${csv}: ${say(read.fault)}`);
  const taken =
    read.payload.readings.length > 0
      ? applyOperation(project, { name: 'takeReadings', payload: read.payload }, priceBook).project
      : project;
  put(output, projectFileText(taken, priceBook));
  rowsLeftOut(csv, read);
}

export function importCommand(
  path: string,
  options: { readings?: string; output?: string } = {},
): Promise<void> | void {
  if (options.readings !== undefined) return importReadings(path, options.readings, options.output);
  const { project, priceBook } = openProject(path);
  print(
    JSON.stringify({
      id: project.id,
      name: project.name,
      vehicle: project.vehicle,
      readings: Object.keys(project.survey.readings).length,
      units: project.layout.units.length,
      prices: priceBook.items.length,
    }),
  );
}

export function applyCommand(path: string, operationsPath: string, options: { output?: string }): void {
  const { project, priceBook } = openProject(path);
  const operations = read(operationsPath, readOperations);
  let next = project;
  operations.forEach((operation, i) => {
    try {
      next = applyOperation(next, operation, priceBook).project;
    } catch (problem) {
      if (problem instanceof OperationError)
        throw new CommandFailure(2, `${operationsPath}: [${i}] ${operation.name}: ${say(problem.said)}`);
      throw problem;
    }
  });
  put(options.output, projectFileText(next, priceBook));
}

export function rulesCommand(): void {
  print(
    JSON.stringify(
      RULES.map(({ name, title, formula, reason, input }) => ({
        name,
        title,
        formula,
        reason,
        inputs: z.toJSONSchema(input, { io: 'input' }),
      })),
      null,
      1,
    ),
  );
}

export function ruleCommand(name: string, inputPath: string): void {
  const rule = ruleNamed(name);
  if (!rule) throw new CommandFailure(2, `There is no rule named “${name}”. plank rules lists them.`);
  const raw = read(inputPath, readJson);
  const input = rule.input.safeParse(raw);
  if (!input.success)
    throw new CommandFailure(
      2,
      `${inputPath}: ${input.error.issues[0]?.path.join('.') ?? ''}: ${input.error.issues[0]?.message ?? ''}`,
    );
  const result = rule.run(input.data);
  const said =
    typeof result === 'object' && result !== null && 'said' in result
      ? { ...result, said: say(result.said as Parameters<typeof say>[0]) }
      : result;
  print(JSON.stringify(said, null, 1));
}
