import type { FillTaste, JoinTaste } from './filling.js';

/** One way to fill a sheet. */
export interface Way {
  readonly join: JoinTaste;
  readonly taste: FillTaste;
}

/** Without joining, large parts first: the way of the very first plan. */
export const PLAIN_WAY: Way = {
  join: { waste: -1, noise: 0, span: 0, least: 0 },
  taste: { edge: 1, fill: 0.3, large: 2, noise: 0, split: 2, smallestFirst: false, pairsUnder: 0 },
};

const WASTES = [0, 0.002, 0.006, 0.012, 0.02, 0.03, 0.05] as const;
const PAIRS_UNDER = [0, 0.2, 0.4, 1] as const;
/** Share of ways that are bred from ones that did well, and of traits such a way keeps. */
const BRED = 0.6;
const KEPT = 0.7;
const REMEMBERED = 60;

const pick = <Item>(list: readonly Item[], random: () => number, otherwise: Item): Item =>
  list[Math.floor(random() * list.length)] ?? otherwise;

function drawAnyWay(random: () => number): Way {
  return {
    join: {
      waste: pick(WASTES, random, 0),
      noise: random(),
      span: random() < 0.5 ? 0 : 2 * random(),
      least: 1 + Math.floor(random() * 6),
    },
    taste: {
      edge: 0.2 + 2 * random(),
      fill: 0.8 * random(),
      large: 3 * random() ** 2,
      noise: random() < 0.4 ? 0.03 : 0.6 * random() ** 2,
      split: Math.floor(random() * 6),
      smallestFirst: random() < 0.5,
      pairsUnder: pick(PAIRS_UNDER, random, 0),
    },
  };
}

function mixed<Traits extends object>(own: Traits, like: Traits, random: () => number): Traits {
  const child = { ...own };
  for (const trait of Object.keys(own) as (keyof Traits)[]) if (random() < KEPT) child[trait] = like[trait];
  return child;
}

/** Draws ways at random, more often like those that lately gave the fullest sheet of several tries. */
export class Ways {
  private readonly lately: Way[] = [];
  private latest = 0;

  constructor(private readonly random: () => number) {}

  draw(): Way {
    const { random, lately } = this;
    const way = drawAnyWay(random);
    const like = lately[Math.floor(random() * lately.length)];
    if (!like || random() > BRED) return way;
    return { join: mixed(way.join, like.join, random), taste: mixed(way.taste, like.taste, random) };
  }

  remember(way: Way): void {
    this.lately[this.latest] = way;
    this.latest = (this.latest + 1) % REMEMBERED;
  }
}
