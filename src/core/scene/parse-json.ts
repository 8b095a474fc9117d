/** How deep what is meant is nested at most. */
export const JSON_DEPTH = 40;

/** JSON that is nested deeper than anything that is meant. */
export class JsonDepthError extends Error {
  override name = 'JsonDepthError';
}

const [QUOTE, BACKSLASH, BRACKET, END_BRACKET, BRACE, END_BRACE] = [...'"\\[]{}'].map((c) => c.charCodeAt(0));

/**
 * Parses JSON that is nested at most `depth` deep. Deeper text is refused before a value is made of it: to walk such a value
 * would use up the stack. Throws JsonDepthError, or SyntaxError for what is not JSON.
 */
export function parseJson(text: string, depth: number): unknown {
  let open = 0;
  let inString = false;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (inString) {
      if (code === BACKSLASH) i++;
      else if (code === QUOTE) inString = false;
    } else if (code === QUOTE) {
      inString = true;
    } else if (code === BRACKET || code === BRACE) {
      if (++open > depth) throw new JsonDepthError(`The text is nested more than ${depth} deep.`);
    } else if (code === END_BRACKET || code === END_BRACE) {
      open--;
    }
  }
  return JSON.parse(text) as unknown;
}
