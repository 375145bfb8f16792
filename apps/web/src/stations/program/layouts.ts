import { applySteps, commands, type Device, layBySong, type SetCost, setCost, type Show } from '@yunta/core';

export type LayoutKind = 'role' | 'song';

/** A layout before it is taken: the show as it would be, what it costs, how much of it moves. */
export type Proposal =
  | { readonly fits: true; readonly show: Show; readonly cost: SetCost; readonly moved: number }
  | { readonly fits: false; readonly reason: string };

const places = (show: Show, controller: string): ReadonlySet<string> =>
  new Set(
    Object.values(show.rig.slots)
      .filter((slot) => slot.controller === controller && slot.sound !== null)
      .map((slot) => `${slot.sound} ${slot.bank}.${slot.position}`),
  );

export function propose(show: Show, controller: Device, by: LayoutKind): Proposal {
  const command = commands.layOut(show, controller.id, by);
  if (!command) {
    const layout = by === 'song' ? layBySong(show, controller.id) : null;
    return {
      fits: false,
      reason:
        layout && 'needsBanks' in layout
          ? `needs ${layout.needsBanks} banks, a song each`
          : 'too few banks for one switch a role',
    };
  }
  const result = applySteps(show, command.steps);
  if (!result.ok) return { fits: false, reason: 'cannot be laid out so' };
  const before = places(show, controller.id);
  const moved = [...places(result.value, controller.id)].filter((place) => !before.has(place)).length;
  return { fits: true, show: result.value, cost: setCost(result.value, controller.id), moved };
}
