import { Button } from '@mantine/core'
import type { Unit } from '../../core/kit/unit'
import type { Hand, Told } from '../../core/showing/window-talk'
import { wantsFile } from '../../words/en/window'
import { useJob } from '../live/job-provider'
import classes from './window.module.css'

interface AskedFileProps {
  readonly unit: Unit
  readonly asked: Extract<Told, { kind: 'wants-file' }>
  readonly act: (hand: Hand) => void
}

/** A page wants a file: images of the brief, those for this model first, and what its pages gave before. */
export function AskedFile({ unit, asked: { question }, act }: AskedFileProps) {
  const { job, roll } = useJob()
  const isOther = ({ model }: { model: string }): number => Number(model !== unit.model)
  const images = job.brief.aftercare.images.toSorted((a, b) => isOther(a) - isOther(b))
  const hasCopy = roll.rows.get(unit.id)?.copies.fromPages !== undefined
  const give = (file: Extract<Hand, { kind: 'give' }>['file']) => () => act({ kind: 'give', question, file })
  return (
    <div className={classes.asked} role="dialog" aria-label={wantsFile.title}>
      <p className="soft">{wantsFile.title}</p>
      {images.length === 0 && !hasCopy && <p>{wantsFile.none}</p>}
      {images.map(({ model, version, file, sha256 }) => (
        <Button key={sha256} variant="default" onClick={give({ of: 'image', sha256 })}>
          {file} ({model}, {version})
        </Button>
      ))}
      {hasCopy && (
        <Button variant="default" onClick={give({ of: 'from-pages' })}>
          {wantsFile.fromPages}
        </Button>
      )}
      <div className={classes.acts}>
        <Button variant="default" autoFocus onClick={give(null)}>
          {wantsFile.giveNone}
        </Button>
      </div>
    </div>
  )
}
