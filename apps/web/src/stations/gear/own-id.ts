/** Types that people make are told from the generic ones by their ids. */
export const isOwn = (id: string): boolean => id.startsWith('own-');
export const ownId = (): string => `own-${crypto.randomUUID()}`;
