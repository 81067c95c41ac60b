/** Sentences about what is no longer safe and is spoken with one unit by name. */

export const oldWords = {
  spoken: 'Somebody accepts what is no longer safe, for this unit alone.',
  speak: 'I accept it for this unit alone: muster it',
  noMore: 'Accept it no more',
} as const
