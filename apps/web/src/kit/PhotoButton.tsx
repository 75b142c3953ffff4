import Button from '@mui/material/Button';
import { useRef } from 'react';
import { api, RefusedError } from '../state/api.js';
import { notify, useSession } from '../state/session.js';
import { useSpeech } from '../words/use-speech.js';

/** Takes a photo from the camera or a file and keeps it with the build. */
export function PhotoButton({
  text,
  label,
  onPhoto,
}: {
  readonly text: string;
  readonly label: string;
  readonly onPhoto: (id: string) => void;
}) {
  const { t } = useSpeech();
  const id = useSession((s) => s.id);
  const file = useRef<HTMLInputElement>(null);
  const add = async (chosen: File | undefined): Promise<void> => {
    if (!chosen || !id) return;
    try {
      onPhoto((await api.addPhoto(id, chosen)).id);
    } catch (problem) {
      notify(problem instanceof RefusedError ? problem.message : t('home.failed'), 'trouble');
    }
  };
  return (
    <>
      <Button size="small" onClick={() => file.current?.click()}>
        {text}
      </Button>
      <input
        ref={file}
        type="file"
        accept="image/*"
        hidden
        aria-label={label}
        onChange={(event) => {
          void add(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </>
  );
}
