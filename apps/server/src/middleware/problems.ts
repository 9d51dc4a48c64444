import { InvalidInput, type Problem } from '@schmelz/contract';
import { QuantityError } from '@schmelz/core';
import type { Middleware } from 'koa';
import type { Logger } from 'pino';
import { faultIn } from '../store/fault.ts';
import { Refused } from '../services/errors.ts';

interface HttpError extends Error {
  status?: number;
  type?: string;
}

const TITLES: Record<number, string> = {
  400: 'Not understood',
  401: 'Log in first',
  403: 'Not from this page',
  404: 'Not found',
  405: 'Not possible here',
  413: 'Too large',
  415: 'Wrong kind of content',
  429: 'Too many requests',
};

/** Any error as problem details (RFC 9457); what is nobody's business but ours is logged and not sent. */
export function problemOf(error: unknown, folder: string): Problem {
  if (error instanceof InvalidInput) {
    return { type: 'about:blank', title: 'Not allowed', status: 422, detail: error.message, fields: error.fields };
  }
  if (error instanceof QuantityError) {
    const { quantity, given, unit, allowed, message } = error;
    const fields = [{ field: quantity, value: given, unit, allowed, message }];
    return { type: 'about:blank', title: 'Not allowed', status: 422, detail: message, fields };
  }
  if (error instanceof Refused) {
    const { status, title, message, fields, changes } = error;
    return { type: 'about:blank', title, status, detail: message, fields, changes };
  }
  const fault = faultIn(error, folder);
  if (fault) {
    const detail = `${fault.message} Taps stay on the device that made them until then.`;
    return { type: 'about:blank', title: 'The data folder cannot be used', status: 503, detail };
  }
  const { status, type, message } = error as HttpError;
  if (status && status >= 400 && status < 500) {
    const detail =
      error instanceof SyntaxError || type === 'entity.parse.failed' ? `The request is no JSON: ${message}` : message;
    return { type: 'about:blank', title: TITLES[status] ?? 'Refused', status, detail };
  }
  const detail = 'Something went wrong inside Schmelz; nothing was changed. The log of the server says more.';
  return { type: 'about:blank', title: 'Our mistake', status: 500, detail };
}

export const problems =
  (log: Logger, folder: string): Middleware =>
  async (ctx, next) => {
    try {
      await next();
      if (ctx.body === undefined && ctx.status === 404) {
        ctx.throw(404, `There is nothing at ${ctx.method} ${ctx.path.slice(0, 200)}.`);
      }
      if (ctx.body === undefined && (ctx.status === 405 || ctx.status === 501)) {
        ctx.throw(
          405,
          `${ctx.method} is not possible here; allowed: ${ctx.response.get('allow') || 'GET, POST, PUT, DELETE'}.`,
        );
      }
    } catch (error) {
      const problem = problemOf(error, folder);
      if (problem.status >= 500) log.error({ err: error }, 'request failed');
      ctx.remove('etag'); // a refusal stands for itself
      ctx.status = problem.status;
      ctx.type = 'application/problem+json';
      ctx.body = JSON.stringify(problem);
    }
  };
