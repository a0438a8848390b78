import { keys } from '../state/query-keys.ts';
import { createContext, useContext, useEffect, useMemo, type ReactNode } from 'react';
import { create } from 'zustand';
import type { Account } from '../../contract/people/people.ts';
import type { Job, Run } from '../../contract/job/records.ts';
import { stoichiometricOf } from '../../core/fuel/blend.ts';
import type { Units } from '../../core/units/told-units.ts';
import { ratioOfJob } from '../../core/fuel/ledger.ts';
import { api } from '../state/api.ts';
import { usePreferences } from '../state/preferences.ts';
import { queryClient, tellProblem } from '../state/queries.ts';
import { ownUnits, type OwnUnits } from './own-units.ts';

interface Around {
  /** In the place of the person's own: what a link names. */
  units?: Units;
  stoichiometric?: number | undefined;
}
const Surroundings = createContext<Around>({});

/** The units of the account that is signed in; null where nobody is, or where they never chose. */
const usePerson = create<{ units: Units | null }>(() => ({ units: null }));

/** Takes over what the account has chosen, wherever that was. */
export function useAccountUnits(account: Account | undefined): void {
  const units = account?.me?.units ?? null;
  useEffect(() => usePerson.setState({ units }), [units]);
}

/** Keeps a choice with the account; in this browser where nobody is signed in. */
export function chooseUnits(chosen: Partial<Units>): void {
  const account = queryClient.getQueryData<Account>(keys.account);
  const before = usePerson.getState().units;
  const units: Units = { ...(before ?? usePreferences.getState().units), ...chosen };
  if (!account?.me) {
    usePreferences.setState({ units });
    return;
  }
  usePerson.setState({ units });
  api.chooseUnits(units).then(
    (now) => queryClient.setQueryData<Account>(keys.account, now),
    (error: Error) => {
      usePerson.setState({ units: before });
      tellProblem(error);
    },
  );
}

/** The units of whoever uses this page: their account's wherever they sign in, this browser's where there is none. */
export function useUnits(): Units {
  const kept = usePreferences((state) => state.units);
  const person = usePerson((state) => state.units);
  const { units } = useContext(Surroundings);
  return units ?? person ?? kept;
}

/** How whoever uses this page is told quantities. */
export function useOwnUnits(): OwnUnits {
  const units = useUnits();
  const { stoichiometric } = useContext(Surroundings);
  return useMemo(() => ownUnits(units, stoichiometric), [units, stoichiometric]);
}

/** Within it a mixture is told by the fuel that is in the job's tank now, unless a figure tells its own. */
export function FuelOfJob({ job, children }: { job: Job | undefined; children: ReactNode }) {
  const stoichiometric = useMemo(() => job && ratioOfJob(job), [job]);
  const around = useMemo(() => ({ stoichiometric }), [stoichiometric]);
  return <Surroundings value={around}>{children}</Surroundings>;
}

/** Within it a mixture is told by what one run burnt. */
export function FuelOfRun({ job, run, children }: { job: Job; run: Run; children: ReactNode }) {
  const around = useContext(Surroundings);
  const stoichiometric = ratioOfRun(job, run);
  const within = useMemo(() => ({ ...around, stoichiometric }), [around, stoichiometric]);
  return <Surroundings value={within}>{children}</Surroundings>;
}

/** Within it quantities are told in these units, whatever the person has chosen. */
export function InUnits({ units, children }: { units: Units; children: ReactNode }) {
  const { stoichiometric } = useContext(Surroundings);
  // Of the same choice the same object, so that nothing is drawn anew.
  const words = JSON.stringify(units);
  const around = useMemo(() => ({ units: JSON.parse(words) as Units, stoichiometric }), [words, stoichiometric]);
  return <Surroundings value={around}>{children}</Surroundings>;
}

/** The stoichiometric ratio of what a run burnt. */
export function ratioOfRun({ car }: Pick<Job, 'car'>, { fuel }: Pick<Run, 'fuel'>): number {
  return stoichiometricOf(car.ignition, fuel?.ethanolPct ?? null).ratio;
}
