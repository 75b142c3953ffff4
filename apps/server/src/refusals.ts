import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, HttpStatus } from '@nestjs/common';
import type { Response } from 'express';
import type { Refusal } from '@nestplank/contract';
import { OperationError } from '@nestplank/core/document';
import { say } from '@nestplank/core/words';
import { FormatError } from '@nestplank/core/formats';
import { logger } from './logger.js';

/** A refusal that services throw. */
export class RefusedError extends Error {
  constructor(
    readonly status: number,
    readonly code: Refusal['code'],
    message: string,
    readonly more: Partial<Pick<Refusal, 'place' | 'step' | 'revision' | 'faults' | 'trouble' | 'done'>> = {},
  ) {
    super(message);
  }
}

export const notFound = (what: string, id: string): RefusedError =>
  new RefusedError(HttpStatus.NOT_FOUND, 'not-found', `There is no ${what} ${id}.`);

const CODES: Readonly<Record<number, Refusal['code']>> = {
  400: 'invalid',
  404: 'not-found',
  413: 'too-large',
  422: 'operation',
  409: 'conflict',
};

function refusalOf(problem: unknown): Refusal {
  if (problem instanceof RefusedError)
    return {
      statusCode: problem.status,
      code: problem.code,
      message: problem.message,
      place: problem.more.place ?? '',
      step: problem.more.step,
      revision: problem.more.revision,
      faults: problem.more.faults,
      trouble: problem.more.trouble,
      done: problem.more.done,
    };
  if (problem instanceof OperationError)
    return { statusCode: 422, code: 'operation', message: say(problem.said), place: problem.place };
  if (problem instanceof FormatError)
    return { statusCode: 400, code: 'invalid', message: problem.message, place: problem.place };
  if (problem instanceof HttpException) {
    const body = problem.getResponse();
    const said: unknown = typeof body === 'object' && 'message' in body ? body.message : body;
    const message = Array.isArray(said) ? said.map(String).join('; ') : String(said);
    return { statusCode: problem.getStatus(), code: CODES[problem.getStatus()] ?? 'failed', message, place: '' };
  }
  if (problem instanceof Error && 'type' in problem && problem.type === 'entity.too.large')
    return {
      statusCode: 413,
      code: 'too-large',
      message: 'This is larger than 20 MB, which no project is. Nothing was changed.',
      place: '',
    };
  if (problem instanceof SyntaxError && 'body' in problem)
    return { statusCode: 400, code: 'invalid', message: 'What was sent is not JSON.', place: '' };
  return {
    statusCode: 500,
    code: 'failed',
    message: 'Something went wrong on the server. Nothing of this change was kept.',
    place: '',
  };
}

/** Every problem leaves the server as one clear refusal; only those that nobody expected are logged whole. */
@Catch()
export class RefusalFilter implements ExceptionFilter {
  catch(problem: unknown, host: ArgumentsHost): void {
    const refusal = refusalOf(problem);
    if (refusal.statusCode >= 500 && refusal.code !== 'storage') logger.error(problem);
    const response = host.switchToHttp().getResponse<Response>();
    if (!response.headersSent) response.status(refusal.statusCode).json(refusal);
  }
}
