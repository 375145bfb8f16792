import { inOrder, type Show } from './documents.ts';
import { type Part, type SetList } from './songbook.ts';

/** The set list that is played: the chosen one, else the first. */
export function chosenSetList({ rig, songbook }: Show): SetList | undefined {
  const lists = inOrder(songbook.setLists);
  return lists.find((list) => list.id === rig.settings.setList) ?? lists[0];
}

/**
 * Ids of the parts in the order in which the chosen set list plays them; with no set list, songs and parts as filed.
 */
export const partsInSetOrder = (show: Show): readonly string[] => playedParts(show).map((part) => part.id);

/** The same parts themselves. */
export function playedParts(show: Show): readonly Part[] {
  const { songbook } = show;
  const chosen = chosenSetList(show);
  const songs = chosen ? chosen.songs : inOrder(songbook.songs).map((song) => song.id);
  const parts = inOrder(songbook.parts);
  return songs.flatMap((song) => parts.filter((part) => part.song === song));
}
