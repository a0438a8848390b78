import { ActionIcon, FileButton, Button } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useState } from 'react';
import type { Job } from '../../../contract/job/records.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import { takeAway } from '../../state/undo.tsx';
import classes from '../../ui/file-form.module.css';

/** Pictures of plugs, gauges, damage. The file's name is the first caption. */
export function Photos({ job }: { job: Job }) {
  const add = useChange((file: File) => api.addPhoto(job.id, file, file.name.replace(/\.\w+$/, '')));
  const [large, setLarge] = useState<number>();
  return (
    <section className={classes.section}>
      <h2 className="heading">Photos</h2>
      <div className={classes.photos}>
        {job.photos.map((photo) => (
          <figure key={photo.id} className={classes.photo} style={large === photo.id ? { width: '100%' } : undefined}>
            <button
              aria-label={`${photo.caption || 'Photo'}: ${large === photo.id ? 'smaller' : 'larger'}`}
              style={{ all: 'unset', cursor: 'zoom-in', display: 'block' }}
              onClick={() => setLarge(large === photo.id ? undefined : photo.id)}
            >
              <img
                src={`/api/photos/${photo.id}/content`}
                alt={photo.caption || 'Photo of this job'}
                style={large === photo.id ? { width: '100%', height: 'auto' } : undefined}
              />
            </button>
            <figcaption>{photo.caption}</figcaption>
            <ActionIcon
              variant="default"
              size={28}
              aria-label={`Take away ${photo.caption || 'photo'}`}
              onClick={() => void takeAway('Photo', () => api.removeEntry('photos', photo.id))}
            >
              <IconX size={14} />
            </ActionIcon>
          </figure>
        ))}
      </div>
      <FileButton accept="image/jpeg,image/png,image/webp" onChange={(file) => file && add.mutate(file)}>
        {(props) => (
          <Button {...props} variant="default" mt={8} loading={add.isPending}>
            Add a photo
          </Button>
        )}
      </FileButton>
    </section>
  );
}
