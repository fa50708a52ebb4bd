/** A word that is not used on screens, in prints and docs, what stands there instead, and where it is right all the same. */
export interface Retired {
  pattern: RegExp;
  instead: string;
  except?: RegExp;
}

export const RETIRED: Retired[] = [];
