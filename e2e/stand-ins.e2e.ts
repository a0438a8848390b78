import { goTo } from './go-to.ts';
import type { CurveJson } from '../contract/files/curve.ts';
import { expect, test } from './suvok.ts';

for (const [dyno, name] of [
  ['loaded-roller', 'Stand-in loaded roller'],
  ['hub', 'Stand-in hub pair'],
] as const) {
  test(
    `the same car on the ${name}: a curve with its load, and the screen says which dyno`,
    { tag: dyno === 'hub' ? [] : '@long' },
    async ({ page, suvok }) => {
      const job = await suvok.mountedJob();
      await suvok.startStandIns('fast', 5, dyno);
      const runs = await suvok.record(job, 2);
      const curves = await Promise.all(runs.map((run) => suvok.ask<CurveJson>('GET', `/runs/${run.id}/curve`)));
      for (const curve of curves) {
        // About what the inertia roller reads; less is lost to what is turned faster.
        expect(curve.peakPower.kw).toBeGreaterThan(88);
        expect(curve.peakPower.kw).toBeLessThan(110);
        expect(curve.sweep.endRpm - curve.sweep.startRpm).toBeGreaterThan(3800);
        expect(curve.checks.filter(({ severity }) => severity === 'stop')).toEqual([]);
        expect(curve.drumsKw !== undefined).toBe(dyno === 'hub');
      }
      expect(Math.abs(curves[0]!.peakPower.kw / curves[1]!.peakPower.kw - 1)).toBeLessThan(0.03);
      await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
      await expect(page.getByRole('status', { name: 'Bay' })).toContainText(
        dyno === 'hub' ? 'hub dyno' : 'loaded roller',
      );
      await expect(page.getByText('spread', { exact: false }).first()).toBeVisible();
    },
  );
}

test(
  'faults are switched on from the page, played and named: in the curve and in the log',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const job = await suvok.mountedJob();
    await suvok.ask('PATCH', `/vehicles/${job.vehicleId}`, { ignition: 'spark', induction: 'none' });
    await suvok.startStandIns('fast');
    await suvok.record(job, 1);
    await goTo(page, `${suvok.origin}/devices`);
    await page.getByText('Simulate faults (training)').click();
    const panel = page.getByRole('group', { name: /Faults that Stand-in .* plays/ });
    await panel.getByText('tyre slip', { exact: true }).click();
    await panel.getByText('weak pump', { exact: true }).click();
    await expect(panel.getByRole('checkbox', { checked: true })).toHaveCount(2);
    const run = (await suvok.record(job, 1)).at(-1)!;
    await goTo(page, `${suvok.origin}/jobs/${job.id}/logs?run=${run.label}`);
    await expect(page.getByText('Fuel pressure sags by').first()).toBeVisible();
    await goTo(page, `${suvok.origin}/jobs/${job.id}/compare`);
    await expect(page.getByText('The tyres slip by up to').first()).toBeVisible();
    await goTo(page, `${suvok.origin}/devices`);
    await panel.getByText('tyre slip', { exact: true }).click();
    await panel.getByText('weak pump', { exact: true }).click();
    await expect(panel.getByRole('checkbox', { checked: true })).toHaveCount(0);
  },
);

for (const [dyno, drums, lane] of [
  ['two-axles', ['front', 'rear'], 'Power by axle'],
  ['four-hubs', ['frontLeft', 'frontRight', 'rearLeft', 'rearRight'], 'Power by side'],
] as const) {
  test(
    `a car that drives both axles on ${dyno}: each drum by itself, and a slip between the axles is named`,
    { tag: '@long' },
    async ({ page, suvok }) => {
      const job = await suvok.mountedJob('Hallam 2.2 diesel minibus');
      await suvok.startStandIns('fast', 5, dyno);
      const [healthy] = await suvok.record(job, 1);
      const curve = await suvok.ask<CurveJson>('GET', `/runs/${healthy!.id}/curve`);
      expect(Object.keys(curve.drumsKw ?? {})).toEqual(drums);
      const at = Math.floor(curve.powerKw.length / 2);
      const each = Object.values(curve.drumsKw ?? {}).map((values) => values[at]!);
      expect(each.reduce((sum, value) => sum + value, 0)).toBeCloseTo(curve.powerKw[at]!, 3);
      expect(curve.checks.map(({ id }) => id)).not.toContain('axle-slip');
      await suvok.ask('PUT', '/device/faults', { device: `stand-in-${dyno}`, faults: ['axle slip'] });
      const [, slipped] = await suvok.record(job, 1);
      const { checks } = await suvok.ask<CurveJson>('GET', `/runs/${slipped!.id}/curve`);
      expect(checks.find(({ id }) => id === 'axle-slip')?.message).toMatch(
        /front (drums|hubs) fall up to \d\.\d % behind/,
      );
      await goTo(page, `${suvok.origin}/jobs/${job.id}/compare?setup=A`);
      await page.getByRole('button', { name: 'Lanes' }).click();
      await page.getByRole('combobox', { name: 'Add a lane' }).click();
      await page.getByRole('option', { name: lane }).click();
      await page.keyboard.press('Escape');
      await expect(page.getByRole('img', { name: new RegExp(`^${lane}`) })).toBeVisible();
    },
  );
}
