import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import {
  derive,
  knockOnOf,
  layoutDifferences,
  layoutFigures,
  mendAll,
  sceneOf,
  suggestSearch,
  type Suggested,
  wishesSchema,
  takeProposal,
} from '@nestplank/core/derive';
import type { ProjectFile } from '@nestplank/core/document';
import { applyOperation, FAMILIES, freeUnitId, type Family, type Start } from '@nestplank/core/furniture';
import { projectFileText, readJson } from '@nestplank/core/formats';
import { gapsOf, offersIn, stepsBetween } from '@nestplank/core/layout';
import { CommandFailure } from './failure.js';
import { openProject, print, read, save, speaker } from './files.js';

const tenth = (value: number): number => Math.round(value * 10) / 10;
const thousandth = (value: number): number => Math.round(value * 1000) / 1000;
const known = (value: number | null): number | null => (value === null ? null : tenth(value));
/** Figures as they are told: no finer than they can be meant. */
const rounded = (_key: string, value: unknown): unknown => (typeof value === 'number' ? thousandth(value) : value);
const json = (value: unknown): void => print(JSON.stringify(value, rounded, 1));

/** The scene of a project. @throws CommandFailure where nothing is measured yet */
function seen(path: string) {
  const { project, priceBook } = openProject(path);
  const derived = derive(project, priceBook);
  const scene = sceneOf(project, derived, priceBook, FAMILIES);
  if (!scene) throw new CommandFailure(1, `${path}: not enough is measured for a room to stand things in.`);
  return { project, priceBook, derived, scene };
}

/** Free stretches with what fits there, best first. */
export function gapsCommand(path: string): void {
  const { project, priceBook, scene } = seen(path);
  const start = (family: Family): Start => {
    const { id } = freeUnitId(project.layout.units, family.words.noun);
    return {
      id,
      name: family.words.start,
      layout: project.layout,
      people: project.people,
      room: scene.inner,
      book: priceBook,
    };
  };
  json(
    gapsOf(scene).map((gap) => ({
      where: gap.where,
      zone: gap.zone,
      from: tenth(gap.x0),
      to: tenth(gap.x1),
      length: tenth(gap.x1 - gap.x0),
      height: tenth(gap.z1 - gap.z0),
      deep: tenth(gap.deep),
      fits: offersIn(gap, FAMILIES, start, scene).map(({ family, unit, fits }) => ({
        family: family.id,
        length: tenth(unit.body.length),
        fits: Math.round(fits * 100) / 100,
      })),
    })),
  );
}

/** Every mend that together leaves nothing failing; the mended project where a file is named. */
export function mendCommand(path: string, options: { output?: string }): void {
  const { project, priceBook } = openProject(path);
  const mended = mendAll(project, priceBook);
  const told = speaker(project);
  if (options.output !== undefined) save(options.output, projectFileText(mended.project, priceBook));
  json({
    changed: mended.done.map(({ check, said }) => ({ because: told(check.said), done: told(said) })),
    left: mended.left.map(({ id, said }) => ({ id, said: told(said) })),
    operations: mended.operations,
    tried: mended.tried,
  });
  if (mended.left.length > 0) throw new CommandFailure(1, `${path}: ${mended.left.length} still fail.`);
}

/** What each mode leaves free, and what moves from each to the next. */
export function modesCommand(path: string): void {
  const { project, derived, scene } = seen(path);
  const told = speaker(project);
  const modes = derived.modes;
  json(
    modes.map(({ mode, floor, standing, way, with: others }, i) => {
      const next = modes[(i + 1) % modes.length]?.mode;
      return {
        id: mode.id,
        name: mode.name,
        use: mode.use,
        floorM2: Math.round(floor * 100) / 100,
        standing: tenth(standing),
        way: way === null ? null : tenth(way),
        with: others,
        then:
          next === undefined || next === mode
            ? null
            : {
                mode: next.id,
                steps: stepsBetween(scene, mode.states, next.states).map((step) => ({
                  what: told(step.name),
                  from: step.from,
                  to: step.to,
                  hands: step.hands,
                  seconds: step.seconds,
                  meets: step.meets,
                })),
              },
      };
    }),
  );
}

