import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type { Refusal } from '@nestplank/contract';

/** Deeper than this nothing that is sent can be. */
const MOST_DEPTH = 40;
/** More values than this no body needs; only a project file has more, and that comes as one text. */
const MOST_VALUES = 60_000;
/** As many fields as any one object that is sent may have. */
const MOST_FIELDS = 400;
/** As many steps as one message may hold. */
const MOST_STEPS = 200;

/** What is wrong with the shape of a body; null when nothing is. One pass, without recursion, that stops at the first fault. */
export function shapeFault(body: unknown): string | null {
  const open: { readonly value: unknown; readonly depth: number }[] = [{ value: body, depth: 0 }];
  let values = 0;
  for (let next = open.pop(); next; next = open.pop()) {
    const { value, depth } = next;
    if (typeof value !== 'object' || value === null) continue;
    if (depth > MOST_DEPTH) return `This is nested more than ${MOST_DEPTH} deep.`;
    const inner = Object.values(value);
    values += inner.length;
    if (values > MOST_VALUES) return `This holds more than ${MOST_VALUES} values.`;
    if (!Array.isArray(value) && inner.length > MOST_FIELDS) return `This has more than ${MOST_FIELDS} fields.`;
    for (const one of inner) open.push({ value: one, depth: depth + 1 });
  }
  return null;
}

const isPlain = (value: unknown): boolean => typeof value === 'object' && value !== null && !Array.isArray(value);

/** What is wrong with a list of steps before each of them is looked at. */
function stepsFault(body: unknown): string | null {
  if (!isPlain(body)) return 'An object is wanted here.';
  const { steps } = body as { readonly steps?: unknown };
  if (!Array.isArray(steps)) return null;
  if (steps.length > MOST_STEPS) return `At most ${MOST_STEPS} steps are taken at once.`;
  return steps.every(isPlain) ? null : 'steps: every step is an object.';
}

/** Refuses bodies that are no sensible ones before anything costly is done with them. */
export function bounded(): RequestHandler {
  return (request: Request, response: Response, next: NextFunction): void => {
    const body: unknown = request.body;
    if (body === undefined) {
      next();
      return;
    }
    const fault = shapeFault(body) ?? (request.path.endsWith('/operations') ? stepsFault(body) : null);
    if (fault === null) next();
    else {
      const refusal: Refusal = { statusCode: 400, code: 'invalid', message: fault, place: '' };
      response.status(400).json(refusal);
    }
  };
}
