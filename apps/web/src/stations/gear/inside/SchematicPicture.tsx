import { type Anatomy, schematicOf } from '@yunta/core';
import { useElementSize } from '@mantine/hooks';
import { useMemo } from 'react';
import styles from './inside.module.css';

const narrowest = 88;
const widest = 220;
const row = 40;
const head = 34;
const side = 58;

/** The paths of a device: points stand upright, each path lies on a row of its own between two of them. */
export function SchematicPicture({ anatomy, name }: { readonly anatomy: Anatomy; readonly name: string }) {
  const { ref, width: room } = useElementSize();
  const { points, paths } = useMemo(() => schematicOf(anatomy), [anatomy]);
  const gaps = Math.max(1, points.length - 1);
  const column = Math.min(widest, Math.max(narrowest, (room - 2 * side) / gaps));
  const x = (at: number): number => side + at * column;
  const y = (at: number): number => head + 22 + at * row;
  const width = x(points.length - 1) + side;
  const height = y(Math.max(0, paths.length - 1)) + 26;
  return (
    <div className={`sheet ${styles.picture}`} role="region" aria-label={`Drawing of ${name}`} tabIndex={0} ref={ref}>
      {points.length === 0 && <p className="soft">No signal jack yet: add one, and it stands here.</p>}
      <svg width={width} height={height} role="img" aria-label={pictureWords(paths.length, points.length)}>
        {points.map((point) => (
          <g key={point.point} className={styles.point} data-is={point.is}>
            <line x1={x(point.column)} x2={x(point.column)} y1={head} y2={y(Math.max(0, point.bottom))} />
            <text x={x(point.column)} y={18} textAnchor="middle">
              {shortened(point.label, 17)}
              <title>{point.label}</title>
            </text>
            {point.is !== 'inside' && <rect x={x(point.column) - 5} y={head - 5} width={10} height={10} />}
          </g>
        ))}
        {paths.map(({ section, row: at, from, to, condition }) => {
          const [left, right] = from < to ? [x(from), x(to)] : [x(to), x(from)];
          const middle = (left + right) / 2;
          const label = shortened(section.label, Math.max(8, Math.floor((right - left - 34) / 6.6)));
          return (
            <g key={section.id} className={styles.path} data-active={section.active || undefined}>
              <line x1={left} x2={right} y1={y(at)} y2={y(at)} />
              <circle cx={x(from)} cy={y(at)} r={2.5} />
              <path d={arrow(x(to), y(at), from < to ? -1 : 1)} />
              {section.active && (
                <rect x={middle - label.length * 3.6 - 7} y={y(at) - 10} width={label.length * 7.2 + 14} height={20} />
              )}
              <text x={middle} y={section.active ? y(at) + 4 : y(at) - 4} textAnchor="middle">
                {label}
                <title>{section.label}</title>
              </text>
              {condition !== '' && (
                <text className={styles.condition} x={middle} y={y(at) + 20} textAnchor="middle">
                  {shortened(condition, Math.floor((right - left + 60) / 5.6))}
                  <title>{condition}</title>
                </text>
              )}
            </g>
          );
        })}
      </svg>
    </div>
  );
}

const arrow = (x: number, y: number, side: -1 | 1): string => `M${x} ${y} l${side * 8} -4 v8 z`;

const shortened = (text: string, most: number): string => (text.length <= most ? text : `${text.slice(0, most - 1)}…`);

const pictureWords = (paths: number, points: number): string =>
  `${paths} ${paths === 1 ? 'path' : 'paths'} between ${points} points; the list of paths says the same`;
