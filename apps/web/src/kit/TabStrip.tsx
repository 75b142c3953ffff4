import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import { useSpeech } from '../words/use-speech.js';
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
    <Tabs
      value={open}
      aria-label={label}
      variant="scrollable"
      scrollButtons={false}
      onChange={(_event, tab: T) => onOpen(tab)}
    >
      {tabs.map((name) => (
        <Tab
          key={name}
          value={name}
          id={`${panel}-${name}`}
          aria-controls={panel}
          label={t(`${prefix}${name}` as UiKey)}
        />
      ))}
    </Tabs>
  );
}
