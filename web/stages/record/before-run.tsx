import { Button } from '@mantine/core';
import type { Job, Setup } from '../../../contract/records.ts';
import { channelLabel } from '../../../core/channels/channels.ts';
import { placeInWindow, startWindow } from '../../../core/heat/start-window.ts';
import { latestReading, useLive } from '../../state/live.ts';
import { usePreferences } from '../../state/preferences.ts';
import { itemsOf } from '../brief/inspection-items.ts';
import { FindingLine, FindingList } from '../../ui/severity.tsx';
import { formatWhole } from '../../ui/figures.ts';
import classes from './before-run.module.css';
import { useNow } from '../../ui/use-now.ts';
import { useFrame } from './use-frame.ts';

/** Beside the lanes before and during a run: the cautions, once, then the heat. */
export function BeforeRun({ job, baseline, recording }: { job: Job; baseline: Setup; recording: boolean }) {
  const cautionsRead = usePreferences((state) => state.cautionsRead);
  if (!cautionsRead && !recording) return <Cautions />;
  return (
    <>
      <FailedItems job={job} />
      <HeatWindow job={job} baseline={baseline} />
      {!recording && <SinceLastRun job={job} />}
    </>
  );
}

function Cautions() {
  return (
    <section className={classes.cautions}>
      <h2>Before the first run</h2>
      <p>
        Dyno runs can kill. People clear of rollers, straps and the line of the tyres; straps or hub bolts checked now,
        and again after warm-up, slip or hop.
      </p>
      <p>
        Extraction on and carbon-monoxide alarm working; fire extinguisher at hand; ears protected; tyres rated for the
        speed, whole and free of debris; mind fans, shafts and hot parts. Agree on the signal to stop.
      </p>
      <p>
        Suvok records and advises. It protects no one and is no emergency stop. The makers’ procedures, licensed
        practice and local law come first.
      </p>
      <Button variant="default" size="md" onClick={() => usePreferences.setState({ cautionsRead: true })}>
        Read and understood
      </Button>
    </section>
  );
}

/** What failed in the inspection blocks nothing, and stays in sight. */
function FailedItems({ job }: { job: Job }) {
  const failed = job.inspections.filter(({ outcome }) => outcome === 'fail');
  if (failed.length === 0) return null;
  const texts = itemsOf(job);
  return (
    <section className={classes.failed}>
      <h2 className="heading">Failed in the inspection</h2>
      <FindingList>
        {failed.map(({ id, key, note }) => (
          <FindingLine key={id} severity="stop">
            {texts.find((item) => item.key === key)?.text ?? key}
            {note && `: ${note}`}
          </FindingLine>
        ))}
      </FindingList>
    </section>
  );
}

const words = { below: 'cooler than', inside: 'as', above: 'hotter than' } as const;

function HeatWindow({ job, baseline }: { job: Job; baseline: Setup }) {
  useFrame(2);
  const columns = useLive((state) => state.columns);
  const starts = job.runs
    .filter((run) => run.setupId === baseline.id && run.kind === 'power' && run.setAsideReason === null)
    .map((run) => run.startTemperatures);
  const window = startWindow(starts);
  const channels = columns.filter((name) => /Temperature$/.test(name));
  if (channels.length === 0)
    return <p className={classes.quiet}>No temperature is logged; heat cannot be compared between runs.</p>;
  return (
    <section>
      <h2 className="heading">Heat now{starts.length > 0 && ', against the baseline’s starts'}</h2>
      {channels.map((channel) => {
        const value = latestReading(channel);
        const span = window[channel];
        const place = value === undefined || !span ? undefined : placeInWindow(value, span);
        return (
          <div key={channel} className={classes.heat}>
            <span>{channelLabel(channel)}</span>
            <b className="number">{value === undefined ? '–' : `${formatWhole(value)} °C`}</b>
            {span && value !== undefined && <WindowBar value={value} span={span} />}
            {place && (
              <small data-place={place}>
                {place === 'inside' ? 'within' : words[place]} the window, {formatWhole(span!.fromC)} to{' '}
                {formatWhole(span!.toC)} °C
              </small>
            )}
          </div>
        );
      })}
      {starts.length === 0 && <p className={classes.quiet}>The baseline’s runs will set the window to return to.</p>}
    </section>
  );
}

function WindowBar({ value, span }: { value: number; span: { fromC: number; toC: number } }) {
  const reach = Math.max(12, (span.toC - span.fromC) * 1.6, Math.abs(value - (span.fromC + span.toC) / 2) * 1.15);
  const middle = (span.fromC + span.toC) / 2;
  const share = (temperature: number) => `${50 + ((temperature - middle) / reach) * 50}%`;
  return (
    <div className={classes.bar} aria-hidden>
      <i style={{ left: share(span.fromC), right: `calc(100% - ${share(span.toC)})` }} />
      <u style={{ left: share(value) }} />
    </div>
  );
}

function SinceLastRun({ job }: { job: Job }) {
  const now = useNow();
  const ended = Math.max(...job.runs.map((run) => (run.endedAt ? new Date(run.endedAt).getTime() : 0)), 0);
  if (ended === 0) return null;
  const seconds = Math.max(0, Math.round((now - ended) / 1000));
  const text =
    seconds < 3600
      ? `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')} min`
      : seconds < 172_800
        ? `${Math.floor(seconds / 3600)} h ${Math.floor((seconds % 3600) / 60)} min`
        : `${Math.floor(seconds / 86_400)} days`;
  return (
    <div className={classes.since}>
      <span>Since the last run</span>
      <b className="number">{text}</b>
    </div>
  );
}
