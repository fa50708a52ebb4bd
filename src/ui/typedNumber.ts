import { type LengthUnit, readLength, readNumber, readWhole } from '../core/words/numbers';

/** How a typed number is to be understood: counted, measured in a unit, or any. */
export type NumberKind = 'whole' | 'any' | LengthUnit;

/** The number that was typed; null where it is none, or an empty text. */
export function typedNumber(text: string, kind: NumberKind): number | null {
  if (kind === 'whole') return readWhole(text);
  return kind === 'any' ? readNumber(text) : (readLength(text, kind)?.length ?? null);
}

/** For a field of a form: what is typed becomes its number; what is none becomes NaN, which the schema refuses in words. */
export function asNumber(kind: NumberKind): { setValueAs: (value: unknown) => unknown } {
  return {
    setValueAs: (value) =>
      typeof value === 'string' && value.trim() !== '' ? (typedNumber(value, kind) ?? Number.NaN) : value,
  };
}
