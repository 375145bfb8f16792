import type { Severity } from '@yunta/core';

const shapes: Record<
  Severity | 'ok' | 'unknown' | 'none',
  { readonly path: string; readonly colour: string; readonly sign: string; readonly word: string }
> = {
  'stops-the-show': {
    path: 'M5 1h6l4 4v6l-4 4H5l-4-4V5z',
    colour: 'var(--stop)',
    sign: 'M4.5 8h7',
    word: 'Stops the show',
  },
  'fix-before-load-in': {
    path: 'M8 1.5 15 14.5H1z',
    colour: 'var(--fix)',
    sign: 'M8 6v4M8 12v.6',
    word: 'Fix before load-in',
  },
  'worth-knowing': {
    path: 'M8 1.5a6.5 6.5 0 1 0 0 13a6.5 6.5 0 1 0 0-13z',
    colour: 'var(--know)',
    sign: 'M8 7v4M8 4.8v.6',
    word: 'Worth knowing',
  },
  ok: { path: '', colour: 'var(--ok)', sign: 'M2.5 8.5 6.5 12.5 13.5 4', word: 'Recalls' },
  unknown: {
    path: 'M8 1 15 8 8 15 1 8z',
    colour: 'var(--know)',
    sign: 'M6.4 6.6a1.7 1.7 0 1 1 2.4 1.6c-.6.3-.8.6-.8 1.2M8 11.2v.6',
    word: 'Cannot be known',
  },
  none: { path: '', colour: 'var(--soft)', sign: 'M4 8h8', word: 'Not played' },
};

/** A severity or verdict by its shape; the word goes with it for those who do not see it. */
export function SeverityMark({ is, size = 16 }: { readonly is: keyof typeof shapes; readonly size?: number }) {
  const { path, colour, sign, word } = shapes[is];
  const filled = is === 'stops-the-show';
  return (
    <span className="severity" role="img" aria-label={word} title={word}>
      <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true">
        {path !== '' && (
          <path d={path} fill={filled ? colour : 'none'} stroke={colour} strokeWidth="1.5" strokeLinejoin="round" />
        )}
        <path
          d={sign}
          fill="none"
          stroke={filled ? 'var(--sheet)' : colour}
          strokeWidth={path === '' ? 2.2 : 1.6}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      </svg>
    </span>
  );
}
