import Button from '@mui/material/Button';
import { useSpeech } from '../../words/use-speech.js';
import type { InstrumentLink } from './use-instrument.js';

/** The instrument that is at hand: its state in words, and its one button. */
export function InstrumentBar({ link, address }: { readonly link: InstrumentLink; readonly address: string }) {
  const { t } = useSpeech();
  const device = t(link.kind === 'laser' ? 'measure.laser' : 'measure.finder');
  const { state } = link;
  if (!state)
    return (
      <Button size="small" onClick={link.link}>
        {t('measure.link', { device: device.toLowerCase() })}
      </Button>
    );
  const ready = state.state === 'linked';
  return (
    <div className="stack gap-6">
      <div className="row wrap" role="status">
        <span className={`small ${ready || state.state === 'measuring' ? 'soft' : 'needs'}`}>
          {t(`measure.device.${state.state}`, { device, battery: state.battery })}
          {state.low && <b className="needs"> · {t('measure.device.low')}</b>}
        </span>
      </div>
      <div className="row wrap">
        {state.state === 'lost' || state.state === 'off' ? (
          <Button variant="contained" onClick={link.link}>
            {t('measure.relink')}
          </Button>
        ) : (
          <Button variant="contained" onClick={() => link.click(address)} disabled={!ready}>
            {t('measure.click')}
          </Button>
        )}
        <Button size="small" variant="text" onClick={link.unlink}>
          {t('measure.unlink')}
        </Button>
      </div>
      {link.missed && (
        <p className="small needs" role="alert">
          {link.missed}
        </p>
      )}
    </div>
  );
}
