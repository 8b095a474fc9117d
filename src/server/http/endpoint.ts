import { ValidationError, type InferType, type Schema } from 'yup';
import { parseJson } from '@/core/scene/parse-json';
import { AppError, diskFull } from './app-error';
import { guardRequest } from './guard';
import { LIMITS } from './limits';

type Context<P> = { params: Promise<P> };

/**
 * Wraps a route: checks where the request comes from, and turns faults into `{ error: { code, message } }` with their
 * status. A fault nobody foresaw is logged and answered with 500, without its details.
 */
export function endpoint<P = object>(
  handle: (request: Request, params: P) => Promise<Response> | Response,
): (request: Request, context: Context<P>) => Promise<Response> {
  return async (request, context) => {
    try {
      guardRequest(request.headers);
      return await handle(request, await context.params);
    } catch (error) {
      // Nobody waits for the answer any more, and the work was given up for that.
      if (request.signal.aborted) return new Response(null, { status: 499 });
      return faultResponse(error);
    }
  };
}

function faultResponse(error: unknown): Response {
  const fault = asAppError(error);
  if (fault.status === 500) console.error(error);
  const { status, code, message, detail } = fault;
  return Response.json({ error: { code, message, ...detail } }, { status });
}

function asAppError(error: unknown): AppError {
  if (error instanceof AppError) return error;
  if (error instanceof ValidationError) return new AppError(400, 'bad-request', `${error.message}.`);
  if (diskFull(error)) {
    return new AppError(
      507,
      'disk-full',
      'The disk is full. Free some space; your work is kept in this window.',
    );
  }
  return new AppError(500, 'fault', 'Something went wrong on the server. Try again.');
}

/** A request's JSON body, checked by a schema. Throws 400 or 413. */
export async function readBody<S extends Schema>(request: Request, schema: S): Promise<InferType<S>> {
  const text = await readText(request, LIMITS.bodyBytes);
  let value: unknown;
  try {
    value = parseJson(text, LIMITS.jsonDepth);
  } catch {
    throw new AppError(400, 'bad-request', 'The request is not JSON that Sundew reads.');
  }
  return await schema.validate(value, { strict: true });
}

/** A request's body as text. Throws 413. */
export async function readText(request: Request, mostBytes: number): Promise<string> {
  const tooLarge = () => new AppError(413, 'too-large', 'The request is too large.');
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  for await (const chunk of request.body ?? []) {
    bytes += chunk.byteLength;
    if (bytes > mostBytes) throw tooLarge();
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}
