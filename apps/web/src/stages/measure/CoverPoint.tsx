import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { OpenPoint } from '@nestplank/core/measure';
import { useChange } from '../../kit/use-change.js';
import { useSpeech } from '../../words/use-speech.js';

/** One point that holds what would cover it: overruled with a reason, or held again. */
export function CoverPoint({ point, what }: { readonly point: OpenPoint; readonly what: string }) {
  const { t } = useSpeech();
  const change = useChange();
  const [asked, setAsked] = useState(false);
  const [reason, setReason] = useState('');
  const grade = point.stops ? 'fails' : point.overruled ? 'good' : 'tight';
  return (
    <li className="find">
      <span className="note-mark" data-grade={grade}>
        {point.stops ? '!' : point.overruled ? '✓' : '?'}
      </span>
      <div className="stack gap-2">
        <span>{what}</span>
        {point.overruled && (
          <span className="row apart">
            <span className="small soft">{t('found.overruled', { reason: point.overruled.reason })}</span>
            <Button
              size="small"
              variant="text"
              onClick={() => change({ name: 'holdPoint', payload: { point: point.id } })}
            >
              {t('found.hold')}
            </Button>
          </span>
        )}
        {point.stops && !asked && (
          <div>
            {point.mend && (
              <Button
                size="small"
                aria-label={t('found.hatchOf', { what })}
                onClick={() => point.mend && change(point.mend)}
              >
                {t('found.hatch')}
              </Button>
            )}
            <Button
              size="small"
              variant="text"
              aria-label={t('found.overruleOf', { what })}
              onClick={() => setAsked(true)}
            >
              {t('found.overrule')}
            </Button>
          </div>
        )}
        {point.stops && asked && (
          <form
            className="fields entry-and-button"
            onSubmit={(event) => {
              event.preventDefault();
              const done = change({
                name: 'overrulePoint',
                payload: { point: point.id, reason: reason.trim(), at: new Date().toISOString() },
              });
              if (done) setAsked(false);
            }}
          >
            <TextField
              label={t('found.overruleWhy')}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
            <Button type="submit" disabled={reason.trim() === ''}>
              {t('found.overrule')}
            </Button>
          </form>
        )}
      </div>
    </li>
  );
}
