import { createBrowserRouter, Navigate, type LoaderFunctionArgs } from 'react-router';
import { identifierIn } from './state/identifier.ts';
import { prefetchedJob } from './state/queries.ts';
import { figuresWorker } from './workers/figures-worker.ts';
import { JobsPage } from './stages/jobs/jobs-page.tsx';
import { ProblemPage } from './app/problem-page.tsx';
import { Shell } from './app/shell.tsx';

/** Asks for the job and has the worker make its runs ready, while the stage's own code is still on its way. */
function beginJob({ params }: LoaderFunctionArgs): null {
  const id = identifierIn(params.jobId);
  if (id !== undefined) void prefetchedJob(id).then((job) => job && figuresWorker().begin(job));
  return null;
}

/** The page's addresses. The stages with charts are loaded when first needed. */
export const router = createBrowserRouter([
  {
    // In the car, on a phone: no frame around it.
    path: '/bays/:bay/drive',
    errorElement: <ProblemPage />,
    hydrateFallbackElement: <></>,
    lazy: async () => ({ Component: (await import('./stages/drive/drive-page.tsx')).DrivePage }),
  },
  {
    path: '/drive',
    errorElement: <ProblemPage />,
    hydrateFallbackElement: <></>,
    lazy: async () => ({ Component: (await import('./stages/drive/which-car.tsx')).WhichCar }),
  },
  {
    path: '/',
    element: <Shell />,
    errorElement: <ProblemPage />,
    hydrateFallbackElement: <></>,
    children: [
      { index: true, element: <Navigate to="/today" replace /> },
      {
        path: 'today',
        lazy: async () => ({ Component: (await import('./stages/today/today-page.tsx')).TodayPage }),
      },
      { path: 'jobs', element: <JobsPage /> },
      { path: 'jobs/:jobId', element: <Navigate to="brief" replace /> },
      {
        path: 'jobs/:jobId/brief',
        loader: beginJob,
        lazy: async () => ({ Component: (await import('./stages/brief/brief-stage.tsx')).BriefStage }),
      },
      {
        path: 'devices',
        lazy: async () => ({ Component: (await import('./stages/devices/devices-page.tsx')).DevicesPage }),
      },
      {
        path: 'equipment',
        lazy: async () => ({ Component: (await import('./stages/equipment/equipment-page.tsx')).EquipmentPage }),
      },
      {
        path: 'prices',
        lazy: async () => ({ Component: (await import('./stages/prices/prices-page.tsx')).PricesPage }),
      },
      {
        path: 'consents',
        lazy: async () => ({ Component: (await import('./stages/consents/consents-page.tsx')).ConsentsPage }),
      },
      {
        path: 'vehicles',
        lazy: async () => ({ Component: (await import('./stages/vehicles/vehicles-page.tsx')).VehiclesPage }),
      },
      {
        path: 'vehicles/:vehicleId',
        lazy: async () => ({ Component: (await import('./stages/vehicles/vehicle-page.tsx')).VehiclePage }),
      },
      {
        path: 'jobs/:jobId/record',
        loader: beginJob,
        lazy: async () => ({ Component: (await import('./stages/record/record-stage.tsx')).RecordStage }),
      },
      {
        path: 'people',
        lazy: async () => ({ Component: (await import('./stages/people/people-page.tsx')).PeoplePage }),
      },
      { path: 'bays/:bay', element: <Navigate to="record" replace /> },
      {
        path: 'bays/:bay/record',
        lazy: async () => ({ Component: (await import('./stages/record/bay-stage.tsx')).BayStage }),
      },
      {
        path: 'jobs/:jobId/compare',
        loader: beginJob,
        // The address changes with every setting; the job does not.
        shouldRevalidate: () => false,
        lazy: async () => ({ Component: (await import('./stages/compare/compare-stage.tsx')).CompareStage }),
      },
      {
        path: 'jobs/:jobId/logs',
        loader: beginJob,
        shouldRevalidate: () => false,
        lazy: async () => ({ Component: (await import('./stages/logs/logs-stage.tsx')).LogsStage }),
      },
      {
        path: 'jobs/:jobId/report',
        loader: beginJob,
        lazy: async () => ({ Component: (await import('./stages/report/report-stage.tsx')).ReportStage }),
      },
      { path: '*', element: <ProblemPage /> },
    ],
  },
]);
