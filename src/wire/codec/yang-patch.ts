/**
 * YANG Patch (RFC 8072): several edits in one request that are carried out together or not at all.
 */
import { z } from 'zod'

export const yangPatchType = 'application/yang-patch+json'
export const yangDataType = 'application/yang-data+json'

export const yangEditSchema = z.object({
  'edit-id': z.string().min(1),
  operation: z.enum(['create', 'delete', 'merge', 'remove', 'replace']),
  target: z.string(),
  value: z.record(z.string(), z.unknown()).optional(),
})
export type YangEdit = z.infer<typeof yangEditSchema>

export const yangPatchSchema = z.object({
  'ietf-yang-patch:yang-patch': z.object({
    'patch-id': z.string(),
    comment: z.string().optional(),
    edit: z.array(yangEditSchema).min(1),
  }),
})
export type YangPatch = z.infer<typeof yangPatchSchema>

const yangErrorSchema = z.object({
  'error-type': z.string(),
  'error-tag': z.string(),
  'error-path': z.string().optional(),
  'error-message': z.string().optional(),
})
export type YangError = z.infer<typeof yangErrorSchema>
const errorList = z.object({ error: z.array(yangErrorSchema) })

export const yangPatchStatusSchema = z.object({
  'ietf-yang-patch:yang-patch-status': z.object({
    'patch-id': z.string(),
    ok: z.tuple([z.null()]).optional(),
    errors: errorList.optional(),
    'edit-status': z
      .object({
        edit: z.array(
          z.object({ 'edit-id': z.string(), ok: z.tuple([z.null()]).optional(), errors: errorList.optional() }),
        ),
      })
      .optional(),
  }),
})

export const restconfErrorsSchema = z.object({ 'ietf-restconf:errors': errorList })

/** Every error that a reply holds, wherever RFC 8040 or RFC 8072 put it. */
export function errorsIn(reply: unknown): YangError[] {
  const status = yangPatchStatusSchema.safeParse(reply)
  if (status.success) {
    const body = status.data['ietf-yang-patch:yang-patch-status']
    return [
      ...(body.errors?.error ?? []),
      ...(body['edit-status']?.edit ?? []).flatMap((edit) => edit.errors?.error ?? []),
    ]
  }
  const errors = restconfErrorsSchema.safeParse(reply)
  return errors.success ? errors.data['ietf-restconf:errors'].error : []
}

export function yangPatch(id: string, edits: readonly Omit<YangEdit, 'edit-id'>[]): YangPatch {
  return {
    'ietf-yang-patch:yang-patch': {
      'patch-id': id,
      edit: edits.map((edit, index) => ({ 'edit-id': `edit-${index + 1}`, ...edit })),
    },
  }
}
