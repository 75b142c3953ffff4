import { type CanActivate, type ExecutionContext, HttpStatus, Injectable } from '@nestjs/common';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type { Refusal } from '@nestplank/contract';
import { RefusedError } from './refusals.js';

/** Names under which this machine reaches itself. */
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

/** Whether it is asked under a name that a browser trusts without a certificate. */
export const isLoopback = ({ headers }: Request): boolean => LOOPBACK.includes(nameOf(headers.host ?? ''));

/** A host without its port, as a browser writes it. */
const nameOf = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');

const refuse = (response: Response, statusCode: number, message: string): void => {
  const refusal: Refusal = { statusCode, code: 'invalid', message, place: '' };
  response.status(statusCode).json(refusal);
};

const FOREIGN = 'Only the pages of this application may ask for this.';

/** Whether a page of another origin asks; the command line and scripts come without an origin. */
function isForeign({ headers, protocol }: Request): boolean {
  const { origin, host = '' } = headers;
  const site = headers['sec-fetch-site'];
  const foreignOrigin = origin !== undefined && origin.toLowerCase() !== `${protocol}://${host.toLowerCase()}`;
  return foreignOrigin || (site !== undefined && site !== 'same-origin' && site !== 'none');
}

/** A path as it may be meant, whatever way it is spelled. */
function plainPath(path: string): string {
  try {
    return decodeURIComponent(path)
      .toLowerCase()
      .replace(/[/\\]+/g, '/');
  } catch {
    // what cannot be read may be anything
    return '/api';
  }
}

/**
 * Lets in only what comes from this machine and from this application's own pages: another name for this address (a page
 * that points its own name here) is refused, and so is whatever a page of another origin sends, by whatever form and to
 * whatever path. What such a page may do is follow a link to a page; what it asks of a route is refused by `OwnPages`, by
 * the route that would answer and not by its spelling.
 * @param more further names that are answered to
 */
export function closedDoors(more: readonly string[] = []): RequestHandler {
  const names = new Set([...LOOPBACK, ...more.map((name) => name.toLowerCase())]);
  return (request: Request, response: Response, next: NextFunction): void => {
    if (!names.has(nameOf(request.headers.host ?? ''))) {
      refuse(response, 421, 'This server answers to this machine only.');
      return;
    }
    const asksForPage =
      (request.method === 'GET' || request.method === 'HEAD') && !plainPath(request.path).startsWith('/api');
    if (isForeign(request) && !asksForPage) refuse(response, 403, FOREIGN);
    else next();
  };
}

/** Every route is for the application's own pages. */
@Injectable()
export class OwnPages implements CanActivate {
  canActivate(context: ExecutionContext): boolean {
    if (isForeign(context.switchToHttp().getRequest<Request>()))
      throw new RefusedError(HttpStatus.FORBIDDEN, 'invalid', FOREIGN);
    return true;
  }
}
