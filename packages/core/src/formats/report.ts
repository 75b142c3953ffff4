import { wishesStand } from '../layout/wishes.js';
import { blankOf, partMass } from '../parts/part.js';
import { ribShares } from '../shell/ribs.js';
import { surfaceU } from '../layers/warmth.js';
import type { Derived } from '../derive/derived.js';
import type { PriceBook, Project } from '../document/schema.js';
import { PLAIN_VOICE, say, type Voice } from '../words/say.js';
import { spoken, type Spoken } from './spoken.js';

const tenth = (value: number): number => Math.round(value * 10) / 10;

/** Texts in the project's own units and with its units' names. */
const voiceOf = ({ settings, layout }: Project): Voice => ({
  ...PLAIN_VOICE,
  lengths: { units: settings.units, fraction: settings.fraction },
  units: (id) => layout.units.find((unit) => unit.id === id)?.name ?? null,
});

/**
 * Everything derived, as one plain object for scripts. Figures: lengths in mm, mass in kg, money in minor units; texts are
 * said in the project's own units.
 */
export function reportOf(project: Project, book: PriceBook, derived: Derived, voice: Voice = voiceOf(project)) {
  const told = (value: unknown): Spoken => spoken(value, voice);
  const round = (figures: Derived['room']) =>
    figures && {
      length: figures.length,
      standing: { value: tenth(figures.standing.value), x: tenth(figures.standing.x) },
      widthAtFloor: { value: tenth(figures.widthAtFloor.value), x: tenth(figures.widthAtFloor.x) },
      widthAtBelly: { value: tenth(figures.widthAtBelly.value), x: tenth(figures.widthAtBelly.x) },
      widthAtBed: { value: tenth(figures.widthAtBed.value), x: tenth(figures.widthAtBed.x) },
      areas: figures.areas,
    };
  const shares = ribShares(derived.ribs, derived.shell);
  return {
    project: { id: project.id, name: project.name, vehicle: project.vehicle },
    survey: {
      taken: derived.progress.taken,
      total: derived.progress.total,
      next: derived.progress.next,
      closures: derived.closures.map((c) => ({
        what: say(c.what, voice),
        said: say(c.said, voice),
        error: tenth(c.error),
        verdict: c.verdict,
      })),
      outliers: derived.outliers.map((o) => ({
        address: o.address,
        value: o.value,
        expected: tenth(o.expected.value),
        slip: o.slip && say(o.slip, voice),
      })),
      assumed: derived.assumed.map((m) => say(m, voice)),
      quality: derived.quality && {
        worst: tenth(derived.quality.worst),
        goal: derived.quality.goal,
        within: derived.quality.within,
        worth: derived.quality.worth,
        next: derived.quality.next?.addresses ?? [],
      },
    },
    problems: derived.problems.map((p) => ({ stage: p.stage, place: p.place, said: say(p.said, voice) })),
    missing: derived.missing.map(({ topic, stages, said }) => ({ topic, stages, said: say(said, voice) })),
    shell: round(derived.bareRoom),
    layers: Object.entries(derived.depths).flatMap(([surface, depth]) =>
      depth === undefined || depth.layers.length === 0
        ? []
        : [
            {
              surface,
              takes: tenth(depth.total),
              wattsPerSquareMetreKelvin: surfaceU(depth, shares, project.settings.floorBattens.spacing),
              of: depth.layers.map(({ layer, thickness, takes }) => ({
                material: layer.material,
                place: layer.place,
                thickness,
                takes: tenth(takes),
              })),
            },
          ],
    ),
    areas: told(derived.areas),
    left: told(derived.left),
    ribs: told(derived.ribs),
    room: round(derived.room),
    warmth: derived.warmth && {
      watts: tenth(derived.warmth.watts),
      of: derived.warmth.of,
      unknown: derived.warmth.unknown,
    },
    reveals: derived.reveals.map((reveal) => ({
      opening: reveal.opening.id,
      corners: reveal.corners,
      boards: reveal.boards,
      packers: reveal.packers,
    })),
    fixings: derived.fixings,
    floorBattens: derived.floorBattens,
    linings: told(derived.lined.linings),
    windowBoxes: told(derived.lined.windowBoxes),
    archBoxes: told(derived.lined.archBoxes),
    headers: told(derived.lined.headers),
    corners: told(derived.lined.corners),
    doorLinings: told(derived.lined.doors),
    boxesHeld: told(derived.lined.boxesHeld),
    curtains: told(derived.lined.curtains),
    floor: told({ ...derived.floor, thresholds: undefined }),
    warnings: derived.warnings.map((warning) => ({ surface: warning.surface, said: say(warning.said, voice) })),
    cavities: derived.cavities.map(({ surface, count, width, front, rear, area }) => ({
      surface,
      count,
      width: tenth(width),
      front: tenth(front),
      rear: tenth(rear),
      area: Math.round(area),
    })),
    checks: derived.checks.map((c) => ({
      id: c.id,
      rule: c.rule,
      grade: c.grade,
      said: say(c.said, voice),
      spare: c.spare === null ? null : tenth(c.spare),
      mends: c.mends.map((mend) => say(mend.said, voice)),
      aside: c.aside,
    })),
    runs: derived.runs.placed.map(({ run, points, length }) => ({
      id: run.id,
      name: run.name,
      kind: run.kind,
      diameter: run.diameter,
      lies: points.length > 0,
      length: tenth(length),
      points: points.map((point) => point.map(tenth)),
      boughtAs: derived.runsBought.find((one) => one.run === run.id)?.item?.id ?? null,
    })),
    wishes: wishesStand(project.wishes ?? [], derived.checks).map(({ wish, state, checks }) => ({
      text: wish.text,
      who: wish.who,
      unit: wish.unit,
      rule: wish.rule,
      state,
      signed: wish.signed,
      by: checks.map(({ id }) => id),
    })),
    parts: derived.parts.map((part) => {
      const blank = blankOf(part);
      return {
        id: part.id,
        role: part.role,
        unit: part.unit,
        material: part.material,
        thickness: part.thickness,
        length: tenth(blank.length),
        width: tenth(blank.width),
        grain: part.grain,
        mass: partMass(part, book),
        outline: part.outline,
        edges: part.edges,
        place: part.place,
      };
    }),
    subfloor: derived.subfloor && {
      from: derived.subfloor.from,
      to: derived.subfloor.to,
      seams: derived.subfloor.seams,
      outline: derived.subfloor.outline,
      upper: derived.subfloor.upper.map(({ board, from, to, seams, apart }) => ({ ...board, from, to, seams, apart })),
    },
    thresholds: derived.floor.thresholds,
    cutPlans: derived.plans.map(({ material, key, plan, state, job }) => ({
      material: material.id,
      key,
      state,
      job,
      plan,
    })),
    cost: told(derived.shopping),
    mass: derived.mass,
    work: told(derived.schedule),
  };
}
export type Report = ReturnType<typeof reportOf>;
