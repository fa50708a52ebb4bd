/**
 * Whether JSON is nested deeper than allowed; it is not parsed for that, so that no stack ends.
 * @param most levels of lists and objects
 * @example isNestedDeeper('[[1]]', 1) // true
 */
export function isNestedDeeper(json: string, most: number): boolean {
  let depth = 0;
  let quoted = false;
  for (let i = 0; i < json.length; i++) {
    const sign = json.charCodeAt(i);
    if (quoted) {
      if (sign === 92) i++;
      else if (sign === 34) quoted = false;
    } else if (sign === 34) quoted = true;
    else if (sign === 91 || sign === 123) {
      if (++depth > most) return true;
    } else if (sign === 93 || sign === 125) depth--;
  }
  return false;
}
