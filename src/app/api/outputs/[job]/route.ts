import { endpoint } from '@/server/http/endpoint';
import { outputs } from '@/server/output/outputs';

type Params = { job: string };

export const GET = endpoint<Params>((_request, { job }) => Response.json(outputs().status(job)));

export const DELETE = endpoint<Params>(async (_request, { job }) =>
  Response.json(await outputs().cancel(job)),
);
