import type { ProjectView, StepDto, StepName } from '@nestplank/contract';
import { OperationError, readOperation, type Project } from '@nestplank/core/document';
import { applyOperation } from '@nestplank/core/furniture';
import type { Message } from '@nestplank/core/words';

/** A project with steps on top of it that the server has not got yet. */
export interface OnTop {
  readonly project: Project;
  /** Those that were done, in their order; undo and redo are the server's. */
  readonly done: readonly StepName[];
  /** Those that can no longer be done, and why. */
  readonly lost: readonly { readonly step: StepDto; readonly why: Message }[];
}

/** Does unsent steps on top of a project as the server has it. */
export function onTop(view: ProjectView, unsent: readonly StepDto[]): OnTop {
  let { project } = view;
  const done: StepName[] = [];
  const lost: { step: StepDto; why: Message }[] = [];
  for (const step of unsent) {
    if (step.name === 'undo' || step.name === 'redo') continue;
    try {
      project = applyOperation(project, readOperation(step), view.priceBook).project;
      done.push(step.name);
    } catch (problem) {
      if (!(problem instanceof OperationError)) throw problem;
      lost.push({ step, why: problem.said });
    }
  }
  return { project, done, lost };
}
