/** Joins of two blocks waiting to be made, the best on top. It keeps its arrays from try to try. */
export class JoinHeap {
  readonly first: Int32Array<ArrayBuffer>;
  readonly second: Int32Array<ArrayBuffer>;
  readonly way: Uint8Array<ArrayBuffer>;
  private readonly score: Float64Array<ArrayBuffer>;
  private readonly heap: Int32Array<ArrayBuffer>;
  private joins = 0;
  private heaped = 0;

  constructor(private readonly capacity: number) {
    this.first = new Int32Array(capacity);
    this.second = new Int32Array(capacity);
    this.way = new Uint8Array(capacity);
    this.score = new Float64Array(capacity);
    this.heap = new Int32Array(capacity);
  }

  clear(): void {
    this.joins = 0;
    this.heaped = 0;
  }

  /** Whether there is space for so many joins more. */
  hasRoom(more: number): boolean {
    return this.joins + more <= this.capacity;
  }

  /** Adds a join; the lower its score the sooner it is taken. */
  add(first: number, second: number, way: number, score: number): void {
    const join = this.joins;
    this.first[join] = first;
    this.second[join] = second;
    this.way[join] = way;
    this.score[join] = score;
    this.joins += 1;
    const { heap, score: scores } = this;
    let at = this.heaped;
    this.heaped += 1;
    while (at > 0) {
      const parent = (at - 1) >> 1;
      const other = heap[parent] ?? 0;
      if ((scores[other] ?? 0) <= score) break;
      heap[at] = other;
      at = parent;
    }
    heap[at] = join;
  }

  /** Takes the best join off; -1 when there is none. */
  take(): number {
    const { heap, score: scores } = this;
    if (this.heaped === 0) return -1;
    const best = heap[0] ?? 0;
    this.heaped -= 1;
    const moved = heap[this.heaped] ?? 0;
    const score = scores[moved] ?? 0;
    let at = 0;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= this.heaped) break;
      if (child + 1 < this.heaped && (scores[heap[child + 1] ?? 0] ?? 0) < (scores[heap[child] ?? 0] ?? 0)) child += 1;
      const other = heap[child] ?? 0;
      if ((scores[other] ?? 0) >= score) break;
      heap[at] = other;
      at = child;
    }
    heap[at] = moved;
    return best;
  }
}
