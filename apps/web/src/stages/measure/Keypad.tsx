import BackspaceOutlinedIcon from '@mui/icons-material/BackspaceOutlined';
import { useSpeech } from '../../words/use-speech.js';

const MM = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0', '.', '-'] as const;
const IN = ['7', '8', '9', '/', '4', '5', '6', '␣', '1', '2', '3', "'", '0', '.', '-', '"'] as const;

/** Large keys for gloved fingers and one hand. */
export function Keypad({
  onType,
  onBack,
  onTake,
}: {
  readonly onType: (sign: string) => void;
  readonly onBack: () => void;
  readonly onTake: () => void;
}) {
  const { t, style } = useSpeech();
  const keys = style.units === 'mm' ? MM : IN;
  return (
    <div className="keypad" data-columns={style.units === 'mm' ? 3 : 4} role="group" aria-label={t('measure.keypad')}>
      {keys.map((key) => (
        <button
          key={key}
          type="button"
          onClick={() => onType(key === '␣' ? ' ' : key)}
          aria-label={key === '␣' ? 'space' : key}
        >
          {key}
        </button>
      ))}
      <button type="button" onClick={onBack} aria-label={t('keypad.back')}>
        <BackspaceOutlinedIcon />
      </button>
      <button type="button" className="keypad-take" onClick={onTake}>
        {t('keypad.take')} ↵
      </button>
    </div>
  );
}
