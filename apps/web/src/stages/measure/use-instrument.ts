import { useCallback, useEffect, useRef, useState } from 'react';
import type { InstrumentKind, InstrumentMessage, InstrumentState } from '@nestplank/contract';
import { api, RefusedError } from '../../state/api.js';
import { notify, useSession } from '../../state/session.js';
import { tell } from '../../words/words.js';

export type InstrumentReading = Extract<InstrumentMessage, { type: 'reading' }>;

export interface InstrumentLink {
  readonly kind: InstrumentKind;
  readonly state: InstrumentState | null;
  readonly link: () => void;
  readonly unlink: () => void;
  readonly click: (address: string) => void;
  readonly missed: string | null;
}

const failed = (problem: unknown): void =>
  notify(problem instanceof RefusedError ? problem.message : tell('home.failed'), 'trouble');

/** A link with an instrument over the server's stream; every figure that comes is handed to `onReading`. */
export function useInstrument(kind: InstrumentKind, onReading: (reading: InstrumentReading) => void): InstrumentLink {
  const id = useSession((s) => s.id);
  const [state, setState] = useState<InstrumentState | null>(null);
  const [missed, setMissed] = useState<string | null>(null);
  const source = useRef<EventSource | null>(null);
  const handler = useRef(onReading);
  useEffect(() => {
    handler.current = onReading;
  }, [onReading]);

  const close = useCallback(() => {
    source.current?.close();
    source.current = null;
  }, []);
  useEffect(() => close, [close, kind, id]);

  const listen = useCallback(
    (projectId: string) => {
      close();
      const stream = new EventSource(api.streamAddress(projectId, kind));
      source.current = stream;
      stream.onmessage = (event: MessageEvent<string>) => {
        const message = JSON.parse(event.data) as InstrumentMessage;
        if (message.type === 'state') setState(message);
        else if (message.type === 'reading') {
          setMissed(null);
          handler.current(message);
        } else setMissed(tell(`measure.missed.${message.why}`));
      };
      // the browser tries again by itself; until then the link counts as lost
      stream.onerror = () => setState((last) => last && { ...last, state: 'lost' });
    },
    [close, kind],
  );
  const link = useCallback(() => {
    if (!id) return;
    api.link(id, kind).then((next) => {
      setState(next);
      setMissed(null);
      if (!source.current) listen(id);
    }, failed);
  }, [id, kind, listen]);
  const unlink = useCallback(() => {
    if (!id) return;
    close();
    setState(null);
    setMissed(null);
    api.unlink(id, kind).catch(failed);
  }, [id, kind, close]);
  const click = useCallback(
    (address: string) => {
      setMissed(null);
      if (id) api.click(id, kind, address).catch(failed);
    },
    [id, kind],
  );
  return { kind, state, link, unlink, click, missed };
}
