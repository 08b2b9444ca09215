/** The colour of a sentence by its verdict; the mark's shape says it too. */
export const VERDICT_TEXT = { fine: '', look: 'text-look', stop: 'text-stop' } as const
/** The same by what a filament may do on a printer. */
export const CLASS_TEXT = {
  'runs': '',
  'just': 'text-look',
  'changes': 'text-look',
  'cannot': 'text-stop',
  'cannot tell': 'text-ink2',
} as const
