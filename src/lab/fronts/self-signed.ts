import { generate } from 'selfsigned'
import type { Device } from '../device/device'

/** A certificate that a unit signed itself. */
export async function selfSigned(unit: Device): Promise<{ key: string; cert: string }> {
  const { private: key, cert } = await generate([{ name: 'commonName', value: unit.identity.serial }], {
    keyType: 'ec',
    algorithm: 'sha256',
  })
  return { key, cert }
}
