import { domainLabel, switchLabel } from '../../../model/labels.ts';
import { movedBy } from '../../../model/anatomy.ts';
import { followVariable } from '../../../recall/prove/follow-variable.ts';
import { type Context, defineRule, type Reported } from '../../define-rule.ts';
import { none } from '../../queries.ts';

/** A control that presses move from value to value by a table: a track of a looping station. */
const sounding = new Set(['recording', 'playing', 'overdubbing']);

export const loopNotAsMeant = defineRule({
  meta: {
    id: 'show/loop-not-as-meant',
    severity: 'fix-before-load-in',
    title: 'A loop that does something else than is meant',
    why: 'What a press of a track does turns on what the track does already: the same press records, plays, or records over what is there.',
    remedy: 'Recall an empty memory first, press another track, or plan one press more.',
    source: 'the set list, played from power-up',
    messages: {
      otherwise: '{song}, {part}: {switch} is meant for {meant}, and is {is}{since}.',
      'plays-on': '{track} of {device} still goes on ({is}) when {song} is over.',
    },
  },
  check: (context) => {
    const { show, wiring, prover } = context;
    const found: Reported<'otherwise' | 'plays-on'>[] = [];
    for (const device of prover.model.devices) {
      const { anatomy, device: own } = device.wired;
      const turned = new Set(
        anatomy.switches.flatMap(({ actions }) => actions.flatMap((action) => ('turn' in action ? [action.turn] : []))),
      );
      for (const id of turned) {
        const control = device.controls.get(id);
        if (!control || !isPressed(context, own.id)) continue;
        const told = (value: number): string =>
          domainLabel(control.control.domain, prover.model.values.controlValue(value)!);
        const parts = followVariable(prover, control.variable);
        /** Where it began to hold what it holds. */
        let since = '';
        parts.forEach(({ events, left }, i) => {
          const { part, sound } = prover.set.parts[i];
          const song = show.songbook.songs[part.song].name;
          for (const { event, before, after } of events) {
            const { action } = event;
            const isOwn =
              action?.kind === 'foot' &&
              action.device === own.id &&
              anatomy.switches
                .find((footSwitch) => footSwitch.id === action.switch)
                ?.actions.some((each) => movedBy(each) === id);
            const wrong =
              isOwn && action.meant !== undefined
                ? after.find((value) => told(value) !== String(action.meant))
                : undefined;
            if (isOwn && wrong !== undefined)
              found.push({
                messageId: 'otherwise',
                at: { part: part.id, device: own.id, ...(sound ? { sound: sound.id } : {}) },
                data: {
                  song,
                  part: part.name,
                  switch: switchLabel(wiring, own.id, action.switch),
                  meant: String(action.meant),
                  is: told(wrong),
                  since: since === '' ? '' : `: it holds what was recorded in ${since}`,
                },
              });
            const now = after.map(told);
            if (now.includes('recording') && !before.map(told).includes('recording')) since = `${song}, ${part.name}`;
            else if (now.every((is) => is === 'empty')) since = '';
          }
          const next = prover.set.parts[i + 1]?.part;
          const goesOn = left.find((value) => sounding.has(told(value)));
          if (goesOn !== undefined && next?.song !== part.song && events.length > 0)
            found.push({
              messageId: 'plays-on',
              at: { part: part.id, device: own.id },
              data: { track: control.control.label, device: own.name, song, is: told(goesOn) },
            });
        });
      }
    }
    return found.length > 0 ? found : none;
  },
});

/** Whether the set presses anything of a device at all. */
const isPressed = ({ prover }: Context, device: string): boolean =>
  prover.set.parts.some(({ events }) =>
    events.some(({ action }) => action?.kind === 'foot' && action.device === device),
  );
