/** What opens over the page, one at a time. */
export type Panel = 'keys' | 'commands' | 'history' | 'print';
