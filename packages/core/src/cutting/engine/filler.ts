import type { Filler, FillTaste, JoinTaste, Laid } from './filling.js';
import type { EngineJob } from '../job/job.js';
import { JoinHeap } from './join-heap.js';

/** Pools of more parts than this are not joined: it takes time by the square. */
const MOST_JOINED = 100;
/** No join that loses more than this share is ever looked at. */
const MOST_WASTE = 0.06;
/** Choices from here on are pairs. */
const PAIR = 1e6;

const grown = (size: number): Float64Array<ArrayBuffer> => new Float64Array(size);
const marks = (size: number): Int32Array<ArrayBuffer> => new Int32Array(size);

/**
 * Fills one sheet after another from a pool of parts, trying many ways. It works on plain arrays of numbers and allocates
 * nothing in a try, since it is where nearly all of the engine's time goes. All sizes are grown by one kerf, as is the
 * sheet: grown pieces simply touch.
 *
 * A node is a part of the pool or two nodes joined; nodes below `count` are parts, sorted by kind.
 */
export class SheetFiller implements Filler {
  private readonly partLength: readonly number[];
  private readonly partWidth: readonly number[];
  private readonly partTurns: readonly boolean[];

  private count = 0;
  private capacity = 0;
  private length = grown(0);
  private width = grown(0);
  private area = grown(0);
  private turns = new Uint8Array(0);
  private first = marks(0);
  private second = marks(0);
  private way = new Uint8Array(0);
  private alive = new Uint8Array(0);
  private nodes = 0;
  /** Kinds of the pool: the part's index, its first node, and how many are still free. */
  private kinds = 0;
  private kindPart = marks(0);
  private kindStart = marks(0);
  private kindFree = marks(0);
  /** Joins of two parts, found once for a pool and a sheet. */
  private paired = false;
  private pairs = 0;
  private pairFirst = marks(0);
  private pairSecond = marks(0);
  private pairWay = new Uint8Array(0);
  private pairLost = grown(0);
  private pairOrder = marks(0);
  private pairLength = grown(0);
  private pairWidth = grown(0);
  private pairArea = grown(0);
  /** Joins looked at in this try. */
  private joins = new JoinHeap(0);
  /** Where nodes lie in this try. */
  private placed = 0;
  private placedNode = marks(0);
  private placedX = grown(0);
  private placedY = grown(0);
  private placedTurned = new Uint8Array(0);
  /** Free rectangles, as a stack, and those that nothing fitted. */
  private open = 0;
  private openAt = grown(0);
  private rest = 0;
  private restAt = grown(0);
  private filledArea = 0;
  private chosen = -1;
  private chosenTurned = false;
  private chosenX = 1;
  private chosenY = 1;

  constructor(
    job: EngineJob,
    private readonly random: () => number,
  ) {
    this.partLength = job.parts.map((p) => p.length + job.kerf);
    this.partWidth = job.parts.map((p) => p.width + job.kerf);
    this.partTurns = job.parts.map((p) => p.mayTurn && p.length !== p.width);
  }

  /** Takes a pool of parts, by index; equal indices are equal parts. */
  load(pool: readonly number[]): void {
    const sorted = [...pool].sort((a, b) => a - b);
    const count = sorted.length;
    this.count = count;
    this.reserve(count);
    this.kinds = 0;
    this.paired = false;
    sorted.forEach((part, i) => {
      this.length[i] = this.partLength[part] ?? 0;
      this.width[i] = this.partWidth[part] ?? 0;
      this.area[i] = (this.length[i] ?? 0) * (this.width[i] ?? 0);
      this.turns[i] = this.partTurns[part] ? 1 : 0;
      if (i === 0 || sorted[i - 1] !== part) {
        this.kindPart[this.kinds] = part;
        this.kindStart[this.kinds] = i;
        this.kinds += 1;
      }
    });
    this.kindStart[this.kinds] = count;
  }

