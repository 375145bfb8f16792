import {
  type Changed,
  type Figures,
  loopAtZone,
  otherPlaces,
  type OtherPlace,
  patchChange,
  type Pin,
  type PlanCost,
  type PlannedLine,
  costDifference,
  costOf,
  wantPlace,
} from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../../api/rig.tsx';
import { type Answer, useAnswer, useProblem } from './use-loop-plan.ts';
import { useFigures } from '../../figures/use-figures.ts';
import { wiredSo } from './wired-so.ts';
import { DataTable } from '../../../ui/DataTable.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';

/** Where else a piece could go, all others staying: what each place costs, and what would be found there. */
export function Elsewhere({
  planned,
  piece,
  onClose,
}: {
  readonly planned: PlannedLine;
  readonly piece: number;
  readonly onClose: () => void;
}) {
  const { show, run } = useShow();
  const { name, id } = planned.line.pieces[piece];
  const places = useMemo(() => otherPlaces(planned, piece), [planned, piece]);
  const here = useFigures(useMemo(() => wiredSo(planned, planned), [planned]));
  const hold = (place: OtherPlace) => {
    run(wantPlace(show, id, pinOf(planned, place, piece)));
    onClose();
  };
  return (
    <section aria-label={`Where else ${name} could go`}>
      <div className="sectionhead">
        <h2>Where else could {name} go?</h2>
        <span className="soft">against the plan</span>
      </div>
      <div className="sheet" style={{ overflowX: 'auto' }}>
        <DataTable
          label={`Where else ${name} could go`}
          className="loops"
          columns={[
            { head: 'Place' },
            { head: 'Switched' },
            { head: 'What it costs, all others staying' },
            { head: 'If the others may move' },
            { head: 'Plugs' },
            { head: 'Stop the show' },
            { head: 'Fix before load-in' },
            { head: 'Recall' },
            { head: '', width: 110 },
          ]}
        >
          <tr>
            <td>
              <b>where the plan has it</b>
            </td>
            <td />
            <td />
            <td />
            <td className="num">{plugsOf(planned, planned)}</td>
            <FigureCells figures={here} />
            <td />
          </tr>
          {places.map((place) => (
            <PlaceRow key={place.where} planned={planned} place={place} piece={piece} onHold={() => hold(place)} />
          ))}
        </DataTable>
        {places.length === 0 && (
          <p className="soft" style={{ margin: 0, padding: '8px 12px' }}>
            Nothing switches it, so that it stays in line. Let something switch it, and other places come up.
          </p>
        )}
      </div>
    </section>
  );
}

function PlaceRow({
  planned,
  place,
  piece,
  onHold,
}: {
  readonly planned: PlannedLine;
  readonly place: OtherPlace;
  readonly piece: number;
  readonly onHold: () => void;
}) {
  const after = useMemo(() => wiredSo(planned, place), [planned, place]);
  const figures = useFigures(after);
  const cost = costOf(planned.compiled, planned.plan)!;
  const { id, name } = planned.line.pieces[piece];
  const changed = useMemo(
    (): Changed => ({ held: { piece: id, pin: pinOf(planned, place, piece) } }),
    [planned, place, piece, id],
  );
  const { answer } = useAnswer(`held ${place.where}`, useProblem(planned.show, planned.line, changed));
  return (
    <tr>
      <td>{place.where}</td>
      <td className="soft nowrap">{place.switchedBy}</td>
      <td>{costDifference(cost, place.cost)}</td>
      <td className="soft">{freelyWords(cost, place, answer)}</td>
      <td className="num">{plugsOf(planned, place)}</td>
      <FigureCells figures={figures} />
      <td style={{ textAlign: 'right' }}>
        <LinkButton aria-label={`Hold it there: ${name}, ${place.where}`} onClick={onHold}>
          Hold it there
        </LinkButton>
      </td>
    </tr>
  );
}

function FigureCells({ figures }: { readonly figures: Figures | null }) {
  if (!figures) return <td colSpan={3} className="soft" />;
  return (
    <>
      <td className="num">{figures.findings['stops-the-show']}</td>
      <td className="num">{figures.findings['fix-before-load-in']}</td>
      <td className="num nowrap">
        {figures.recall} of {figures.judged}
      </td>
    </>
  );
}

const plugsOf = ({ show, line, compiled }: PlannedLine, { plan }: Pick<OtherPlace, 'plan'>): number =>
  patchChange(show, line, compiled, plan).plugs;

/** What the best plan with the piece there costs; nothing while it is not known. */
function freelyWords(cost: PlanCost, place: OtherPlace, answer: Answer | null): string {
  if (!answer || answer.state === 'working') return '';
  if (!answer.cost) return 'no plan is allowed';
  const words = costDifference(cost, answer.cost);
  return words === costDifference(cost, place.cost) ? 'the same' : words;
}

/** A place as it is wanted: the loop by its number where it is one. */
function pinOf({ compiled }: PlannedLine, { plan }: OtherPlace, piece: number): Pin {
  const zone = plan.zones[piece];
  if (zone < 0) return 'left out';
  return zone === 0 ? 'front' : zone === compiled.lastZone ? 'after' : (loopAtZone(compiled, zone) ?? 'insert');
}
