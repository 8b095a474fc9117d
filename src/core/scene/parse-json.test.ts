import fc from 'fast-check';
import { expect, it } from 'vitest';
import { JsonDepthError, parseJson } from './parse-json';

const nested = (depth: number) => '['.repeat(depth) + ']'.repeat(depth);

it('reads whatever JSON is not too deep', () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
      expect(parseJson(JSON.stringify(value), 40)).toEqual(JSON.parse(JSON.stringify(value)));
    }),
  );
  expect(parseJson(nested(40), 40)).toEqual(JSON.parse(nested(40)));
});

it('refuses what is nested deeper, however deep, before it makes a value of it', () => {
  expect(() => parseJson(nested(41), 40)).toThrow(JsonDepthError);
  expect(() => parseJson(nested(5_000_000), 40)).toThrow(JsonDepthError);
  expect(() => parseJson('{"a":'.repeat(200_000), 40)).toThrow(JsonDepthError);
});

it('does not count what stands in text', () => {
  const text = JSON.stringify({ title: `${nested(100)}"\\"[[{{` });
  expect(parseJson(text, 2)).toEqual(JSON.parse(text));
});

it('says of what is no JSON that it is none', () => {
  expect(() => parseJson('{', 40)).toThrow(SyntaxError);
});
