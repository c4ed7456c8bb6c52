/** Terms of the form of a field that a controller may hold a coefficient for. */
export const FIELD_TERMS = [
  "bow x",
  "bow y",
  "keystone x",
  "keystone y",
  "shear",
  "own cubic x",
  "own cubic y",
] as const;
export type FieldTerm = (typeof FIELD_TERMS)[number];
