/** Sentences about units that are held. */

export const heldPageWords = {
  show: 'See its page as it was then',
  title: (unit: string) => `The page of ${unit} when it was held`,
  alt: 'A picture of the page. What can be read in it stands below.',
  about: 'Fields and words that hold a secret of this job are blank.',
  words: 'What can be read on it',
} as const
