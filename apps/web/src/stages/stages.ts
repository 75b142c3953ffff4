export const STAGES = ['measure', 'layers', 'layout', 'build', 'cut', 'buy', 'work'] as const;
export type StageName = (typeof STAGES)[number];

/** The stage an address of the application shows. */
export function stageOf(path: string): StageName {
  const last = path.split('/').filter(Boolean).at(-1);
  return STAGES.find((stage) => stage === last) ?? 'layout';
}
