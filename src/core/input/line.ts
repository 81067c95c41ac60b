/** Text on one line: names of things, which end up in lists, file names and the configurations of other programs. */

import { z } from 'zod'
import { messageText } from '../message/message'

/** @param most  characters */
export const lineSchema = (most: number) =>
  z
    .string()
    .trim()
    .max(most)
    .regex(/^[^\p{Cc}\p{Zl}\p{Zp}]*$/u, messageText('not-one-line'))
