import { goTo } from './go-to.ts';
import { expect, test } from './suvok.ts';

const password = 'quite a long one';

test('the first account is made on the page; then everybody signs in, and the timeline names who did what', async ({
  page,
  context,
  suvok,
}) => {
  const job = await suvok.mountedJob();
  await goTo(page, `${suvok.origin}/people`);
  await expect(page.getByText('There are no accounts')).toBeVisible();
  await page.getByLabel('Your name').fill('Ola Nordby');
  await page.getByLabel('A password').fill(password);
  await page.getByRole('button', { name: 'Make the first account' }).click();
  await expect(page.getByRole('button', { name: 'Account of Ola Nordby' })).toHaveText('ON');
  await page.getByLabel('Name', { exact: true }).fill('Vic');
  await page.getByRole('combobox', { name: 'May do' }).click();
  await page.getByRole('option', { name: /^viewer/ }).click();
  await page.getByLabel('First password').fill(password);
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('combobox', { name: 'Role of Vic' })).toHaveValue(/viewer/);
  // The last owner stays one.
  await page.getByRole('combobox', { name: 'Role of Ola Nordby' }).click();
  await page.getByRole('option', { name: /^operator/ }).click();
  await expect(page.getByText('One owner must stay')).toBeVisible();
  await goTo(page, `${suvok.origin}/jobs/${job.id}/brief?show=history`);
  await page.getByRole('textbox', { name: 'A line for the timeline' }).fill('Clutch smells');
  await page.getByRole('button', { name: 'Write', exact: true }).click();
  await page.getByLabel('Question').fill('Does the clutch hold?');
  await page.keyboard.press('Tab');
  await expect(page.getByText('Question: Does the clutch hold?')).toContainText('Ola Nordby');

  // Another browser: signs in wrong, then right, and may look only.
  const other = await context.browser()!.newContext();
  const theirs = await other.newPage();
  await theirs.goto(`${suvok.origin}/jobs/${job.id}/brief?show=history`);
  await theirs.getByLabel('Name').fill('vic');
  await theirs.getByLabel('Password', { exact: true }).fill('not the right one');
  await theirs.getByRole('button', { name: 'Sign in' }).click();
  await expect(theirs.getByRole('alert')).toHaveText('No account has this name and password.');
  await theirs.getByLabel('Password', { exact: true }).fill(password);
  await theirs.getByRole('button', { name: 'Sign in' }).click();
  await expect(theirs.getByText('Clutch smells')).toBeVisible();
  await expect(theirs.getByText('looks only')).toBeVisible();
  await theirs.getByRole('textbox', { name: 'A line for the timeline' }).fill('I was here');
  await theirs.getByRole('button', { name: 'Write', exact: true }).click();
  await expect(theirs.getByText('Vic is a viewer and may look only')).toBeVisible();
  await theirs.goto(`${suvok.origin}/people`);
  await expect(theirs.getByText('Only an owner says who may use Suvok.')).toBeVisible();

  // Shut out, the open page asks for a sign-in by itself.
  await goTo(page, `${suvok.origin}/people`);
  await page.getByRole('button', { name: 'Shut the account' }).last().click();
  await expect(theirs.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await other.close();
  await page.getByRole('button', { name: 'Account of Ola Nordby' }).click();
  await page.getByRole('menuitem', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('an own password is changed under the initials', { tag: '@long' }, async ({ page, suvok }) => {
  await goTo(page, `${suvok.origin}/people`);
  await page.getByLabel('Your name').fill('Ola');
  await page.getByLabel('A password').fill(password);
  await page.getByRole('button', { name: 'Make the first account' }).click();
  await page.getByRole('button', { name: 'Account of Ola' }).click();
  await page.getByRole('menuitem', { name: 'Change the password' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Until now').fill('something else');
  await dialog.getByLabel('From now on').fill('another long one');
  await dialog.getByRole('button', { name: 'Change' }).click();
  await expect(page.getByText('The password until now is another one.')).toBeVisible();
  await dialog.getByLabel('Until now').fill(password);
  await dialog.getByRole('button', { name: 'Change' }).click();
  await expect(page.getByText('The password is changed')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Account of Ola' })).toBeVisible();
});
