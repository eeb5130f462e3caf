/** What a server is asked for. */
export const purposeWords = {
  asking: 'asking',
  accounting: 'accounting',
  change: 'change',
} as const;
