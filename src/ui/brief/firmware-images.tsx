'use client'
import type { FirmwareImage } from '../../core/brief/policies'
import { modelName, modelsOf } from '../../core/kit/kit-card'
import { sentence } from '../../words/en/sentence'
import { ChooseFile } from '../frame/choose-file'
import { useJob } from '../live/job-provider'
import { sendFile } from '../live/send-file'
import { useOrder } from '../live/use-order'
import classes from './brief.module.css'
import { useBrief } from './brief-draft'
import { Choice, TextField } from './fields'

/** Images for models of the kit list that are to run another firmware than they bring. */
export function FirmwareImages() {
  const { job, units, cards } = useJob()
  const { brief, change } = useBrief()
  const { order, pending, fault } = useOrder()
  const { images } = brief.aftercare
  const models = modelsOf(units, cards)
    .filter(({ timing }) => timing.image !== undefined)
    .map(modelName)
  const without = models.find((model) => !images.some((image) => image.model === model))

  const take = (file: File): void =>
    order(async () => {
      const outcome = await sendFile<Pick<FirmwareImage, 'sha256' | 'bytes'>>(`jobs/${job.slug}/image`, file, {
        'content-type': 'application/octet-stream',
        'x-file-name': file.name,
      })
      if (outcome.ok && outcome.value && without !== undefined)
        change('aftercare.images', [
          ...images,
          { model: without, version: versionIn(file.name), file: file.name.slice(0, 120), ...outcome.value },
        ])
      return outcome
    })

  if (models.length === 0 && images.length === 0) return null
  return (
    <p>
      {images.length === 0 && 'No unit is given another firmware.'}
      {images.map(({ model, file, bytes, sha256 }, at) => (
        <span key={sha256 + model} className={classes.user}>
          Units of{' '}
          <Choice
            path={`aftercare.images.${at}.model`}
            label={`Model of image ${at + 1}`}
            options={[...new Set([model, ...models])].map((each) => ({ value: each, words: each }))}
          />{' '}
          that run an older one are given{' '}
          <TextField path={`aftercare.images.${at}.version`} label={`Version of image ${at + 1}`} face="mono" />
          {` from ${file} (${sizeWords(bytes)}). `}
          <button
            type="button"
            className={classes.remove}
            aria-label={`Take the image for ${model} off`}
            onClick={() =>
              change(
                'aftercare.images',
                images.filter((_, other) => other !== at),
              )
            }
          >
            Take off
          </button>
          <span className={classes.digest}>
            SHA-256, to compare with its maker&rsquo;s: <span className="mono">{sha256}</span>
          </span>
        </span>
      ))}{' '}
      {without !== undefined && images.length < 16 && (
        <ChooseFile
          words={pending ? 'Taking it in' : 'Give an image'}
          label="Image of a firmware"
          disabled={pending}
          className={classes.add}
          onFiles={([file]) => file && take(file)}
        />
      )}
      {fault && <span role="status"> {sentence(fault.told)}</span>}
    </p>
  )
}

/** A version as makers put it into names of files; the person sees to it that it is right. */
function versionIn(name: string): string {
  return /\d+(\.\d+)+/.exec(name)?.[0] ?? ''
}

function sizeWords(bytes: number): string {
  return bytes < 1024 * 1024 ? `${Math.ceil(bytes / 1024)} kB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`
}