  private reserve(count: number): void {
    const wanted = 2 * count + 2;
    if (wanted > this.capacity) {
      this.capacity = wanted;
      this.length = grown(wanted);
      this.width = grown(wanted);
      this.area = grown(wanted);
      this.turns = new Uint8Array(wanted);
      this.first = marks(wanted);
      this.second = marks(wanted);
      this.way = new Uint8Array(wanted);
      this.alive = new Uint8Array(wanted);
      this.kindPart = marks(wanted);
      this.kindStart = marks(wanted);
      this.kindFree = marks(wanted);
      this.placedNode = marks(wanted);
      this.placedX = grown(wanted);
      this.placedY = grown(wanted);
      this.placedTurned = new Uint8Array(wanted);
      this.openAt = grown(wanted * 8);
      this.restAt = grown(wanted * 8);
      const most = Math.min(count, MOST_JOINED);
      this.pairFirst = marks(most * most * 2);
      this.pairSecond = marks(most * most * 2);
      this.pairWay = new Uint8Array(most * most * 2);
      this.pairLost = grown(most * most * 2);
      this.pairOrder = marks(most * most * 2);
      this.pairLength = grown(most * most * 2);
      this.pairWidth = grown(most * most * 2);
      this.pairArea = grown(most * most * 2);
      this.joins = new JoinHeap(most * most * 8);
    }
  }

  /** Parts of the pool that the last try did not place. */
  left(): number[] {
    const left: number[] = [];
    for (let kind = 0; kind < this.kinds; kind += 1)
      for (let i = this.kindStart[kind] ?? 0; i < (this.kindStart[kind + 1] ?? 0); i += 1)
        if (this.alive[i] === 1) left.push(this.kindPart[kind] ?? 0);
    return left;
  }

  /** What the last try placed. */
  laid(x = 0, y = 0): Laid[] {
    const laid: Laid[] = [];
    for (let p = 0; p < this.placed; p += 1)
      this.layNode(
        this.placedNode[p] ?? 0,
        x + (this.placedX[p] ?? 0),
        y + (this.placedY[p] ?? 0),
        this.placedTurned[p] === 1,
        laid,
      );
    return laid;
  }

  private layNode(node: number, x: number, y: number, turned: boolean, into: Laid[]): void {
    if (node < this.count) {
      let kind = 0;
      while ((this.kindStart[kind + 1] ?? 0) <= node) kind += 1;
      into.push({ part: this.kindPart[kind] ?? 0, x, y, turned });
      return;
    }
    const [first, second, way] = [this.first[node] ?? 0, this.second[node] ?? 0, this.way[node] ?? 0];
    const along = (way & 1) === 0;
    this.layNode(first, x, y, turned, into);
    const step = (along ? this.length[first] : this.width[first]) ?? 0;
    const secondTurned = way >= 2 !== turned;
    if (along !== turned) this.layNode(second, x + step, y, secondTurned, into);
    else this.layNode(second, x, y + step, secondTurned, into);
  }

  /** Fills one sheet. Returns the area placed; `laid` and `left` tell the rest until the next try. */
  fill(roomLength: number, roomWidth: number, join: JoinTaste, taste: FillTaste): number {
    this.nodes = this.count;
    this.alive.fill(1, 0, this.count);
    for (let kind = 0; kind < this.kinds; kind += 1)
      this.kindFree[kind] = (this.kindStart[kind + 1] ?? 0) - (this.kindStart[kind] ?? 0);
    this.placed = 0;
    this.rest = 0;
    this.filledArea = 0;
    const joining = join.waste >= 0 && this.count <= MOST_JOINED && this.count > 1;
    if (joining) {
      if (!this.paired) this.findPairs();
      this.joinUp(roomLength, roomWidth, join);
    }
    this.openAt[0] = 0;
    this.openAt[1] = 0;
    this.openAt[2] = roomLength;
    this.openAt[3] = roomWidth;
    this.open = 1;
    this.fillOpen(taste);
    if (joining && this.takeApart()) {
      for (let i = 0; i < this.rest * 4; i += 1) this.openAt[i] = this.restAt[i] ?? 0;
      this.open = this.rest;
      this.rest = 0;
      this.fillOpen(taste);
    }
    return this.filledArea;
  }

