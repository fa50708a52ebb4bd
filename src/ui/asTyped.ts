/**
 * For fields of codes and symbols, which stay as they are typed: the keyboards of phones begin with a capital, and put
 * words that they know in the place of those that they do not.
 */
export const AS_TYPED = {
  autoComplete: 'off',
  autoCapitalize: 'none',
  autoCorrect: 'off',
  spellCheck: false,
} as const;
