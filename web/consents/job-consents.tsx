import { keys } from '../state/query-keys.ts';
import { Button, Group, Modal, Stack, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import dayjs from 'dayjs';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Consent, ConsentTemplate } from '../../contract/shop/consents.ts';
import type { Job } from '../../contract/job/records.ts';
import { jobConsents } from '../../core/consents/asked-consents.ts';
import { api } from '../state/api.ts';
import { useChange } from '../state/use-change.ts';
import { takeAway } from '../state/undo.tsx';
import { SeverityMark } from '../ui/severity.tsx';
import classes from './consents.module.css';
import { SignaturePad, type Strokes } from './signature-pad.tsx';

/** What owners are asked to agree to. */
export const useConsentTemplates = () => useQuery({ queryKey: keys.consentTemplates, queryFn: api.consentTemplates });

/** A job's consents: signed, asked for and missing, or there to be signed. Nothing waits for them. */
export function JobConsents({ job }: { job: Job }) {
  const { data: templates } = useConsentTemplates();
  const [signing, setSigning] = useState<ConsentTemplate>();
  if (!templates) return null;
  return (
    <section>
      <h2 className="heading">Consents</h2>
      <ul className={classes.list}>
        {jobConsents(job, templates).map(({ template, signed, isOlder, isMissing }) => {
          const kept =
            signed &&
            job.consents.find(({ templateId, signedAt }) => templateId === template.id && signedAt === signed.signedAt);
          return (
            <li key={template.id}>
              <span>
                {isMissing && <SeverityMark severity="mind" />} <b>{template.title}</b>
                <small>
                  {signed
                    ? `${signedWords(signed)}${isOlder ? '; the text was changed since' : ''}`
                    : isMissing
                      ? 'not signed'
                      : 'signed where it is wanted'}
                </small>
              </span>
              {kept ? (
                <Kept consent={kept} />
              ) : (
                <Button
                  variant="default"
                  size="sm"
                  aria-label={`Sign ${template.title}`}
                  onClick={() => setSigning(template)}
                >
                  Sign
                </Button>
              )}
            </li>
          );
        })}
        {job.consents
          .filter(({ templateId }) => !templates.some(({ id }) => id === templateId))
          .map((consent) => (
            <li key={`signed-${consent.id}`}>
              <span>
                <b>{consent.title}</b>
                <small>{signedWords(consent)}; the text is not asked for here any more</small>
              </span>
              <Kept consent={consent} />
            </li>
          ))}
      </ul>
      <p className="soft">
        <Link to="/consents" className={classes.file}>
          Change the texts
        </Link>
      </p>
      <Modal opened={signing !== undefined} onClose={() => setSigning(undefined)} title={signing?.title} size="lg">
        {signing && <Signing key={signing.id} job={job} template={signing} onDone={() => setSigning(undefined)} />}
      </Modal>
    </section>
  );
}

const signedWords = ({ name, signedAt }: Pick<Consent, 'name' | 'signedAt'>) =>
  `${name}, ${dayjs(signedAt).format('D MMM YYYY, HH:mm')}`;

/** What is done with a consent that was signed. */
function Kept({ consent: { id, title } }: { consent: Consent }) {
  return (
    <Group gap={6}>
      <a className={classes.file} href={`/api/consents/${id}/consent.pdf`}>
        PDF
      </a>
      <Button
        variant="subtle"
        color="gray"
        size="compact-sm"
        aria-label={`Remove ${title}`}
        onClick={() => void takeAway('The consent is', () => api.removeEntry('consents', id))}
      >
        Remove
      </Button>
    </Group>
  );
}

function Signing({ job, template, onDone }: { job: Job; template: ConsentTemplate; onDone: () => void }) {
  const [name, setName] = useState(job.owner);
  const [strokes, setStrokes] = useState<Strokes>([]);
  const sign = useChange(() =>
    api.signConsent(job.id, { templateId: template.id, version: template.revision, name, strokes }),
  );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        sign.mutate(undefined, { onSuccess: onDone });
      }}
    >
      <Stack gap={12}>
        <div className={classes.text}>
          {template.text.split(/\n+/).map((paragraph) => (
            <p key={paragraph}>{paragraph}</p>
          ))}
        </div>
        <TextInput label="Name" value={name} onChange={(event) => setName(event.currentTarget.value)} required />
        <SignaturePad strokes={strokes} onChange={setStrokes} />
        <Group justify="space-between">
          <Button variant="default" disabled={strokes.length === 0} onClick={() => setStrokes([])}>
            Clear
          </Button>
          <Group>
            <Button variant="subtle" color="gray" onClick={onDone}>
              Cancel
            </Button>
            <Button type="submit" disabled={strokes.length === 0 || name.trim() === ''} loading={sign.isPending}>
              Sign
            </Button>
          </Group>
        </Group>
      </Stack>
    </form>
  );
}
