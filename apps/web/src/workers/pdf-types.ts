import type { Sheet } from '@yunta/core';

export type PaperSize = 'A4' | 'LETTER';

/** What is printed: sheets, and drawings under a title. */
export type Printed =
  | { readonly kind: 'sheet'; readonly sheet: Sheet }
  | { readonly kind: 'drawing'; readonly title: string; readonly about: string; readonly svg: string };

/** What stands at the foot of every page. */
export interface PageFoot {
  readonly rig: string;
  readonly revision: number;
  /** As it is to be read. */
  readonly date: string;
}
