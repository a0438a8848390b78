import { Button, Group, NativeSelect, Stack, Textarea, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { consentAsked, type ConsentTemplate } from '../../../contract/shop/consents.ts';
import { useConsentTemplates } from '../../consents/job-consents.tsx';
import { entriesOfShop } from '../../state/entries.ts';
import { NotFetched } from '../../ui/not-fetched.tsx';
import page from '../../ui/page.module.css';
import classes from './consents-page.module.css';

/** The texts that owners are asked to agree to. What was signed keeps its own. */
export function ConsentsPage() {
  const { data, error, refetch } = useConsentTemplates();
  return (
    <main className={page.page}>
      <h1>Consents</h1>
      <p className="soft">
        Texts that owners sign on the tablet, where they apply. They are examples: have them looked over by somebody who
        knows the law where you work. What was signed keeps the text that was read.
      </p>
      <NotFetched error={error} tryAgain={refetch} />
      {data?.map((template) => (
        <Template key={`${template.id} ${template.revision}`} template={template} />
      ))}
      <h2 className="heading">Another one</h2>
      <Template />
    </main>
  );
}

function Template({ template }: { template?: ConsentTemplate }) {
  const templates = entriesOfShop('consent-templates');
  const form = useForm({
    initialValues: { title: template?.title ?? '', text: template?.text ?? '', asked: template?.asked ?? 'every job' },
    validate: {
      title: (title) => (title.trim() ? null : 'Name it'),
      text: (text) => (text.trim() ? null : 'Write what is agreed to'),
    },
  });
  const name = template?.title ?? 'New consent';
  return (
    <form
      className={classes.template}
      aria-label={name}
      onSubmit={form.onSubmit(async (fields) => {
        if (template) return void templates.change(template.id, { ...fields, revision: template.revision });
        if (await templates.add(fields)) form.reset();
      })}
    >
      <Stack gap={8}>
        <Group grow align="start">
          <TextInput label="Title" {...form.getInputProps('title')} />
          <NativeSelect label="Asked for" data={[...consentAsked]} {...form.getInputProps('asked')} />
        </Group>
        <Textarea label="Text" autosize minRows={3} {...form.getInputProps('text')} />
        <Group justify="space-between">
          <small className="soft">{template && `version ${template.revision}`}</small>
          <Group>
            {template && (
              <Button variant="default" onClick={() => void templates.remove('The text is', template.id)}>
                Remove
              </Button>
            )}
            <Button type="submit" disabled={!form.isDirty()}>
              {template ? 'Save as a new version' : 'Add'}
            </Button>
          </Group>
        </Group>
      </Stack>
    </form>
  );
}
