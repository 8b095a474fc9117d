import fc from 'fast-check';
import { expect, it } from 'vitest';
import { ArenaFullError, createArena, type Block } from './arena';

const MEBIBYTE = 2 ** 20;

it('hands out aligned blocks that never overlap, in any order of taking and giving back', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ bytes: fc.integer({ min: 1, max: 200_000 }), drop: fc.nat(9) })),
      (steps) => {
        const arena = createArena(64 * MEBIBYTE);
        let held: Block[] = [];
        for (const { bytes, drop } of steps) {
          const block = arena.allocate(bytes);
          expect(block.offset % 64).toBe(0);
          expect(block.bytes).toBeGreaterThanOrEqual(bytes);
          expect(block.offset + block.bytes).toBeLessThanOrEqual(arena.memory.buffer.byteLength);
          for (const other of held) {
            const apart =
              block.offset >= other.offset + other.bytes || other.offset >= block.offset + block.bytes;
            expect(apart).toBe(true);
          }
          held.push(block);
          if (drop < held.length && drop % 2 === 0) {
            arena.release(held[drop]);
            held = held.filter((_, i) => i !== drop);
          }
        }
        expect(arena.used()).toBe(held.reduce((sum, block) => sum + block.bytes, 0));
      },
    ),
    { numRuns: 40 },
  );
});

it('uses what was given back again, also for a larger block made of neighbours', () => {
  const arena = createArena(8 * MEBIBYTE);
  const blocks = [1, 2, 3, 4, 5, 6].map(() => arena.allocate(MEBIBYTE));
  blocks.forEach(arena.release);
  expect(arena.allocate(5 * MEBIBYTE).offset).toBe(blocks[0].offset);
});

it('says when it is full', () => {
  const arena = createArena(2 * MEBIBYTE);
  expect(() => arena.allocate(3 * MEBIBYTE)).toThrow(ArenaFullError);
});

it('takes a machine without memory for a full arena, so that what is kept is dropped for it', () => {
  const arena = createArena(8 * MEBIBYTE);
  arena.memory.grow = () => {
    throw new RangeError('WebAssembly.Memory.grow(): Unable to grow instance memory');
  };
  expect(() => arena.allocate(3 * MEBIBYTE)).toThrow(ArenaFullError);
});
