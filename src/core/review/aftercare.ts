/** Checks of what keeps watch when the installer has left. */

import type { Brief } from '../brief/brief'
import { isAtLeast } from '../input/version'
import type { BriefFault } from './fault'
import { isInReach } from './reach'

export function reviewAftercare({ aftercare, management, subnets }: Brief): BriefFault[] {
  const faults: BriefFault[] = []
  if (!aftercare.httpsOnly)
    faults.push({
      field: 'aftercare.httpsOnly',
      code: 'plain-http',
      weight: 'mend',
      sentence: 'Units would also be managed over plain HTTP: the admin password could be read on the wire.',
      mend: { words: 'HTTPS only', set: [{ path: 'aftercare.httpsOnly', value: true }] },
    })
  const { syslog } = aftercare
  if (syslog !== null && !isInReach({ management, subnets }, syslog))
    faults.push({
      field: 'aftercare.syslog',
      code: 'syslog-out-of-reach',
      weight: 'mend',
      sentence: `The syslog server ${syslog} is outside every subnet of the site, and management has no gateway: no line would arrive.`,
      mend: { words: 'Leave syslog out', set: [{ path: 'aftercare.syslog', value: null }] },
    })
  for (const [at, { model, version }] of aftercare.images.entries())
    if (aftercare.firmware !== '' && !isAtLeast(aftercare.firmware, version))
      faults.push({
        field: `aftercare.images.${at}.version`,
        code: 'image-too-old',
        weight: 'mend',
        sentence: `The image for ${model} brings ${version}, and every unit is to run ${aftercare.firmware} at least.`,
      })
  if (aftercare.ssh === 'on')
    faults.push({
      field: 'aftercare.ssh',
      code: 'ssh-stays-on',
      weight: 'know',
      sentence:
        'SSH stays on after the visit: whoever has the admin password can sign in from anywhere in the management network.',
    })
  return faults
}
