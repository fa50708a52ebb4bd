/** What is asked of a key press. */
type Press = Pick<KeyboardEvent, 'key' | 'isComposing' | 'keyCode'>;

/** While signs are composed, keys choose among them. Safari ends the composing before it tells of the Enter that did. */
const BY_AN_INPUT_METHOD = 229;

/** Whether a key belongs to the composing of signs, as Chinese, Japanese and Korean are typed, and not to the page. */
export function isComposed({ isComposing, keyCode }: Omit<Press, 'key'>): boolean {
  return isComposing || keyCode === BY_AN_INPUT_METHOD;
}

/** Whether a key that was pressed in a field says that its entry is done. */
export function endsEntry({ nativeEvent }: { nativeEvent: Press }): boolean {
  return nativeEvent.key === 'Enter' && !isComposed(nativeEvent);
}
