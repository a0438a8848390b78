import type { CellKnowledge, CellStanding } from '../../core/fuelling/standing.ts';

/** How far a cell has come, as a shape: an open ring, a half, a full disc, and a disc with a tick when it is done. */
export function KnowledgeMark({ knowledge, standing }: { knowledge: CellKnowledge; standing: CellStanding }) {
  const done = standing === 'within 1 %';
  return (
    <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden>
      <circle
        cx="7"
        cy="7"
        r="5.4"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.6"
        strokeDasharray={knowledge === 'empty' ? '2 2.2' : undefined}
      />
      {knowledge === 'thin' && <path d="M7 1.6a5.4 5.4 0 0 1 0 10.8z" fill="currentColor" />}
      {knowledge === 'known' && <circle cx="7" cy="7" r={done ? 5.4 : 3} fill="currentColor" />}
      {done && <path d="M4.3 7.2 6.2 9.1 9.8 5.2" fill="none" stroke="var(--raised)" strokeWidth="1.7" />}
    </svg>
  );
}
