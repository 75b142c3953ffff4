import type { NextFunction, Request, RequestHandler, Response } from 'express';
import type { Refusal } from '@nestplank/contract';

/** Names under which this machine reaches itself. */
const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

/** A host without its port, as a browser writes it. */
const nameOf = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');

const refuse = (response: Response, statusCode: number, message: string): void => {
  const refusal: Refusal = { statusCode, code: 'invalid', message, place: '' };
  response.status(statusCode).json(refusal);
};

/**
 * Lets in only what comes from this machine and from this application's own pages: another name for this address (a page
 * that points its own name here) is refused, and so is whatever a page of another origin asks for or sends, by whatever
 * form. Without an origin come the command line and scripts.
 * @param more further names that are answered to
 */
export function closedDoors(more: readonly string[] = []): RequestHandler {
  const names = new Set([...LOOPBACK, ...more.map((name) => name.toLowerCase())]);
  return (request: Request, response: Response, next: NextFunction): void => {
    const host = request.headers.host ?? '';
    if (!names.has(nameOf(host))) {
      refuse(response, 421, 'This server answers to this machine only.');
      return;
    }
    if (!request.path.startsWith('/api')) {
      next();
      return;
    }
    const { origin } = request.headers;
    const site = request.headers['sec-fetch-site'];
    const foreignOrigin =
      origin !== undefined && origin.toLowerCase() !== `${request.protocol}://${host.toLowerCase()}`;
    const foreignSite = site !== undefined && site !== 'same-origin' && site !== 'none';
    if (foreignOrigin || foreignSite) refuse(response, 403, 'Only the pages of this application may ask for this.');
    else next();
  };
}
