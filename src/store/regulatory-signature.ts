/**
 * The signature beside a regulatory database: CMS SignedData (RFC 5652), detached, as `regulatory.db.p7s` holds it with
 * the certificate of its signer.
 */

import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Certificate, SignedData } from 'pkijs'
import { z } from 'zod'
import { type Message, message } from '../core/message/message'
import { dataFolder } from './data-folder'

export type SignatureReading =
  | { readonly kind: 'known' | 'unknown'; readonly signer: Message }
  /** It is none, or not of these bytes. */
  | { readonly kind: 'does-not-fit'; readonly reason: Message }

const signerSchema = z.object({ fingerprint: z.string(), words: z.string() })
/** SHA-256 of a certificate, hexadecimal, and whose it is. */
export type Signer = z.infer<typeof signerSchema>
const signersSchema = z.object({ signers: z.array(signerSchema) })

/** @param bytes  what is signed @param signature  DER @param signers  whose certificates are known */
export async function readSignature(
  bytes: Buffer,
  signature: Buffer,
  signers: readonly Signer[] = knownSigners(),
): Promise<SignatureReading> {
  // Large, and asked for once in a while.
  const pki = await import('pkijs')
  let signed: SignedData
  let certificate: Certificate | undefined
  try {
    const content = pki.ContentInfo.fromBER(arrayBuffer(signature))
    signed = new pki.SignedData({ schema: content.content })
    certificate = signed.certificates?.find((each): each is Certificate => each instanceof pki.Certificate)
  } catch {
    return { kind: 'does-not-fit', reason: message('signature-unreadable') }
  }
  if (!certificate) return { kind: 'does-not-fit', reason: message('signature-without-certificate') }
  const fits = await signed.verify({ signer: 0, data: arrayBuffer(bytes), checkChain: false }).catch(() => false)
  if (!fits)
    return {
      kind: 'does-not-fit',
      reason: message('signature-of-another-file'),
    }
  const fingerprint = createHash('sha256')
    .update(Buffer.from(certificate.toSchema(true).toBER()))
    .digest('hex')
  const known = signers.find((signer) => signer.fingerprint === fingerprint)
  if (known) return { kind: 'known', signer: message('signed-by-known', { signer: known.words }) }
  return {
    kind: 'unknown',
    signer: message('signed-by-unknown', { certificate: fingerprint.slice(0, 16) }),
  }
}

/** Signers of whom the program brings the fingerprint of the certificate, SHA-256. */
function knownSigners(): readonly Signer[] {
  return signersSchema.parse(JSON.parse(readFileSync(join(dataFolder(), 'regulatory-signers.json'), 'utf8'))).signers
}

function arrayBuffer(bytes: Buffer): ArrayBuffer {
  return new Uint8Array(bytes).buffer
}
