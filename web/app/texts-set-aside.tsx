import { Button, CopyButton, Group, Modal, Stack, Text } from '@mantine/core';
import { useState } from 'react';
import { draftsSetAside, forgetDraftsSetAside } from '../state/drafts.ts';
import classes from './texts-set-aside.module.css';

/** What was typed and not saved for data that were replaced since: shown until somebody says that it may go. */
export function TextsSetAside() {
  const [texts, setTexts] = useState(draftsSetAside);
  const [later, setLater] = useState(false);
  return (
    <Modal
      opened={texts.length > 0 && !later}
      onClose={() => setLater(true)}
      title="Texts that were not saved"
      size="lg"
    >
      <Stack>
        <Text size="sm">
          The data of this Suvok were restored or begun anew.{' '}
          {texts.length === 1 ? 'This text was' : 'These texts were'} typed for the data before that and not saved. Copy
          what is still wanted.
        </Text>
        <ul className={classes.texts}>
          {texts.map((text, at) => (
            <li key={at}>
              <span className={classes.text}>{text}</span>
              <CopyButton value={text}>
                {({ copied, copy }) => (
                  <Button variant="default" size="sm" onClick={copy}>
                    {copied ? 'Copied' : 'Copy'}
                  </Button>
                )}
              </CopyButton>
            </li>
          ))}
        </ul>
        <Group justify="space-between">
          <Button
            variant="subtle"
            color="gray"
            onClick={() => {
              forgetDraftsSetAside();
              setTexts([]);
            }}
          >
            Delete {texts.length === 1 ? 'it' : 'all'}
          </Button>
          <Button onClick={() => setLater(true)}>Keep for now</Button>
        </Group>
      </Stack>
    </Modal>
  );
}
