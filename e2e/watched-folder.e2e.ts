import { goTo } from './go-to.ts';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './suvok.ts';

test(
  'a folder is chosen on Devices; what is dropped there becomes a run, and what cannot be read says why',
  { tag: '@long' },
  async ({ page, suvok }) => {
    const folder = mkdtempSync(join(tmpdir(), 'suvok-watched-'));
    await suvok.startStandIns('fast');
    const job = await suvok.mountedJob();
    await suvok.record(job, 1);
    const [run] = await suvok.runs(job);
    const csv = await (await fetch(`${suvok.origin}/api/runs/${run!.id}/run.csv`)).text();
    await goTo(page, `${suvok.origin}/devices`);
    const pane = page.getByRole('region', { name: 'Watched folder' });
    await pane.getByLabel('Folder, its whole path').fill(join(folder, 'none'));
    await pane.getByRole('button', { name: 'Watch it' }).click();
    await expect(pane.getByText(/is no folder on the machine that Suvok runs on/)).toBeVisible();
    await pane.getByLabel('Folder, its whole path').fill(folder);
    await pane.getByRole('button', { name: 'Watch it' }).click();
    await expect(pane.getByRole('button', { name: 'Stop watching' })).toBeVisible();
    writeFileSync(join(folder, 'pull-7.csv'), csv);
    writeFileSync(join(folder, 'readme.txt'), 'not a table');
    const row = pane.getByRole('row', { name: /pull-7\.csv/ });
    await expect(row).toContainText('Run A2 of job');
    await expect(pane.getByRole('row', { name: /readme\.txt/ })).toContainText('Not taken, kept where it is.');
    await expect(
      pane.getByRole('row', { name: /readme\.txt/ }).getByRole('button', { name: 'Try again' }),
    ).toBeVisible();
    await row.getByRole('link', { name: /A2 of job/ }).click();
    await expect(page.getByRole('button', { name: /^Run A2/ })).toBeVisible();
  },
);
