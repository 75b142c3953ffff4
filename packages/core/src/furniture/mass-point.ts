/** Something that weighs, and where its middle is in the vehicle, mm. */
export interface MassPoint {
  readonly kg: number;
  readonly at: readonly [number, number, number];
  /** What it is: a unit's parts, its mattress and cushions, the lining of a surface, a thing, goods, water, people. */
  readonly kind: 'unit' | 'soft' | 'surface' | 'thing' | 'goods' | 'contents' | 'person';
  /** The unit it moves with; null where it belongs to none. */
  readonly unit: string | null;
  readonly name: string;
}

/** Foam with its cover, kg for each m3: between the light foam of backrests and that of firm mattresses. */
export const UPHOLSTERY_KG_M3 = 40;
