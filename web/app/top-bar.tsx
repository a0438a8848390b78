import { useOwnUnits } from '../units/use-own-units.tsx';
import { ActionIcon, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { IconMoon, IconSearch, IconSun } from '@tabler/icons-react';
import { Link, NavLink, useLocation, useParams } from 'react-router';
import type { Job } from '../../contract/job/records.ts';
import { brokenWords } from '../../core/limits/broken-words.ts';
import { useBrokenRuns, type BrokenRun } from '../job/use-broken-runs.ts';
import { identifierIn } from '../state/identifier.ts';
import { useBayOfJob } from '../state/bays.ts';
import { useLive } from '../state/live.ts';
import { useJob } from '../state/queries.ts';
import { Mark } from '../ui/mark.tsx';
import { UnitsMenu } from '../units/units-menu.tsx';
import { AccountMenu } from '../account/account-menu.tsx';
import { openPalette } from '../palette/everywhere.tsx';
import { BayStatus } from './bay-status.tsx';
import { places, PlacesMenu } from './places-menu.tsx';
import { NoteLine } from './note-line.tsx';
import classes from './top-bar.module.css';

/** Mark, job, its stages, the bays' state. */
export function TopBar() {
  const { pathname } = useLocation();
  const id = useJobInSight();
  const { data: job, isError } = useJob(id ?? 0, id !== undefined);
  // Where the job is not there the bar shows what it shows outside of a job.
  const jobId = isError && !job ? undefined : id;
  return (
    <header className={classes.bar}>
      <Link to="/today" className={classes.home} aria-label="Suvok, today">
        <Mark />
      </Link>
      <PlacesMenu always={jobId !== undefined} />
      {jobId ? <JobNavigation jobId={jobId} /> : <Outside />}
      <BayStatus />
      <ActionIcon
        variant="subtle"
        color="gray"
        size={40}
        aria-label="Go to, or do"
        title="Go to a job, car, setup or run (Ctrl K)"
        onClick={openPalette}
      >
        <IconSearch size={18} />
      </ActionIcon>
      {jobId && <NoteLine jobId={jobId} hotkey={!pathname.endsWith('/record')} />}
      <AccountMenu />
      <UnitsMenu />
      <ThemeSwitch />
    </header>
  );
}

/** The job of the address, or the one that is on the dyno of the bay in it. */
export function useJobInSight(): number | undefined {
  const params = useParams();
  const bayNumber = identifierIn(params.bay);
  const onDyno = useLive(({ bays }) => bays.find(({ bay }) => bay === bayNumber)?.mounted?.jobId);
  return identifierIn(params.jobId) ?? onDyno;
}

/** Where one goes when no job is open. */
function Outside() {
  return (
    <nav className={`${classes.stages} ${classes.places}`} aria-label="Suvok">
      {places.map(({ to, name }) => (
        <NavLink key={to} to={to} className={({ isActive }) => (isActive ? classes.stageOn : classes.stage)}>
          {name}
        </NavLink>
      ))}
    </nav>
  );
}

function JobNavigation({ jobId }: { jobId: number }) {
  const bayNumber = identifierIn(useParams().bay);
  const { data: job } = useJob(jobId);
  const recorder = useBayOfJob(jobId)?.recorder;
  const recording =
    recorder?.state === 'recording' && recorder.label !== null && job?.runs.some((run) => run.id === recorder.runId);
  const broken = useBrokenRuns(job);
  if (!job) return null;
  return (
    <>
      <div className={classes.job}>
        <b title={job.vehicle}>{job.vehicle}</b>
        <small title={job.question}>{job.question || 'No question noted'}</small>
      </div>
      <nav className={classes.stages} aria-label="Stages of the job">
        <Stage to={`/jobs/${jobId}/brief`} name="Brief" state={briefState(job)} />
        <Stage
          to={`/jobs/${jobId}/record`}
          on={bayNumber !== undefined}
          name="Record"
          state={recording ? `${recorder.label} running` : countOf(job.runs.length, 'run')}
        />
        <Stage to={`/jobs/${jobId}/compare`} name="Compare" state={comparableSetups(job)} />
        <Stage to={`/jobs/${jobId}/logs`} name="Logs" state={lastLog(job)} broken={broken} />
        <Stage to={`/jobs/${jobId}/report`} name="Report" state={job.report ? 'changed' : 'composed'} />
      </nav>
    </>
  );
}

interface StageProps {
  to: string;
  name: string;
  state: string;
  /** True where the stage is shown at another address than this link's. */
  on?: boolean;
  /** Runs that went beyond a limit: said before all else. */
  broken?: readonly BrokenRun[];
}

function Stage({ to, name, state, on = false, broken = [] }: StageProps) {
  const { write } = useOwnUnits();
  const last = broken.at(-1);
  const told = broken
    .map(({ label, broken }) => `${label}: ${broken.map((limit) => write(brokenWords(limit))).join('; ')}`)
    .join('. ');
  return (
    <NavLink to={to} className={({ isActive }) => (isActive || on ? classes.stageOn : classes.stage)}>
      {name}
      {last ? (
        <small className={classes.broken} title={told}>
          ◆ {broken.length === 1 ? `${last.label} broke a limit` : `${broken.length} runs broke a limit`}
        </small>
      ) : (
        <small>{state}</small>
      )}
    </NavLink>
  );
}

function briefState(job: Job): string {
  if (job.state !== 'open') return job.state;
  const failed = job.inspections.filter(({ outcome }) => outcome === 'fail').length;
  if (failed > 0) return `${failed} failed`;
  return countOf(job.limits.length, 'limit');
}

function comparableSetups(job: Job): string {
  const ran = new Set(job.runs.map((run) => run.setupId)).size;
  return ran === 0 ? 'nothing yet' : countOf(ran, 'setup');
}

function lastLog(job: Job): string {
  const last = job.runs.filter((run) => run.state !== 'recording').at(-1);
  return last ? `last ${last.label}` : 'nothing yet';
}

function countOf(count: number, noun: string): string {
  return `${count} ${noun}${count === 1 ? '' : 's'}`;
}

function ThemeSwitch() {
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  const next = scheme === 'light' ? 'dark' : 'light';
  const label = next === 'dark' ? 'Bay theme, for the dim cell' : 'Paper theme, for the office';
  return (
    <ActionIcon
      variant="subtle"
      color="gray"
      size={40}
      aria-label={label}
      title={label}
      onClick={() => setColorScheme(next)}
    >
      {next === 'dark' ? <IconMoon size={18} /> : <IconSun size={18} />}
    </ActionIcon>
  );
}