/** What everything weighs and where. */
export function weighCommand(path: string): void {
  const { project, derived } = seen(path);
  const { weight, mass } = derived;
  json({
    added: tenth(weight.added),
    mattressesAndCushions: tenth(weight.soft),
    left: tenth(weight.left),
    right: tenth(weight.right),
    centre: weight.centre?.map(tenth) ?? null,
    total: known(weight.total),
    front: known(weight.front),
    rear: known(weight.rear),
    // only a trailer rests on a coupling
    noseShare: project.vehicle.kind === 'trailer' && weight.nose !== null ? thousandth(weight.nose) : null,
    emptyTanks: { total: known(weight.empty.total), front: known(weight.empty.front), rear: known(weight.empty.rear) },
    limits: project.limits ?? null,
    withoutDensity: mass.unknown,
    caution: 'Weigh it on a public weighbridge; limits are those of the registration papers.',
  });
}

/** Two layouts of one vehicle, or two vehicles, by their figures. */
export function compareCommand(one: string, other: string): void {
  const [a, b] = [openProject(one), openProject(other)];
  const of = ({ project, priceBook }: ProjectFile) => derive(project, priceBook);
  const [before, after] = [of(a), of(b)];
  const told = speaker(b.project);
  const touches = knockOnOf(a.project, before, after);
  json({
    figures: [
      layoutFigures(a.project, before, { families: FAMILIES }, a.priceBook),
      layoutFigures(b.project, after, { families: FAMILIES }, b.priceBook),
    ],
    differences: layoutDifferences(a.project.layout.units, b.project.layout.units).map(told),
    touches: { ...touches, buys: touches.buys.map(({ size, ...buy }) => ({ ...buy, size: told(size) })) },
  });
}

/** No search builds more arrangements. */
const MOST_STEPS = 5000;

/** Arrangements of what has to be in, each as a project of its own. */
export function suggestCommand(
  path: string,
  wishesPath: string,
  options: { seconds: number; seed: number; output: string },
): void {
  const { project, priceBook } = openProject(path);
  const wishes = wishesSchema.safeParse(read(wishesPath, readJson));
  if (!wishes.success) {
    const issue = wishes.error.issues[0];
    throw new CommandFailure(2, `${wishesPath}: ${issue?.path.join('.') ?? ''}: ${issue?.message ?? ''}`);
  }
  const unknown = wishes.data.must.find((id) => !FAMILIES.some((family) => family.id === id));
  if (unknown !== undefined)
    throw new CommandFailure(
      2,
      `${wishesPath}: must: there is no “${unknown}”; there are ${FAMILIES.map(({ id }) => id).join(', ')}.`,
    );
  const missing = wishes.data.things.find((id) => !(project.things ?? []).some((thing) => thing.id === id));
  if (missing !== undefined)
    throw new CommandFailure(2, `${wishesPath}: things: the project has no thing called “${missing}”.`);
  const until = performance.now() + options.seconds * 1000;
  let found: Suggested = { proposals: [], tried: 0, lost: [] };
  for (const told of suggestSearch(project, priceBook, wishes.data, { seed: options.seed, steps: MOST_STEPS })) {
    found = told;
    if (performance.now() > until) break;
  }
  mkdirSync(options.output, { recursive: true });
  const told = speaker(project);
  found.proposals.forEach(({ layout }, i) =>
    save(
      join(options.output, `${project.id}-${i + 1}.json`),
      projectFileText(
        takeProposal(project, layout).reduce(
          (taken, operation) => applyOperation(taken, operation, priceBook).project,
          project,
        ),
        priceBook,
      ),
    ),
  );
  json({
    tried: found.tried,
    lost: found.lost.map(({ rule, said, count }) => ({ rule, said: told(said), count })),
    proposals: found.proposals.map(({ figures, score, without, gaveUp }, i) => ({
      file: `${project.id}-${i + 1}.json`,
      without: without.map(told),
      score: Math.round(score * 1000) / 1000,
      figures,
      gaveUp: gaveUp.map(told),
    })),
  });
  if (found.proposals.length === 0)
    throw new CommandFailure(1, 'Nothing was found in which all of it stands without a failing rule.');
}
