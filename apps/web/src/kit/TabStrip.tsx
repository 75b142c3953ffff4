import { useSpeech } from '../words/words.js';
import type { UiKey } from '../words/en.js';

/** The parts of a stage's side, one of which is open. */
export function TabStrip<T extends string>({
  label,
  tabs,
  open,
  prefix,
  panel,
  onOpen,
}: {
  readonly label: string;
  readonly tabs: readonly T[];
  readonly open: T;
  /** Their words are found under this and their name. */
  readonly prefix: string;
  /** Id of the panel they open. */
  readonly panel: string;
  readonly onOpen: (tab: T) => void;
}) {
  const { t } = useSpeech();
  return (
    <div className="tabs" role="tablist" aria-label={label}>
      {tabs.map((name) => (
        <button
          key={name}
          type="button"
          role="tab"
          id={`${panel}-${name}`}
          aria-selected={open === name}
          aria-controls={panel}
          onClick={() => onOpen(name)}
        >
          {t(`${prefix}${name}` as UiKey)}
        </button>
      ))}
    </div>
  );
}
