import type { Show, StrayReport } from '@yunta/core';

/** What an accidental press costs, in one line: “silences everything”. */
export function costWords({ rig }: Show, { effect, tried, silenced, atOnce }: StrayReport): string {
  const sounds = (ids: readonly string[]): string =>
    ids.length === tried
      ? 'everything'
      : ids.length > 3
        ? `${ids.length} sounds`
        : ids.map((id) => rig.sounds[id]?.name).join('; ');
  switch (effect) {
    case 'silences':
      return `silences ${sounds(silenced)}`;
    case 'spoils-others':
      return `makes more than the piece itself wrong in ${sounds(atOnce)}`;
    case 'changes-itself':
      return `changes this piece alone, heard in ${atOnce.length} of ${tried} sounds`;
    case 'unheard':
      return 'is not heard';
  }
}

/** Which switches cost a sound more than their own piece: “Tuner”; a dash where none does. */
export function lostTo({ rig }: Show, presses: readonly StrayReport[], sound: string): string {
  const names = presses
    .filter(({ effect, silenced, atOnce }) =>
      effect === 'silences' ? silenced.includes(sound) : effect === 'spoils-others' && atOnce.includes(sound),
    )
    .map(({ device }) => rig.devices[device]?.name);
  return names.length === 0 ? '—' : `lost to ${names.join(', ')}`;
}

/** When all is right again. */
export const untilWords = ({ after, isUndoneByItself }: StrayReport): string =>
  after.length === 0
    ? 'the next slot is pressed'
    : isUndoneByItself
      ? 'it is pressed again'
      : 'somebody sets it right by hand: pressing it again does not';
