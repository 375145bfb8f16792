import { leadsOf, setPowerSettings } from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { InlineField } from '../../ui/InlineField.tsx';

/** The special leads that there are: what Solve may use. */
export function SpecialLeads() {
  const { show, attempt } = useShow();
  const leads = leadsOf(show.rig);
  const set = (change: Partial<typeof leads>) =>
    attempt(setPowerSettings(show, { leads: { ...leads, chains: [...leads.chains], ...change } }));
  const counted = (typed: string): number | null => (/^\d{1,3}$/.test(typed) ? Number(typed) : null);
  const setCount = (what: 'reversing' | 'adapter') => (typed: string) => {
    const count = counted(typed === '' ? '0' : typed);
    return count === null || count > 200
      ? `“${typed}” is not a number of leads: write 0 to 200.`
      : set({ [what]: count });
  };
  const setChains = (typed: string) => {
    const words = typed.split(/[\s,;]+/).filter((word) => word !== '');
    const chains = words.map(counted);
    const isRight = chains.every((plugs) => plugs !== null && plugs >= 2 && plugs <= 20) && chains.length <= 40;
    return isRight
      ? set({ chains: chains as number[] })
      : `“${typed}” does not tell chain leads: write the plugs of each, 3, 5 for two leads. A lead has 2 to 20.`;
  };
  return (
    <span className="powerleads" role="group" aria-label="Special leads that there are">
      <span className="soft">Leads there are:</span>
      <label>
        reversing{' '}
        <InlineField
          look="boxed"
          label="Reversing leads"
          value={String(leads.reversing)}
          onCommit={setCount('reversing')}
          maxLength={4}
        />
      </label>
      <label>
        adapters{' '}
        <InlineField
          look="boxed"
          label="Adapter leads"
          value={String(leads.adapter)}
          onCommit={setCount('adapter')}
          maxLength={4}
        />
      </label>
      <label>
        chains, plugs of each{' '}
        <InlineField
          look="boxed"
          label="Chain leads, plugs of each"
          value={leads.chains.join(', ')}
          placeholder="none"
          onCommit={setChains}
        />
      </label>
    </span>
  );
}
