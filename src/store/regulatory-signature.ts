/**
 * The signature beside a regulatory database: CMS SignedData (RFC 5652), detached, as `regulatory.db.p7s` holds it with
 * the certificate of its signer.
 */
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Certificate, SignedData } from 'pkijs'
import { z } from 'zod'
import { dataFolder } from './data-folder'

export type SignatureReading =
  | { readonly kind: 'known' | 'unknown'; readonly words: string }
  /** It is none, or not of these bytes. */
  | { readonly kind: 'does-not-fit'; readonly reason: string }

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
    return { kind: 'does-not-fit', reason: 'it is not a signature that can be read' }
  }
  if (!certificate) return { kind: 'does-not-fit', reason: 'it does not bring the certificate of its signer' }
  const fits = await signed.verify({ signer: 0, data: arrayBuffer(bytes), checkChain: false }).catch(() => false)
  if (!fits)
    return {
      kind: 'does-not-fit',
      reason: 'the file was changed after it was signed, or it was signed for another file',
    }
  const fingerprint = createHash('sha256')
    .update(Buffer.from(certificate.toSchema(true).toBER()))
    .digest('hex')
  const known = signers.find((signer) => signer.fingerprint === fingerprint)
  if (known) return { kind: 'known', words: `Signed by ${known.words}, and unchanged since.` }
  return {
    kind: 'unknown',
    words: `Signed with a key that is not known here (certificate ${fingerprint.slice(0, 16)}…), and unchanged since.`,
  }
}

/** Signers of whom the program brings the fingerprint of the certificate, SHA-256. */
function knownSigners(): readonly Signer[] {
  return signersSchema.parse(JSON.parse(readFileSync(join(dataFolder(), 'regulatory-signers.json'), 'utf8'))).signers
}

function arrayBuffer(bytes: Buffer): ArrayBuffer {
  return new Uint8Array(bytes).buffer
}
