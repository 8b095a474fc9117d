import type { APIRequestContext } from '@playwright/test';

/** What an edge brush found of a scene: the code of its coverage at a place, 0 to 255. */
export async function foundEdge(request: APIRequestContext, id: string, asset: string) {
  const answer = await request.get(`/api/scenes/${id}/coverages/${asset}`);
  const [width, height] = ['x-width', 'x-height'].map((name) => Number(answer.headers()[name]));
  const data = await answer.body();
  return (u: number, v: number) => data[Math.floor(v * height) * width + Math.floor(u * width)];
}
