import type { Run } from '../../../../contract/job/records.ts';
import { api } from '../../../state/api.ts';
import { useChange } from '../../../state/use-change.ts';
import button from '../../../ui/text-button.module.css';
import type { LogView } from '../../../../core/log/view/log-view.ts';
import { FindingLine, FindingList } from '../../../ui/severity.tsx';

/** How each logger's clock was laid on the dyno's, or why it was not. */
export function LoggerFits({ loggers, run }: Pick<LogView, 'loggers'> & { run: Run }) {
  const takeOff = useChange((source: number) => api.takeLogOff(run.id, source));
  if (loggers.length === 0) return null;
  return (
    <FindingList>
      {loggers.map(({ name, fit, refused }, at) => (
        <FindingLine key={`${name} ${at}`} severity={refused ? 'mind' : 'note'}>
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
          {/* What joined as a file, and not as an instrument beside the dyno. */}
          {run.logs[at]?.device === '' && (
            <TakeOff name={name} onPress={() => takeOff.mutate(run.logs[at]?.source ?? 0)} />
          )}
        </FindingLine>
      ))}
    </FindingList>
  );
}

function TakeOff({ name, onPress }: { name: string; onPress: () => void }) {
  return (
    <>
      {' '}
      <button className={button.more} aria-label={`Take ${name} off this run`} onClick={onPress}>
        Take it off
      </button>
    </>
  );
}