  /** Looks at joining two nodes in one way; the first stays as it is. Gives the share lost, or 2 when it is no use. */
  private lostBy(a: number, b: number, way: number, roomLength: number, roomWidth: number, limit: number): number {
    const lengthB = (way >= 2 ? this.width[b] : this.length[b]) ?? 0;
    const widthB = (way >= 2 ? this.length[b] : this.width[b]) ?? 0;
    const lengthA = this.length[a] ?? 0;
    const widthA = this.width[a] ?? 0;
    let l: number;
    let w: number;
    if ((way & 1) === 0) {
      l = lengthA + lengthB;
      w = widthA > widthB ? widthA : widthB;
    } else {
      l = lengthA > lengthB ? lengthA : lengthB;
      w = widthA + widthB;
    }
    const whole = l * w;
    const filled = (this.area[a] ?? 0) + (this.area[b] ?? 0);
    // most joins lose far too much: no division is wasted on them
    if (whole * (1 - limit) > filled) return 2;
    if (
      (l > roomLength || w > roomWidth) &&
      !(this.turns[a] === 1 && this.turns[b] === 1 && w <= roomLength && l <= roomWidth)
    )
      return 2;
    this.joinedLength = l;
    this.joinedWidth = w;
    this.reach = Math.max(l / roomLength, w / roomWidth);
    return 1 - filled / whole;
  }
  private reach = 0;
  private joinedLength = 0;
  private joinedWidth = 0;

  private findPairs(): void {
    this.paired = true;
    this.pairs = 0;
    for (let i = 0; i < this.count; i += 1)
      for (let j = 0; j < i; j += 1) {
        // what must not turn goes first, so that the other can turn against it
        const swap = this.turns[i] === 1 && this.turns[j] === 0;
        const [a, b] = swap ? [j, i] : [i, j];
        const ways = this.turns[b] === 1 ? 4 : 2;
        for (let way = 0; way < ways; way += 1) {
          const lost = this.lostBy(a, b, way, Infinity, Infinity, MOST_WASTE);
          if (lost > MOST_WASTE) continue;
          const p = this.pairs;
          this.pairFirst[p] = a;
          this.pairSecond[p] = b;
          this.pairWay[p] = way;
          this.pairLost[p] = lost;
          this.pairLength[p] = this.joinedLength;
          this.pairWidth[p] = this.joinedWidth;
          this.pairArea[p] = (this.area[a] ?? 0) + (this.area[b] ?? 0);
          this.pairs += 1;
        }
      }
    const { pairOrder, pairLost } = this;
    for (let p = 0; p < this.pairs; p += 1) pairOrder[p] = p;
    pairOrder.subarray(0, this.pairs).sort((p, q) => (pairLost[p] ?? 0) - (pairLost[q] ?? 0));
  }

