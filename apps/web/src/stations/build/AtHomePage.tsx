import {
  type AtHome,
  freshId,
  freshName,
  leaveAtHome,
  losses,
  rangeText,
  variantBy,
  whatCanStayAtHome,
  why,
} from '@yunta/core';
import { Fragment, useMemo, useState } from 'react';
import { useRig, useSaved, useShow } from '../../api/rig.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { Why } from '../../ui/Why.tsx';

/** Piece by piece less: what the rig weighs and needs then, and which songs it no longer plays. */
export function AtHomePage() {
  const { show } = useShow();
  const curve = useMemo(() => whatCanStayAtHome(show), [show]);
  const [opened, open] = useState<number | null>(null);
  const most = Math.max(1, ...curve.map(({ songs }) => songs.length));
  return (
    <section aria-label="What can stay at home">
      <div className="sectionhead">
        <h2>What can stay at home</h2>
        <span className="soft">
          for each number of pieces the choice that loses the fewest songs; a song is lost when a sound of it wants a
          piece on that is not there
        </span>
      </div>
      {curve.length < 2 ? (
        <p className="sheet soft" style={{ margin: 0, padding: '10px 14px' }}>
          There is no piece between instrument and end of the line that could stay at home.
        </p>
      ) : (
        <div className="sheet scroll-x">
          <DataTable className="build">
            <thead>
              <tr>
                <th>At home</th>
                <th>Songs lost</th>
                <th style={{ width: 130 }} />
                <th>Pieces left</th>
                <th>Need an output</th>
                <th>Weigh</th>
                <th>Cost</th>
                <th>Which stay at home</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {curve.map((point, k) => (
                <Fragment key={k}>
                  <PointRow
                    point={point}
                    k={k}
                    most={most}
                    isOpen={opened === k}
                    onOpen={() => open(opened === k ? null : k)}
                  />
                  {opened === k && <LossRow point={point} />}
                </Fragment>
              ))}
            </tbody>
          </DataTable>
        </div>
      )}
    </section>
  );
}

function PointRow({
  point,
  k,
  most,
  isOpen,
  onOpen,
}: {
  readonly point: AtHome;
  readonly k: number;
  readonly most: number;
  readonly isOpen: boolean;
  readonly onOpen: () => void;
}) {
  const { show } = useShow();
  const { figures, songs, left, isProved } = point;
  const name = (id: string): string => show.rig.devices[id]?.name ?? id;
  return (
    <tr>
      <td className="num">{k}</td>
      <td className="num">
        <Why evidence={why.songsLost(point, name)} />
        {!isProved && <span className="soft"> or fewer</span>}
      </td>
      <td>
        <svg width={120} height={12} aria-hidden="true">
          <rect
            x={0}
            y={2}
            width={Math.max(songs.length > 0 ? 2 : 0, (songs.length / most) * 118)}
            height={8}
            fill="var(--stop)"
          />
          <line x1={0.5} x2={0.5} y1={0} y2={12} stroke="var(--ink)" />
        </svg>
      </td>
      <td className="num">{figures.pieces}</td>
      <td className="num">{figures.loads}</td>
      <td className="num">
        <Why dense evidence={why.weightAlong(point)} />
      </td>
      <td className="num">
        {figures.price[1] > 0 && rangeText(...figures.price)}
        {figures.price[1] > 0 && figures.unpriced > 0 && <span className="soft"> at least</span>}
      </td>
      <td>{left.length === 0 ? <span className="soft">nothing</span> : left.map(name).join(', ')}</td>
      <td className="doings">
        {left.length > 0 && (
          <LinkButton aria-expanded={isOpen} aria-label={`What is lost with ${k} at home`} onClick={onOpen}>
            What is lost
          </LinkButton>
        )}
      </td>
    </tr>
  );
}

function LossRow({ point: { left, songs } }: { readonly point: AtHome }) {
  const { show, store } = useShow();
  const { base } = useSaved();
  const rig = useRig();
  const lost = losses(show, left);
  const name = (id: string): string => show.rig.devices[id]?.name ?? id;
  const makeVariant = () => {
    const command = leaveAtHome(base, left);
    if (!command) return;
    const variants = base.rig.variants ?? {};
    const called = freshName(
      `Without ${left.map(name).join(', ')}`.slice(0, 120),
      Object.values(variants).map((variant) => variant.name),
    );
    const id = freshId(called, variants, 'variant');
    const made = variantBy(base, id, called, command);
    if (made && store.runOnBase(made)) rig.chooseVariant(id);
  };
  return (
    <tr>
      <td colSpan={9}>
        <div className="buildlost">
          <p>{songs.length === 0 ? 'No song is lost.' : `Lost: ${songs.join(', ')}.`}</p>
          {lost.length > 0 && (
            <ul aria-label="What each sound loses">
              {lost.map(({ sound, pieces }) => (
                <li key={sound.id}>
                  {sound.name} <span className="soft">without {pieces.map(name).join(', ')}</span>
                </li>
              ))}
            </ul>
          )}
          <LinkButton onClick={makeVariant}>Make it a variant</LinkButton>{' '}
          <span className="soft">the line goes on past what stays at home; the rig itself stays as it is</span>
        </div>
      </td>
    </tr>
  );
}
