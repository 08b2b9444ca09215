/** A refused form leads to what is wrong in it: the first such field gets the focus, once it is drawn as wrong. */
export function leadToWrong(): void {
  // the button that sent it has lost the focus where it was disabled meanwhile: then the sheet on top is meant
  const form = document.activeElement?.closest('form, [role=dialog]') ?? document.querySelector('[role=dialog]')
  requestAnimationFrame(() => {
    ;(form ?? document).querySelector<HTMLElement>('[aria-invalid="true"]')?.focus()
  })
}
