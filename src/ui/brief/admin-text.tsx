'use client'
import { makesItsAdmin, modelsOf } from '../../core/kit/kit-card'
import { loginTodayWords } from '../../words/en/login-today'
import { LoginToday } from '../frame/login-today'
import { useJob } from '../live/job-provider'
import { useBrief } from './brief-draft'
import { Faults } from './faults'
import { Choice, TextField } from './fields'
import { FurtherUsers } from './further-users'
import { SecretField } from './secret-field'
import { SshKeyField } from './ssh-key-field'

/** How units are signed in to. */
export function AdminText() {
  const { units, cards } = useJob()
  const { brief } = useBrief()
  return (
    <>
      <p>
        There is{' '}
        <Choice
          path="admin.passwords"
          label="Admin passwords"
          options={[
            { value: 'one-per-job', words: 'one admin password for every unit' },
            { value: 'one-per-unit', words: 'an admin password for each unit' },
          ]}
        />
        .{' '}
        {brief.admin.passwords === 'one-per-job' ? (
          <SecretField name="admin/password" label="Admin password" />
        ) : (
          <span className="soft">
            {units.length === 0
              ? 'They are made as units come to the kit list.'
              : `${units.length} are made and sealed.`}
          </span>
        )}
        {modelsOf(units, cards).some(makesItsAdmin) && (
          <>
            {' '}
            Models that ask who looks after them are told{' '}
            <TextField path="admin.user" label="Name of the admin" face="mono" />.
          </>
        )}
      </p>
      <p>
        A controller signs in to its units with{' '}
        <Choice
          path="admin.pushedLogin"
          label="Login that a controller sets"
          options={[
            { value: 'own', words: 'a password of their own' },
            { value: 'same', words: 'the same password' },
          ]}
        />
        .{' '}
        {brief.admin.pushedLogin === 'own' && (
          <SecretField name="admin/pushed-password" label="Password that it sets" />
        )}{' '}
        Indicator lights are{' '}
        <Choice
          path="admin.lights"
          label="Indicator lights"
          options={[
            { value: 'on', words: 'on' },
            { value: 'off', words: 'off' },
          ]}
        />
        .
      </p>
      <p>
        <FurtherUsers />
      </p>
      <p>
        Units that somebody set up before may take a key in place of a password. <SshKeyField />
      </p>
      <div>
        {loginTodayWords.ofJob} <LoginToday of="job" />
      </div>
      <Faults under={['admin']} />
    </>
  )
}
