import AxeBuilder from '@axe-core/playwright';
import { expect, test } from './suvok.ts';

for (const scheme of ['light', 'dark'] as const) {
  test(`axe finds nothing serious on any screen, ${scheme}`, async ({ page, suvok }) => {
    await page.emulateMedia({ colorScheme: scheme });
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.record(job, 2);
    await suvok.mountedSetup(job, 'ignition +1°');
    await suvok.record(job, 2);
    await suvok.ask('POST', `/jobs/${job.id}/inspections`, {
      key: 'belts',
      outcome: 'fail',
      note: 'frayed',
      measured: null,
    });
    await suvok.ask('POST', `/jobs/${job.id}/suspicions`, { cause: 'weak pump', test: '', outcome: '', state: 'open', runIds: [] }); // prettier-ignore
    await suvok.ask('POST', `/vehicles/${job.vehicleId}/parts`, { name: 'camshaft', knowledge: 'believed', note: '' });
    const paths = [
      '/jobs',
      'brief',
      'record',
      'compare?at=5000',
      'logs',
      '/devices',
      '/drive',
      '/vehicles',
      `/vehicles/${job.vehicleId}`,
    ];
    for (const path of paths.map((one) => (one.startsWith('/') ? one : `/jobs/${job.id}/${one}`))) {
      await page.goto(suvok.origin + path);
      await expect(page.getByText(/Tarrow Six|Stand-in inertia roller|ignition/).first()).toBeVisible();
      if (path.includes('compare')) await expect(page.getByTestId('gain-table')).toBeVisible();
      const { violations } = await new AxeBuilder({ page }).analyze();
      const serious = violations.filter((violation) => ['serious', 'critical'].includes(violation.impact ?? ''));
      expect(
        serious.map((violation) => `${path}: ${violation.id} ${violation.nodes.map((node) => node.html).join(' ')}`),
      ).toEqual([]);
    }
  });
}
