// Starts the built application on this machine's own address. What cannot be decoded as an address is answered here: the
// router would fail at it.
import { createServer } from 'node:http';
import next from 'next';

const hostname = '127.0.0.1';
const port = Number(process.env.PORT ?? 4310);

/** Browsers reuse connections; one that is closed under a request would look like a server that is gone. */
const KEEP_ALIVE_MS = 70_000;

function isDecodable(url) {
  try {
    decodeURIComponent(url.split('?')[0]);
    return true;
  } catch {
    return false;
  }
}

const app = next({ dev: false, hostname, port });
await app.prepare();
const handle = app.getRequestHandler();
const server = createServer((request, response) => {
  if (isDecodable(request.url ?? '/')) return void handle(request, response);
  const error = { code: 'bad-request', message: 'The address has a stray percent sign in it.' };
  response.writeHead(400, { 'content-type': 'application/json' });
  response.end(JSON.stringify({ error }));
});
server.keepAliveTimeout = KEEP_ALIVE_MS;
server.on('error', (error) => {
  const reason =
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken. Choose another one: PORT=4311 npm start`
      : error.message;
  console.error(reason);
  process.exit(1);
});
server.listen(port, hostname, () => console.log(`http://${hostname}:${port}`));
