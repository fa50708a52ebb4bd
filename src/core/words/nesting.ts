/**
 * What JSON has too much of, found without parsing it, so that no stack ends and nobody waits for it.
 * @param deepest levels of lists and objects that are taken
 * @param most lists and objects that are taken in all
 * @returns null where it has neither; what is written wrongly is left to the parser
 * @example tooMuchJson('[[1],[2]]', 2, 2) // 'many'
 */
export function tooMuchJson(
  json: string,
  deepest: number,
  most = Number.POSITIVE_INFINITY,
): 'deep' | 'many' | null {
  let [depth, parts] = [0, 0];
  let quoted = false;
  for (let i = 0; i < json.length; i++) {
    const sign = json.charCodeAt(i);
    if (quoted) {
      if (sign === 92) i++;
      else if (sign === 34) quoted = false;
    } else if (sign === 34) quoted = true;
    else if (sign === 91 || sign === 123) {
      if (++depth > deepest) return 'deep';
      if (++parts > most) return 'many';
    } else if (sign === 93 || sign === 125) depth--;
  }
  return null;
}
