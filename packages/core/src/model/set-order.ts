import { inOrder, type Show } from './documents.ts';

/** Ids of the parts in the order in which the chosen set list plays them; with no set list, songs and parts as filed. */
export function partsInSetOrder(show: Show): readonly string[] {
  const { songbook, rig } = show;
  const lists = inOrder(songbook.setLists);
  const chosen = lists.find((list) => list.id === rig.settings.setList) ?? lists[0];
  const songs = chosen ? chosen.songs : inOrder(songbook.songs).map((song) => song.id);
  const parts = inOrder(songbook.parts);
  return songs.flatMap((song) => parts.filter((part) => part.song === song).map((part) => part.id));
}