  /** Joins nodes pair by pair, the least wasteful pair first. */
  private joinUp(roomLength: number, roomWidth: number, join: JoinTaste): void {
    const sheetArea = roomLength * roomWidth;
    const { joins, alive, area, turns, length, width } = this;
    joins.clear();
    /** How much is lost, less what spanning the space is worth, disturbed by the draw. */
    const score = (lost: number): number => {
      const reach = this.reach;
      const spans = reach > 1 - join.waste && reach <= 1 ? join.span * (reach - 1 + join.waste) : 0;
      return lost - spans + join.noise * join.waste * this.random();
    };
    for (let i = 0; i < this.pairs; i += 1) {
      const p = this.pairOrder[i] ?? 0;
      if ((this.pairLost[p] ?? 0) > join.waste) break;
      const [a, b, way] = [this.pairFirst[p] ?? 0, this.pairSecond[p] ?? 0, this.pairWay[p] ?? 0];
      const lost = this.lostBy(a, b, way, roomLength, roomWidth, join.waste);
      if (lost <= join.waste) joins.add(a, b, way, score(lost));
    }
    let blocks = this.count;
    while (blocks > join.least) {
      const best = joins.take();
      if (best < 0) break;
      if (alive[joins.first[best] ?? 0] === 0 || alive[joins.second[best] ?? 0] === 0) continue;
      const a = joins.first[best] ?? 0;
      const b = joins.second[best] ?? 0;
      const way = joins.way[best] ?? 0;
      const node = this.nodes;
      this.nodes += 1;
      const lengthB = (way >= 2 ? width[b] : length[b]) ?? 0;
      const widthB = (way >= 2 ? length[b] : width[b]) ?? 0;
      const along = (way & 1) === 0;
      const [lengthA, widthA] = [length[a] ?? 0, width[a] ?? 0];
      length[node] = along ? lengthA + lengthB : Math.max(lengthA, lengthB);
      width[node] = along ? Math.max(widthA, widthB) : widthA + widthB;
      area[node] = (area[a] ?? 0) + (area[b] ?? 0);
      turns[node] = turns[a] === 1 && turns[b] === 1 ? 1 : 0;
      this.first[node] = a;
      this.second[node] = b;
      this.way[node] = way;
      this.takeNode(a);
      this.takeNode(b);
      alive[node] = 1;
      blocks -= 1;
      if (!joins.hasRoom(4 * node)) continue;
      const own = area[node] ?? 0;
      for (let other = 0; other < node; other += 1) {
        if (alive[other] === 0 || own + (area[other] ?? 0) > sheetArea) continue;
        const swap = turns[node] === 1 && turns[other] === 0;
        const p = swap ? other : node;
        const q = swap ? node : other;
        const ways = turns[q] === 1 ? 4 : 2;
        for (let w = 0; w < ways; w += 1) {
          const lost = this.lostBy(p, q, w, roomLength, roomWidth, join.waste);
          if (lost <= join.waste) joins.add(p, q, w, score(lost));
        }
      }
    }
  }

