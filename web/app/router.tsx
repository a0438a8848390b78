import { createBrowserRouter, Navigate } from 'react-router';
import { JobsPage } from '../stages/jobs/jobs-page.tsx';
import { ProblemPage } from './problem-page.tsx';
import { Shell } from './shell.tsx';

/** The page's addresses. The stages with charts are loaded when first needed. */
export const router = createBrowserRouter([
  {
    path: '/',
    element: <Shell />,
    errorElement: <ProblemPage />,
    hydrateFallbackElement: <></>,
    children: [
      { index: true, element: <Navigate to="/jobs" replace /> },
      { path: 'jobs', element: <JobsPage /> },
      { path: 'jobs/:jobId', element: <Navigate to="record" replace /> },
      {
        path: 'jobs/:jobId/record',
        lazy: async () => ({ Component: (await import('../stages/record/record-stage.tsx')).RecordStage }),
      },
      {
        path: 'jobs/:jobId/compare',
        lazy: async () => ({ Component: (await import('../stages/compare/compare-stage.tsx')).CompareStage }),
      },
      { path: '*', element: <ProblemPage /> },
    ],
  },
]);
