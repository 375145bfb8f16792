import type { Anatomy } from '../model/anatomy.ts';
import { anatomyLines } from './anatomy-words.ts';

/** A list of an anatomy that is not what it was: what is there now, and what is gone. */
export interface AnatomyDifference {
  readonly list: string;
  readonly added: readonly string[];
  readonly gone: readonly string[];
}

/** How one anatomy differs from another, list by list, in words; what reads the same is the same. */
export function anatomyDifferences(now: Anatomy, before: Anatomy): readonly AnatomyDifference[] {
  const was = anatomyLines(before);
  return Object.entries(anatomyLines(now)).flatMap(([list, lines]) => {
    const added = lines.filter((line) => !was[list].includes(line));
    const gone = was[list].filter((line) => !lines.includes(line));
    return added.length === 0 && gone.length === 0 ? [] : [{ list, added, gone }];
  });
}
