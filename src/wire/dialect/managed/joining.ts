/** How far an access point has come with its controller (RFC 5415, 2.3), as our module has it. */
import { z } from 'zod'

export const joiningSchema = z.object({
  name: z.string().max(64).optional(),
  join: z.enum(['absent', 'discovered', 'joining', 'image', 'configuring', 'run', 'turned-away']).default('absent'),
  reason: z.enum(['not-listed', 'licence-full', 'clock', 'country', 'certificate', 'login', 'image-failed']).optional(),
  'current-address': z.string().max(40).optional(),
})
export type Joining = z.infer<typeof joiningSchema>
