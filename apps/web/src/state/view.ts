import { create } from 'zustand';
import type { Message } from '@nestplank/core/words';
import type { Pointed } from './pointing.js';

export const THEMES = ['light', 'dark', 'sun'] as const;
export type ThemeName = (typeof THEMES)[number];

export const MEASURE_TABS = ['look', 'walk', 'readings', 'things', 'datum', 'found', 'exchange'] as const;
export type MeasureTab = (typeof MEASURE_TABS)[number];

/** What is looked at, not what is planned: never sent to the server. */
interface View {
  readonly theme: ThemeName;
  readonly sliceX: number | null;
  readonly ceiling: boolean;
  readonly exaggerate: boolean;
  /** Pieces of the linings are drawn on the fold-out. */
  readonly lining: boolean;
  readonly unit: string | null;
  /** Units that are moved together: none, or more than one. */
  readonly together: readonly string[];
  /** The mode that is shown on the fold-out. */
  readonly mode: string | null;
  /** The free stretch that was pointed at. */
  readonly gap: Pointed | null;
  /** The kept layout that lies over the fold-out on tracing paper. */
  readonly traced: string | null;
  /** What a unit that is being moved has come to stand with. */
  readonly snap: { readonly axis: 'along' | 'across'; readonly line: number; readonly said: Message } | null;
  /** Where the room in the round is opened. */
  readonly room: 'shut' | 'beside' | 'full';
  /** The task that was taken up; null follows the plan. */
  readonly task: string | null;
  /** Who works just now, by name; empty while nobody said. */
  readonly who: string;
  readonly part: string | null;
  readonly group: string | null;
  /** The find that is open. */
  readonly find: string | null;
  /** The reading that is being taken; null follows the walk. */
  readonly address: string | null;
  /** The part of Measure that is open; null while nobody chose one. */
  readonly measureTab: MeasureTab | null;
}

const STORED_THEME = 'nest-plank.theme';
const stored = (): ThemeName => THEMES.find((theme) => theme === localStorage.getItem(STORED_THEME)) ?? 'light';

export const useView = create<View>(() => ({
  theme: stored(),
  sliceX: null,
  ceiling: false,
  exaggerate: false,
  lining: false,
  unit: null,
  together: [],
  mode: null,
  gap: null,
  traced: null,
  snap: null,
  room: 'shut',
  task: null,
  who: '',
  part: null,
  group: null,
  find: null,
  address: null,
  measureTab: null,
}));

export const look = useView.setState;

export function nextTheme(): void {
  const { theme } = useView.getState();
  const next = THEMES[(THEMES.indexOf(theme) + 1) % THEMES.length] ?? 'light';
  localStorage.setItem(STORED_THEME, next);
  look({ theme: next });
}
