/** Something that weighs, and where its middle is in the vehicle, mm. */
export interface MassPoint {
  readonly kg: number;
  readonly at: readonly [number, number, number];
  /** What it is: a unit's parts, the lining of a surface, a thing, goods, water, people. */
  readonly kind: 'unit' | 'surface' | 'thing' | 'goods' | 'contents' | 'person';
  /** The unit it moves with; null where it belongs to none. */
  readonly unit: string | null;
  readonly name: string;
}
