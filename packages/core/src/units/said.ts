/** Facts without those that nobody says any more: a document has no field that is undefined. */
export const said = <T extends object>(facts: T): T =>
  Object.fromEntries(Object.entries(facts).filter(([, value]) => value !== undefined)) as T;

/** The same; undefined where nothing is left. */
export function anySaid<T extends object>(facts: T): T | undefined {
  const left = said(facts);
  return Object.keys(left).length > 0 ? left : undefined;
}
