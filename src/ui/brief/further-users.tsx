'use client'
import { secretName } from '../../core/brief/brief'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'
import { Choice, TextField } from './fields'
import { SecretField } from './secret-field'

/** Who may sign in to every unit beside its admin. */
export function FurtherUsers() {
  const { brief, change } = useBrief()
  const users = brief.admin.furtherUsers
  return (
    <>
      {users.length === 0 ? 'Nobody else signs in to them. ' : 'Beside the admin sign in: '}
      {users.map(({ name }, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: one whose name is being typed has no other
        <span key={at} className={classes.user}>
          <TextField
            path={`admin.furtherUsers.${at}.name`}
            label={`Name of user ${at + 1}`}
            face="mono"
            placeholder="name"
          />
          , who{' '}
          <Choice
            path={`admin.furtherUsers.${at}.role`}
            label={`What user ${at + 1} may do`}
            options={[
              { value: 'reads', words: 'may look and change nothing' },
              { value: 'administers', words: 'may change everything' },
            ]}
          />
          . {name !== '' && <SecretField name={secretName.userPassword(name)} label={`Password of ${name}`} />}{' '}
          <button
            type="button"
            className={classes.remove}
            aria-label={`Take user ${at + 1} off`}
            onClick={() =>
              change(
                'admin.furtherUsers',
                users.filter((_, other) => other !== at),
              )
            }
          >
            Take off
          </button>
        </span>
      ))}{' '}
      {users.length < 8 && (
        <button
          type="button"
          className={classes.add}
          onClick={() => change('admin.furtherUsers', [...users, { name: '', role: 'reads' }])}
        >
          Add a user
        </button>
      )}
    </>
  )
}