  private takeNode(node: number): void {
    this.alive[node] = 0;
    if (node >= this.count) return;
    let low = 0;
    let high = this.kinds - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.kindStart[middle] ?? 0) <= node) low = middle;
      else high = middle - 1;
    }
    this.kindFree[low] = (this.kindFree[low] ?? 0) - 1;
  }

  private freeNode(node: number): void {
    if (node >= this.count) {
      this.alive[node] = 0;
      this.freeNode(this.first[node] ?? 0);
      this.freeNode(this.second[node] ?? 0);
      return;
    }
    this.alive[node] = 1;
    let kind = 0;
    while ((this.kindStart[kind + 1] ?? 0) <= node) kind += 1;
    this.kindFree[kind] = (this.kindFree[kind] ?? 0) + 1;
  }

  /** Takes apart the blocks that found no place. */
  private takeApart(): boolean {
    let any = false;
    for (let node = this.count; node < this.nodes; node += 1)
      if (this.alive[node] === 1) {
        this.freeNode(node);
        any = true;
      }
    return any;
  }

  /** Chooses a block for a free rectangle: a kind below `kinds`, else a joined node. */
  private choose(freeLength: number, freeWidth: number, taste: FillTaste, sheetArea: number): boolean {
    let best = -Infinity;
    this.chosen = -1;
    const space = freeLength * freeWidth;
    const random = this.random;
    const total = this.kinds + this.nodes - this.count;
    for (let entry = 0; entry < total; entry += 1) {
      const single = entry < this.kinds;
      const node = single ? (this.kindStart[entry] ?? 0) : entry - this.kinds + this.count;
      const count = single ? (this.kindFree[entry] ?? 0) : (this.alive[node] ?? 0);
      if (count === 0) continue;
      const own = this.length[node] ?? 0;
      const across = this.width[node] ?? 0;
      for (let turn = this.turns[node] === 1 ? 1 : 0; turn >= 0; turn -= 1) {
        const l = turn === 1 ? across : own;
        const w = turn === 1 ? own : across;
        if (l > freeLength || w > freeWidth) continue;
        const base = taste.large * ((l * w) / sheetArea);
        for (let shape = 0; shape < 3; shape += 1) {
          let countX = 1;
          let countY = 1;
          if (shape > 0) {
            if (count === 1) break;
            if (shape === 1) {
              countX = Math.min(count, Math.floor(freeLength / l));
              if (countX < 2) continue;
            } else {
              countY = Math.min(count, Math.floor(freeWidth / w));
              if (countY < 2) continue;
            }
          }
          const e1 = (l * countX) / freeLength;
          const e2 = (w * countY) / freeWidth;
          let edge = e1 > e2 ? e1 : e2;
          edge *= edge;
          edge *= edge;
          const score =
            taste.edge * edge * edge + taste.fill * ((l * w * countX * countY) / space) + base + taste.noise * random();
          if (score > best) {
            best = score;
            this.chosen = entry;
            this.chosenTurned = turn === 1;
            this.chosenX = countX;
            this.chosenY = countY;
          }
        }
      }
    }
    if (space < taste.pairsUnder * sheetArea && this.paired)
      this.choosePair(freeLength, freeWidth, taste, sheetArea, best);
    return this.chosen >= 0;
  }

  /** Looks at every two free parts that match; chosen is then `PAIR` and more. */
  private choosePair(freeLength: number, freeWidth: number, taste: FillTaste, sheetArea: number, least: number): void {
    const { alive, pairFirst, pairSecond, pairLength, pairWidth, pairArea, turns, random } = this;
    const space = freeLength * freeWidth;
    let best = least;
    for (let p = 0; p < this.pairs; p += 1) {
      const own = pairLength[p] ?? 0;
      const across = pairWidth[p] ?? 0;
      const upright = own <= freeLength && across <= freeWidth;
      const lying = across <= freeLength && own <= freeWidth;
      if (!upright && !lying) continue;
      const [a, b] = [pairFirst[p] ?? 0, pairSecond[p] ?? 0];
      if (alive[a] === 0 || alive[b] === 0) continue;
      const mayTurn = turns[a] === 1 && turns[b] === 1;
      for (let turn = mayTurn && lying ? 1 : 0; turn >= (upright ? 0 : 1); turn -= 1) {
        const l = turn === 1 ? across : own;
        const w = turn === 1 ? own : across;
        const e1 = l / freeLength;
        const e2 = w / freeWidth;
        let edge = e1 > e2 ? e1 : e2;
        edge *= edge;
        edge *= edge;
        const score =
          taste.edge * edge * edge +
          taste.fill * ((pairArea[p] ?? 0) / space) +
          taste.large * ((pairArea[p] ?? 0) / sheetArea) +
          taste.noise * random();
        if (score > best) {
          best = score;
          this.chosen = PAIR + p;
          this.chosenTurned = turn === 1;
          this.chosenX = 1;
          this.chosenY = 1;
        }
      }
    }
  }

  private putNode(node: number, x: number, y: number, turned: boolean): void {
    this.placedNode[this.placed] = node;
    this.placedX[this.placed] = x;
    this.placedY[this.placed] = y;
    this.placedTurned[this.placed] = turned ? 1 : 0;
    this.placed += 1;
    this.filledArea += this.area[node] ?? 0;
  }

  private putPair(p: number, x: number, y: number, turned: boolean): void {
    const [a, b, way] = [this.pairFirst[p] ?? 0, this.pairSecond[p] ?? 0, this.pairWay[p] ?? 0];
    this.takeNode(a);
    this.takeNode(b);
    this.putNode(a, x, y, turned);
    const along = (way & 1) === 0;
    const step = (along ? this.length[a] : this.width[a]) ?? 0;
    const secondTurned = way >= 2 !== turned;
    if (along !== turned) this.putNode(b, x + step, y, secondTurned);
    else this.putNode(b, x, y + step, secondTurned);
  }

  private put(entry: number, x: number, y: number, turned: boolean): void {
    let node: number;
    if (entry < this.kinds) {
      node = this.kindStart[entry] ?? 0;
      while (this.alive[node] === 0) node += 1;
      this.kindFree[entry] = (this.kindFree[entry] ?? 0) - 1;
    } else node = entry - this.kinds + this.count;
    this.alive[node] = 0;
    this.putNode(node, x, y, turned);
  }

  private push(x: number, y: number, length: number, width: number): void {
    if (length <= 0 || width <= 0) return;
    const at = this.open * 4;
    this.openAt[at] = x;
    this.openAt[at + 1] = y;
    this.openAt[at + 2] = length;
    this.openAt[at + 3] = width;
    this.open += 1;
  }

  private fillOpen(taste: FillTaste): void {
    const { openAt } = this;
    const sheetArea = this.openAreaOf();
    while (this.open > 0) {
      let at = this.open - 1;
      if (taste.smallestFirst) {
        let least = Infinity;
        for (let i = 0; i < this.open; i += 1) {
          const size = (openAt[i * 4 + 2] ?? 0) * (openAt[i * 4 + 3] ?? 0);
          if (size < least) {
            least = size;
            at = i;
          }
        }
      }
      const x = openAt[at * 4] ?? 0;
      const y = openAt[at * 4 + 1] ?? 0;
      const freeLength = openAt[at * 4 + 2] ?? 0;
      const freeWidth = openAt[at * 4 + 3] ?? 0;
      this.open -= 1;
      if (at !== this.open) openAt.copyWithin(at * 4, this.open * 4, this.open * 4 + 4);
      if (!this.choose(freeLength, freeWidth, taste, sheetArea)) {
        this.restAt[this.rest * 4] = x;
        this.restAt[this.rest * 4 + 1] = y;
        this.restAt[this.rest * 4 + 2] = freeLength;
        this.restAt[this.rest * 4 + 3] = freeWidth;
        this.rest += 1;
        continue;
      }
      const { chosen, chosenTurned, chosenX, chosenY } = this;
      const pair = chosen - PAIR;
      const node = chosen < this.kinds ? (this.kindStart[chosen] ?? 0) : chosen - this.kinds + this.count;
      const own = (pair >= 0 ? this.pairLength[pair] : this.length[node]) ?? 0;
      const across = (pair >= 0 ? this.pairWidth[pair] : this.width[node]) ?? 0;
      const l = chosenTurned ? across : own;
      const w = chosenTurned ? own : across;
      if (pair >= 0) this.putPair(pair, x, y, chosenTurned);
      else
        for (let i = 0; i < chosenX; i += 1)
          for (let j = 0; j < chosenY; j += 1) this.put(chosen, x + i * l, y + j * w, chosenTurned);
      const [length, width] = [l * chosenX, w * chosenY];
      const [restLength, restWidth] = [freeLength - length, freeWidth - width];
      const crosscut = this.crosscutFirst(freeLength, freeWidth, restLength, restWidth, taste.split);
      const aboveLength = crosscut ? length : freeLength;
      const besideWidth = crosscut ? freeWidth : width;
      // the smaller rest is filled first, so it goes on top of the stack
      if (aboveLength * restWidth <= besideWidth * restLength) {
        this.push(x + length, y, restLength, besideWidth);
        this.push(x, y + width, aboveLength, restWidth);
      } else {
        this.push(x, y + width, aboveLength, restWidth);
        this.push(x + length, y, restLength, besideWidth);
      }
    }
  }

  private openAreaOf(): number {
    let sum = 0;
    for (let i = 0; i < this.open; i += 1) sum += (this.openAt[i * 4 + 2] ?? 0) * (this.openAt[i * 4 + 3] ?? 0);
    return sum;
  }

  /** Whether the cut beside a block runs over the whole width, so that the rest along the length stays whole. */
  private crosscutFirst(
    freeLength: number,
    freeWidth: number,
    restLength: number,
    restWidth: number,
    rule: number,
  ): boolean {
    switch (rule) {
      case 0:
        return restLength * freeWidth > restWidth * freeLength;
      case 1:
        return restLength > restWidth;
      case 2:
        return restLength < restWidth;
      case 3:
        return false;
      case 4:
        return true;
      default:
        return this.random() < 0.5;
    }
  }
}
