/** Text as it is compared: without accents, in lower case. @example withoutAccents('Métallisé') // 'metallise' */
export function withoutAccents(text: string): string {
  return text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
}
