/** The colour of a sentence by its verdict; the mark's shape says it too. */
export const VERDICT_TEXT = { fine: '', look: 'text-look', stop: 'text-stop' } as const
