/**
 * How deep a JSON text is nested and how many entries it holds (commas and opening brackets outside of texts), counted
 * without parsing: what would be too much for the parser, or for those after it, is refused before it costs anything.
 * Of a text that is no JSON the figures say nothing, and the parser refuses it.
 */
export function jsonSize(json: string): { readonly depth: number; readonly entries: number } {
  let depth = 0;
  let deepest = 0;
  let entries = 0;
  let inText = false;
  for (let i = 0; i < json.length; i += 1) {
    const c = json.charCodeAt(i);
    if (inText) {
      if (c === backslash) i += 1;
      else if (c === quote) inText = false;
    } else if (c === quote) inText = true;
    else if (c === comma) entries += 1;
    else if (c === brace || c === bracket) {
      entries += 1;
      depth += 1;
      if (depth > deepest) deepest = depth;
    } else if (c === closingBrace || c === closingBracket) depth -= 1;
  }
  return { depth: deepest, entries };
}

const [quote, backslash, comma, brace, bracket, closingBrace, closingBracket] = [...'"\\,{[}]'].map((text) =>
  text.charCodeAt(0),
);
