import type { Random } from './random.ts';
import type { CaseRig } from './recall-adapter.ts';

/**
 * The same rig with switches that are something else on another page: on some devices what two or three of them do
 * goes on to one switch, each of it on a page of its own, and another switch turns the pages over.
 */
export function withPages(rig: CaseRig, r: Random): CaseRig {
  const devices = Object.fromEntries(
    Object.entries(rig.devices ?? {}).map(([name, device]) => {
      const actions = Object.values(device.foot ?? {})
        .flatMap(({ does }) => does)
        .filter((action) => 'toggle' in action && action.toggle !== 'preset');
      if (actions.length === 0 || r.chance(0.3)) return [name, device];
      // One alone is there on the second page only.
      const paged = actions.slice(0, 3);
      const first = paged.length === 1 ? 2 : 1;
      const pages = Array.from({ length: Math.max(2, paged.length) }, (_, i) => i + 1);
      const page = { domain: pages, scope: 'global' as const, powerup: r.pick([1, 1, 2]), owner: 'foot' as const };
      return [
        name,
        {
          ...device,
          controls: { ...device.controls, page },
          foot: {
            paged: {
              planned: r.chance(0.2),
              does: paged.map((action, i) => ({ ...action, armed: { control: 'page', values: [first + i] } })),
            },
            turn: { planned: false, does: [{ next: 'page', wrap: r.chance(0.8) }] },
          },
        },
      ];
    }),
  );
  // Steps that were written name switches that are not there any more.
  const set = (rig.set ?? []).map((part) => (Array.isArray(part) ? part : { ...part, before: [], after: [] }));
  return { ...rig, devices, set } as CaseRig;
}
