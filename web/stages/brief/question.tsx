import { useOwnUnits } from '../../units/use-own-units.tsx';
import { Checkbox, Select } from '@mantine/core';
import type { JobChange } from '../../../contract/job/job-requests.ts';
import type { Job } from '../../../contract/job/records.ts';
import { api } from '../../state/api.ts';
import { useChange } from '../../state/use-change.ts';
import { SavedField, SavedNumber } from '../../ui/saved-field.tsx';
import classes from '../../ui/file-form.module.css';
import stage from './brief-stage.module.css';

type Words = 'use' | 'target' | 'notWanted' | 'deliverables' | 'claimedSource';

/** What the owner wants to know, in large; it stores itself when it is left. */
export function AskedQuestion({ job }: { job: Job }) {
  return (
    <fieldset className={stage.asked} disabled={job.state === 'closed'}>
      <SavedField
        label="Question"
        field="question"
        breaks
        placeholder="What does the owner want to know?"
        value={job.question}
        revision={job.revision}
        place={`job/${job.id}/question`}
        save={(question, revision) => api.changeJob(job.id, { question, revision })}
      />
    </fieldset>
  );
}

/** What for, what must not come of it, and what every run begins with. Every field stores itself when it is left. */
export function Question({ job }: { job: Job }) {
  const own = useOwnUnits();
  const change = useChange((fields: JobChange) => api.changeJob(job.id, fields));
  const words = (field: Words, label: string, placeholder: string) => (
    <SavedField
      label={label}
      field={field}
      placeholder={placeholder}
      value={job[field]}
      revision={job.revision}
      place={`job/${job.id}/${field}`}
      save={(text, revision) => api.changeJob(job.id, { [field]: text, revision })}
    />
  );
  const begun = (field: 'fan' | 'bonnet', label: string, placeholder: string) => (
    <SavedField
      label={label}
      field={field}
      placeholder={placeholder}
      value={job[field] ?? ''}
      revision={job.revision}
      place={`job/${job.id}/${field}`}
      save={(text, revision) => api.changeJob(job.id, { [field]: text.trim() || null, revision })}
    />
  );
  return (
    <section className={classes.section}>
      <h2 className="heading">The order</h2>
      <div className={classes.fields}>
        <div className={classes.pair}>
          {words('use', 'Use', 'street, towing, hill climbs…')}
          {words('deliverables', 'To be delivered', 'report, file, a second key setting')}
        </div>
        <div className={classes.pair}>
          {words('target', 'Target in words', '190 kW, or pulls from 2,000')}
          {words('notWanted', 'Not wanted', 'a peak that costs the low end')}
        </div>
        <div className={classes.pair}>
          <SavedNumber
            label="Change that matters, % of power"
            field="wantedPercent"
            placeholder="e.g. 1"
            value={job.wantedPercent}
            revision={job.revision}
            place={`job/${job.id}/wantedPercent`}
            save={(wantedPercent, revision) => api.changeJob(job.id, { wantedPercent, revision })}
          />
          {words('claimedSource', 'Claimed by', 'whose figure it is')}
        </div>
        <div className={classes.pair}>
          <SavedNumber
            label="Claimed figure"
            field="claimedValue"
            placeholder="what the owner says"
            value={job.claimedValue}
            revision={job.revision}
            place={`job/${job.id}/claimedValue`}
            save={(claimedValue, revision) => api.changeJob(job.id, { claimedValue, revision })}
          />
          <div className={classes.pair}>
            <Select
              aria-label="Unit of the claimed figure"
              data={['kW', 'hp', 'PS']}
              value={job.claimedUnit}
              allowDeselect={false}
              onChange={(unit) => change.mutate({ claimedUnit: unit as Job['claimedUnit'] })}
            />
            <Select
              aria-label="Where the claimed figure was taken"
              data={[
                { value: 'crank', label: 'crank' },
                { value: 'wheels', label: 'wheels' },
              ]}
              placeholder="scale"
              value={job.claimedScale}
              onChange={(scale) => change.mutate({ claimedScale: scale as Job['claimedScale'] })}
            />
          </div>
        </div>
        <Checkbox
          label="A second, gentler tune as well"
          checked={job.gentlerTune}
          onChange={(event) => change.mutate({ gentlerTune: event.currentTarget.checked })}
        />
        <details className={classes.fold}>
          <summary>
            Every run begins with <small>{circumstances(job)}</small>
          </summary>
          <div className={classes.fields}>
            <div className={classes.pair}>
              <SavedField
                label="Gear"
                field="gear"
                placeholder="nearest 1:1"
                value={job.gear ?? ''}
                revision={job.revision}
                place={`job/${job.id}/gear`}
                save={(gear, revision) => api.changeJob(job.id, { gear: gear.trim() || null, revision })}
              />
              <Select
                label="Dyno"
                placeholder="any"
                clearable
                data={[
                  { value: 'inertia-roller', label: 'inertia roller' },
                  { value: 'loaded-roller', label: 'loaded roller' },
                  { value: 'hub', label: 'hubs' },
                ]}
                value={job.dynoKind}
                onChange={(kind) => change.mutate({ dynoKind: kind as Job['dynoKind'] })}
              />
            </div>
            <div className={classes.pair}>
              {begun('fan', 'Fan', 'full, in front')}
              {begun('bonnet', 'Bonnet', 'open')}
            </div>
            <SavedNumber
              label="Tyre pressure"
              unit="kPa"
              field="tyrePressureKpa"
              placeholder={`e.g. ${own.figure(240, 'kPa')}`}
              value={job.tyrePressureKpa}
              revision={job.revision}
              place={`job/${job.id}/tyrePressureKpa`}
              save={(tyrePressureKpa, revision) => api.changeJob(job.id, { tyrePressureKpa, revision })}
            />
            <p className={classes.quiet}>
              The tyres of the car come with them; a run that was made otherwise is put right at its label.
            </p>
          </div>
        </details>
      </div>
    </section>
  );
}

/** What is written of them, in a line. */
function circumstances({ gear, fan, bonnet, tyrePressureKpa }: Job): string {
  const known = [
    gear && `gear ${gear}`,
    fan && `fan ${fan}`,
    bonnet && `bonnet ${bonnet}`,
    tyrePressureKpa !== null && 'tyre pressure',
  ];
  return known.filter(Boolean).join(', ') || 'gear, dyno, fan, bonnet, tyre pressure';
}
