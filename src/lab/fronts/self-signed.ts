import { generate } from 'selfsigned'
import type { Device } from '../device/device'

/** A certificate that a unit signed itself. */
export async function selfSigned(unit: Device): Promise<{ key: string; cert: string }> {
  const { maker, model } = unit.sheet
  const subject = [
    { name: 'commonName', value: unit.identity.serial },
    { name: 'organizationName', value: `${maker} ${model}` },
  ]
  const { private: key, cert } = await generate(subject, {
    keyType: 'ec',
    algorithm: 'sha256',
  })
  return { key, cert }
}
