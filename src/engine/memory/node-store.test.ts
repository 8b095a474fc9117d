import { describe, expect, it } from 'vitest';
import { allOf } from '../all-of';
import { createArena } from './arena';
import { createNodeStore } from './node-store';

const store = () => createNodeStore(createArena(2 ** 20), 2 ** 20);

/** A node that is made when it is told to. */
function pending() {
  let finish!: () => void;
  let made = 0;
  const gate = new Promise<void>((resolve) => (finish = resolve));
  const make = async () => {
    made++;
    await gate;
    return { blocks: [], refs: { at: 7 } };
  };
  return { make, finish, made: () => made };
}

describe('a node', () => {
  it('that is asked for twice while it is made is made once', async () => {
    const nodes = store();
    const { make, finish, made } = pending();
    const both = Promise.all([nodes.node('a', make), nodes.node('a', make)]);
    expect(nodes.has('a')).toBe(false);
    finish();
    const [first, second] = await both;
    expect(second).toBe(first);
    expect(made()).toBe(1);
    expect(nodes.has('a')).toBe(true);
  });

  it('that fails fails for all who asked, and can be made again', async () => {
    const nodes = store();
    const fails = () => Promise.reject(new Error('no plate'));
    const both = await Promise.allSettled([nodes.node('a', fails), nodes.node('a', fails)]);
    expect(both.map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    const { make, finish } = pending();
    finish();
    expect((await nodes.node('a', make)).refs).toEqual({ at: 7 });
  });
});

describe('allOf', () => {
  it('gives what all come to, in order, promised or not', async () => {
    expect(await allOf([Promise.resolve(1), 'b', undefined] as const)).toEqual([1, 'b', undefined]);
  });

  it('fails only when all is done', async () => {
    const { make, finish } = pending();
    const done: string[] = [];
    const slow = make().then(() => done.push('slow'));
    const all = allOf([Promise.reject(new Error('first')), slow]).catch((error: Error) =>
      done.push(error.message),
    );
    await Promise.resolve();
    expect(done).toEqual([]);
    finish();
    await all;
    expect(done).toEqual(['slow', 'first']);
  });
});
