import { randomBytes } from 'node:crypto';
import { NextResponse, type NextRequest } from 'next/server';
import { AppError } from '@/server/http/app-error';
import { guardRequest } from '@/server/http/guard';

/**
 * Workers that are files of their own have no document, and read nothing but what they run. OpenCV writes its bindings as JavaScript
 * while it loads: only its own worker may do so.
 */
const WORKERS: Record<string, string> = {
  '/segment-worker.js': `'self' 'unsafe-eval' 'wasm-unsafe-eval'`,
  '/detect-worker.js': `'self' 'wasm-unsafe-eval'`,
};

/** Pages answer only this machine, and run only their own scripts. Routes under /api guard themselves. */
export function proxy(request: NextRequest): NextResponse {
  try {
    guardRequest(pageHeaders(request.headers));
  } catch (error) {
    if (error instanceof AppError) return new NextResponse(error.message, { status: error.status });
    throw error;
  }
  const worker = WORKERS[request.nextUrl.pathname];
  if (worker) {
    const response = NextResponse.next();
    response.headers.set(
      'content-security-policy',
      `default-src 'none'; script-src ${worker}; connect-src 'self'`,
    );
    return response;
  }
  const nonce = randomBytes(16).toString('base64');
  const policy = contentPolicy(nonce);
  const headers = new Headers(request.headers);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  return response;
}

/** A page may be opened from a link anywhere; what another site may not do is read or send. */
function pageHeaders(headers: Headers): Headers {
  const own = new Headers(headers);
  if (headers.get('sec-fetch-mode') === 'navigate') own.delete('sec-fetch-site');
  return own;
}

function contentPolicy(nonce: string): string {
  const development = process.env.NODE_ENV === 'development';
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${development ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    `connect-src 'self'${development ? ' ws:' : ''}`,
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

export const config = { matcher: ['/((?!api/|_next/static|_next/image|icon.svg).*)'] };
