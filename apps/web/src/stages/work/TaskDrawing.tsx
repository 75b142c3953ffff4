import '../build/build.css';
import { useMemo } from 'react';
import type { Part } from '@nestplank/core/parts';
import type { Task } from '@nestplank/core/work';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';
import { Assembled } from '../build/Assembled.js';
import { PartFan } from '../build/PartFan.js';

/** What a task works on: parts to be cut lie flat with their sizes, parts to be put up stand as they will stand. */
export function TaskDrawing({ task, scene }: { readonly task: Task; readonly scene: Scene }) {
  const { said } = useSpeech();
  const parts = useMemo((): Part[] => {
    const own = new Set(task.parts ?? []);
    return scene.derived.parts.filter(({ id }) => own.has(id));
  }, [task, scene.derived.parts]);
  if (parts.length === 0) return null;
  return (
    <div className="bench-drawing">
      {task.kind === 'cut' ? (
        <PartFan parts={parts} chosen={null} scene={scene} />
      ) : (
        <Assembled key={task.id} parts={parts} chosen={null} scene={scene} name={said(task.title)} />
      )}
    </div>
  );
}
