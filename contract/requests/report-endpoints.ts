import { bundleMade } from '../job/bundle.ts';
import type { Endpoint } from '../values/endpoint.ts';
import { remoteWishes } from '../report/report.ts';
import * as report from '../report/report.ts';

export const reportEndpoints: readonly Endpoint[] = [
  {
    method: 'post',
    path: '/jobs/:id/report/pdf',
    needs: 'viewer',
    does: 'Makes a PDF of the report as its draft stands. In lines (application/x-ndjson) it is told as it goes, with the file in the last one.',
    body: report.reportPdfWishes,
    binary: 'application/pdf',
  },
  {
    method: 'post',
    path: '/jobs/:id/remote-package',
    needs: 'viewer',
    does: 'Writes what a remote tuner needs as one .zip, fetched once with its ticket: a page that opens without Suvok, runs and logs, curves, findings and the tune file; nothing of the owner. It is counted as sent.',
    body: remoteWishes,
    answer: bundleMade,
  },
  {
    method: 'delete',
    path: '/tuner-packages/:id',
    does: 'Says that a package was not sent to the tuner after all; undone by its act.',
  },
  {
    method: 'post',
    path: '/jobs/:id/report/versions',
    does: 'Keeps the report as it stands now, with the runs, the view and the judgement that it rests on.',
    body: report.newReportVersion,
    answer: report.reportVersion,
  },
  {
    method: 'get',
    path: '/report-versions/:id',
    does: 'A kept report with all that it says.',
    answer: report.wholeReportVersion,
  },
  {
    method: 'post',
    path: '/report-versions/:id/pdf',
    needs: 'viewer',
    does: 'Makes a PDF of a kept report; in lines it is told as it goes.',
    body: report.reportPdfWishes.pick({ paper: true }),
    binary: 'application/pdf',
  },
  { method: 'delete', path: '/report-versions/:id', does: 'Takes a kept report away; undone by its act.' },
];
