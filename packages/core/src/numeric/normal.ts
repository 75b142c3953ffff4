/** A stream of numbers with mean 0 and spread 1 from a stream of even ones (Box and Muller). */
export function normalFrom(even: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even());
}
