'use client'
import { Button, PasswordInput, TextInput } from '@mantine/core'
import { type ReactNode, useState } from 'react'
import { type Hand, type Told, windowSize } from '../../core/showing/window-talk'
import { loginWords } from '../../words/en/window'
import classes from './window.module.css'

interface AskedProps<K extends Told['kind']> {
  readonly asked: Extract<Told, { kind: K }>
  readonly act: (hand: Hand) => void
}

interface AskedFormProps {
  readonly role: 'dialog' | 'alertdialog'
  readonly label: string
  readonly answer: (fields: FormData) => void
  readonly children: ReactNode
}

/** What the unit asks, over the picture of its page. */
function AskedForm({ role, label, answer, children }: AskedFormProps) {
  return (
    <section className={classes.asked} role={role} aria-label={label}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          answer(new FormData(event.currentTarget))
        }}
      >
        {children}
      </form>
    </section>
  )
}

/** Alert, confirm, prompt, and a page that asks whether it may be left. */
export function AskedDialog({ asked, act }: AskedProps<'asks'>) {
  const { question, of, words, preset = '' } = asked
  const [text, setText] = useState(preset)
  const say = (says: 'yes' | 'no') => act({ kind: 'answer', question, says, ...(of === 'prompt' ? { text } : {}) })
  return (
    <AskedForm role="alertdialog" label="The unit asks" answer={() => say('yes')}>
      <p className="soft">The unit asks</p>
      <p>{words || (of === 'leave' ? 'Leave this page? What was changed on it may be lost.' : '(nothing)')}</p>
      {of === 'prompt' && (
        <TextInput
          data-autofocus
          aria-label="Answer"
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
      )}
      <div className={classes.acts}>
        {of !== 'alert' && (
          <Button variant="default" onClick={() => say('no')}>
            {of === 'leave' ? 'Stay' : 'No'}
          </Button>
        )}
        <Button type="submit" autoFocus={of !== 'prompt'}>
          {of === 'alert' ? 'Read' : of === 'leave' ? 'Leave it' : 'Yes'}
        </Button>
      </div>
    </AskedForm>
  )
}

/** The choices of a list, where the list is in the picture. */
export function AskedChoices({ asked, act }: AskedProps<'choices'>) {
  const { question, multiple, options, x, y, width } = asked
  const chosen = options.flatMap((option, at) => (option.chosen ? [at] : []))
  const [several, setSeveral] = useState(chosen)
  const choose = (places: readonly number[]) => act({ kind: 'choose', question, options: [...places] })
  return (
    <div
      className={classes.choices}
      role="listbox"
      aria-label="Choices"
      aria-multiselectable={multiple}
      tabIndex={-1}
      style={{
        left: `${(100 * x) / windowSize.width}%`,
        top: `${(100 * Math.min(y, windowSize.height * 0.7)) / windowSize.height}%`,
        minWidth: `${(100 * width) / windowSize.width}%`,
      }}
      onKeyDown={(event) => event.key === 'Escape' && choose(chosen)}
    >
      {options.map(({ label, disabled }, at) => {
        const isChosen = (multiple ? several : chosen).includes(at)
        return (
          <button
            // biome-ignore lint/suspicious/noArrayIndexKey: a list keeps its order while it is open
            key={at}
            type="button"
            role="option"
            aria-selected={isChosen}
            disabled={disabled}
            // biome-ignore lint/a11y/noAutofocus: whoever opened the list goes on by keys
            autoFocus={at === (chosen[0] ?? 0)}
            onClick={() =>
              multiple ? setSeveral(isChosen ? several.filter((each) => each !== at) : [...several, at]) : choose([at])
            }
          >
            {label || '(empty)'}
          </button>
        )
      })}
      {multiple && (
        <Button size="compact-sm" onClick={() => choose(several)}>
          Choose {several.length}
        </Button>
      )}
    </div>
  )
}

/** A login that HTTP itself asks for (RFC 7617, RFC 7616), or SSH. */
export function AskedLogin({ asked, act }: AskedProps<'wants-login'>) {
  const { question, realm } = asked
  return (
    <AskedForm
      role="dialog"
      label="The unit wants a login"
      answer={(fields) => {
        const [user, password] = [String(fields.get('user')), String(fields.get('password'))]
        act({ kind: 'login', question, user, password })
      }}
    >
      <p>The unit wants a login{realm && <span className="soft"> for {realm}</span>}</p>
      <TextInput name="user" label="User" autoComplete="off" data-autofocus />
      <PasswordInput name="password" label="Password" autoComplete="off" />
      <div className={classes.acts}>
        {(['factory', 'to-be'] as const).map((as) => (
          <Button key={as} variant="default" onClick={() => act({ kind: 'login-as', question, as })}>
            {loginWords[as]}
          </Button>
        ))}
      </div>
      <div className={classes.acts}>
        <Button variant="default" onClick={() => act({ kind: 'answer', question, says: 'no' })}>
          Go without
        </Button>
        <Button type="submit">Sign in</Button>
      </div>
    </AskedForm>
  )
}
