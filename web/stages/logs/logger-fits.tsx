import type { LogView } from '../../workers/figures.worker.ts';
import { FindingLine, FindingList } from '../../ui/severity.tsx';

/** How each logger's clock was laid on the dyno's, or why it was not. */
export function LoggerFits({ loggers }: Pick<LogView, 'loggers'>) {
  if (loggers.length === 0) return null;
  return (
    <FindingList>
      {loggers.map(({ name, fit, refused }) => (
        <FindingLine key={name} severity={refused ? 'mind' : 'note'}>
          {fit ? (
            <>
              {name} time-aligned with the dyno by the engine speed of both: {fit.shiftS < 0 ? '−' : '+'}
              {Math.abs(fit.shiftS).toFixed(3)} s, correlation {fit.correlation.toFixed(4)},{' '}
              {fit.residualPercent.toFixed(1)} % apart over {fit.overlapS.toFixed(0)} s.
            </>
          ) : (
            <>
              {name}: {refused} Its channels are kept with the run and not judged.
            </>
          )}
        </FindingLine>
      ))}
    </FindingList>
  );
}
