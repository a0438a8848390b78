import { keys } from '../state/query-keys.ts';
import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import dayjs from 'dayjs';
import { useEffect } from 'react';
import { sharedPath } from '../../contract/report/shared-link.ts';
import type { WrittenReport } from '../../core/report/written-report.ts';
import { ReportSheet } from '../report/report-sheet.tsx';
import { api } from '../state/api.ts';
import { Mark } from '../ui/mark.tsx';
import classes from './shared-page.module.css';

/** The key in an address that a link of somebody's leads to. */
export function keyIn(path: string): string | undefined {
  const [, key] = new RegExp(`^${sharedPath('([^/]+)')}/?$`).exec(path) ?? [];
  return key;
}

/** What somebody shared, for a reader without an account: a report, or the way to a comparison. */
export function SharedPage({ shared }: { shared: string }) {
  const { data, error } = useQuery({ queryKey: keys.shared(shared), queryFn: () => api.shared(shared), retry: false });
  const isComparison = data?.is === 'comparison';
  useEffect(() => {
    if (isComparison) window.location.replace(`/api${sharedPath(shared)}/page`);
  }, [isComparison, shared]);
  if (error)
    return (
      <main className={classes.message} role="alert">
        <Mark />
        <h1>Nothing is shared here</h1>
        <p>{error.message}</p>
      </main>
    );
  if (!data || data.is === 'comparison')
    return (
      <main className={classes.message} aria-busy>
        <Mark />
        <p role="status">{isComparison ? 'Making the comparison …' : 'Opening what was shared …'}</p>
      </main>
    );
  return (
    <div className={classes.desk}>
      <header className={classes.head}>
        <span>Shared until {dayjs(data.endsAt).format('D MMMM YYYY')}</span>
        <Button component="a" href={`/api${sharedPath(shared)}/pdf`} variant="default" download>
          Save as PDF
        </Button>
      </header>
      <main aria-label="Report">
        <ReportSheet
          report={data.report as unknown as WrittenReport}
          photoAt={(id) => `/api${sharedPath(shared)}/photos/${id}`}
        />
      </main>
    </div>
  );
}
