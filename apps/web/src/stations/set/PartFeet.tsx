import {
  actionLabel,
  type CastAction,
  castOf,
  commands,
  controlLabel,
  moments,
  type Part,
  type PartPlan,
  type Wiring,
} from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { SeverityMark } from '../../ui/SeverityMark.tsx';

const momentWords = { before: 'before', on: 'on the bar line', after: 'after' } as const;

/**
 * What feet and hands do for a part, by when: what was written by hand can be taken away, what follows from the sounds
 * cannot.
 */
export function PartFeet({ part, plan }: { readonly part: Part; readonly plan: PartPlan | undefined }) {
  const { show, run, wiring } = useShow();
  const cast = castOf(show.rig, part.id);
  if (!cast) return null;
  const steps = moments.map((when) => ({
    when,
    written: when === 'on' ? [] : cast[when],
    derived: (plan?.steps ?? []).flatMap((step) =>
      step.isDerived && step.when === when && step.action ? [step.action] : [],
    ),
  }));
  const drop = (when: 'before' | 'after', action: CastAction) =>
    run(
      commands.setCast(
        show,
        cast.id,
        when,
        cast[when].filter((other) => other !== action),
      ),
    );
  const mean = (when: 'before' | 'after', action: CastAction, meant: string) => {
    if (action.kind !== 'foot') return;
    const { meant: _, ...press } = action;
    const next: CastAction = meant === '' ? press : { ...press, meant };
    run(
      commands.setCast(
        show,
        cast.id,
        when,
        cast[when].map((other) => (other === action ? next : other)),
      ),
    );
  };
  return (
    <span className="feet">
      {steps.map(({ when, written, derived }) =>
        written.length + derived.length === 0 ? null : (
          <span key={when} className="moment">
            <span className="soft">{momentWords[when]}</span>
            {when !== 'on' &&
              written.map((action, i) => (
                <span key={i} className="doing" data-hands={action.kind === 'cue' || undefined}>
                  {actionLabel(wiring, unmeant(action))}{' '}
                  {action.kind === 'foot' && meanings(wiring, action).length > 0 && (
                    <CellSelect
                      label={`What ${actionLabel(wiring, unmeant(action))} ${when} ${part.name} is meant for`}
                      value={action.meant === undefined ? '' : String(action.meant)}
                      placeholder="for …"
                      choices={[
                        { value: '', label: 'for anything' },
                        ...meanings(wiring, action).map((meant) => ({ value: meant, label: `for ${meant}` })),
                      ]}
                      onPick={(meant) => mean(when, action, meant)}
                    />
                  )}
                  <LinkButton
                    aria-label={`Take ${actionLabel(wiring, action)} ${when} ${part.name} away`}
                    title="Written by hand: take it away"
                    onClick={() => drop(when, action)}
                  >
                    ×
                  </LinkButton>
                </span>
              ))}
            {derived.map((action, i) => (
              <span key={i} className="doing" data-hands={action.kind === 'cue' || undefined}>
                {actionLabel(wiring, action)}
              </span>
            ))}
          </span>
        ),
      )}
      <Failure plan={plan} />
      <AddFoot part={part} />
    </span>
  );
}

/** The press alone: what it is meant for stands beside it. */
const unmeant = (action: CastAction): CastAction =>
  action.kind === 'foot' ? { kind: 'foot', device: action.device, switch: action.switch } : action;

/** What a press may be meant for, where it turns on what it finds: a track records, plays, or records over. */
const meanings = (wiring: Wiring, { device, switch: id }: Extract<CastAction, { kind: 'foot' }>): readonly string[] => [
  ...new Set(
    (wiring.device.get(device)?.anatomy.switches.find((footSwitch) => footSwitch.id === id)?.actions ?? []).flatMap(
      (action) => ('turn' in action ? Object.values(action.table).map(String) : []),
    ),
  ),
];

/** Where nothing that feet and hands can do brings the sound up. */
function Failure({ plan }: { readonly plan: PartPlan | undefined }) {
  const { wiring } = useShow();
  const verdict = plan?.judgement?.verdict;
  if (!plan || verdict === undefined || verdict === 'recalls') return null;
  return (
    <span className="moment">
      <SeverityMark is={verdict === 'does-not' ? 'stops-the-show' : 'unknown'} size={13} />
      {verdict !== 'does-not'
        ? 'cannot be known'
        : plan.stuck && plan.stuck.length > 0
          ? `nothing moves ${plan.stuck.map((ref) => controlLabel(wiring, ref)).join(', ')}`
          : 'no presses bring it up'}
    </span>
  );
}

function AddFoot({ part }: { readonly part: Part }) {
  const { show, run, wiring } = useShow();
  const cast = castOf(show.rig, part.id)!;
  const switches = wiring.devices.flatMap(({ device, anatomy }) =>
    anatomy.switches.map((footSwitch) => ({ device, footSwitch })),
  );
  if (switches.length === 0) return null;
  return (
    <span style={{ width: 74 }}>
      <CellSelect
        label={`Plan a foot for ${part.name}`}
        value=""
        placeholder="+ foot"
        choices={moments
          .filter((when) => when !== 'on')
          .flatMap((when) =>
            switches.map(({ device, footSwitch }) => ({
              value: `${when} ${device.id} ${footSwitch.id}`,
              label: `${when}: ${device.name}, ${footSwitch.label.toLowerCase()}`,
            })),
          )}
        onPick={(picked) => {
          const [when, device, id] = picked.split(' ');
          const action: CastAction = { kind: 'foot', device, switch: id };
          if (when === 'before') run(commands.setCast(show, cast.id, 'before', [action, ...cast.before]));
          else run(commands.setCast(show, cast.id, 'after', [...cast.after, action]));
        }}
      />
    </span>
  );
}
