/** Checks of what keeps watch when the installer has left. */

import type { Brief } from '../brief/brief'
import { isAtLeast } from '../input/version'
import { message } from '../message/message'
import type { BriefFault } from './fault'
import { isInReach } from './reach'

export function reviewAftercare({ aftercare, management, subnets }: Brief): BriefFault[] {
  const faults: BriefFault[] = []
  if (!aftercare.httpsOnly)
    faults.push({
      field: 'aftercare.httpsOnly',
      ...message('plain-http'),
      weight: 'mend',
      mend: { ...message('mend-https-only'), set: [{ path: 'aftercare.httpsOnly', value: true }] },
    })
  const { syslog } = aftercare
  if (syslog !== null && !isInReach({ management, subnets }, syslog))
    faults.push({
      field: 'aftercare.syslog',
      ...message('syslog-out-of-reach', { syslog }),
      weight: 'mend',
      mend: { ...message('mend-no-syslog'), set: [{ path: 'aftercare.syslog', value: null }] },
    })
  for (const [at, { model, version }] of aftercare.images.entries())
    if (aftercare.firmware !== '' && !isAtLeast(aftercare.firmware, version))
      faults.push({
        field: `aftercare.images.${at}.version`,
        ...message('image-too-old', { model, version, wanted: aftercare.firmware }),
        weight: 'mend',
      })
  if (aftercare.ssh === 'on')
    faults.push({
      field: 'aftercare.ssh',
      ...message('ssh-stays-on'),
      weight: 'know',
    })
  return faults
}
