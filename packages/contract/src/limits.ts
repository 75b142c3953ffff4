/** What is kept of a project's past, told wherever it matters: nothing goes in silence. */
export const KEPT_OF_PAST = {
  /** So many steps back can be undone; older ones stay in the history. */
  undo: 1000,
  /** So many versions kept by themselves remain, the newest; those kept by name, and those of an earlier release, all. */
  automatic: 40,
  /** So many steps lie between two versions kept by themselves. */
  between: 50,
  /** So many days a project lies in the bin. */
  bin: 30,
} as const;

/** Why a step is not done in a database that only has a project of the same id. */
export const OTHER_DATABASE = 'It was done on another database that has a project of the same name.';
