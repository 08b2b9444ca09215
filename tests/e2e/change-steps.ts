/** The steps of a procedure as a person sees them: the card of the one that is next, its button, a heater. */
import type { Page } from '@playwright/test'
import type { ProcedurePage } from '#shared/answers/change'
import { expect } from './support'

export const card = (page: Page) => page.locator('form').filter({ has: page.getByText(/^Step \d+ of \d+$/) })
export const row = (page: Page, printer: string) => page.locator(`[data-printer="${printer}"]`)
export const said = (page: Page, text: RegExp) => page.getByRole('status').filter({ hasText: text })
export const actAs = (page: Page, id: number) =>
  page.context().addCookies([{ name: 'iron-nozzle-person', value: String(id), url: page.url() }])
const stepOf = (page: Page, title: RegExp) => {
  const words = title.source.replace(/^\^/, '')
  return {
    heading: card(page).getByRole('heading', { name: title }),
    button: card(page).getByRole('button', { name: new RegExp(`^(Done|It is there|It is recorded).*(${words})`) }),
  }
}
/** Presses the button of the step of that title, once it is shown. */
export async function press(page: Page, title: RegExp): Promise<void> {
  await expect(stepOf(page, title).heading).toBeVisible({ timeout: 30_000 })
  await stepOf(page, title).button.click()
}
/** Ticks it: presses again, as a person does, where the printer was not heard for a moment. */
export async function tick(page: Page, title: RegExp): Promise<void> {
  await press(page, title)
  const { heading, button } = stepOf(page, title)
  await expect(async () => {
    const gone = await heading.waitFor({ state: 'hidden', timeout: 4000 }).then(
      () => true,
      () => false,
    )
    if (!gone) await button.click({ timeout: 2000 })
    expect(gone).toBe(true)
  }).toPass({ timeout: 60_000 })
}
export async function heat(page: Page, c: number): Promise<void> {
  const panel = page.getByText("The stand-in's panel")
  if (!(await page.getByLabel('nozzle, °C').isVisible())) await panel.click()
  // the panel moves with the step above it: a press that missed is made again
  await expect(async () => {
    await page.getByLabel('nozzle, °C').fill(String(c))
    await page.getByRole('button', { name: 'Set nozzle' }).click({ timeout: 2000 })
    await expect(page.getByText(`nozzle set to ${c} °C`)).toBeVisible({ timeout: 2000 })
  }).toPass({ timeout: 20_000 })
}

/** Ticks what is left as a person would who reads the heaters there, with these values where they are asked. */
export async function tickTheRest(page: Page, entered: Record<string, string | number>): Promise<void> {
  const id = Number(page.url().split('/').at(-1))
  const read = async () => (await (await page.request.get(`/api/procedures/${id}`)).json()) as ProcedurePage
  const { steps, ticks, printerId } = await read()
  const now = () => new Date().toISOString()
  const send = async (url: string, data: object) => {
    const answer = await page.request.post(url, { data, headers: { 'idempotency-key': crypto.randomUUID() } })
    expect(answer.status(), await answer.text()).toBe(201)
  }
  for (const s of steps.filter(x => !ticks.some(t => t.step === x.key))) {
    if (s.proof?.guard)
      await send('/api/cut-out-tests', { printerId, guard: s.proof.guard, tripped: true, atC: 60, occurredAt: now() })
    const values = Object.fromEntries(
      s.fields.flatMap(f => {
        if (f.kind === 'choice' && entered[f.key] === undefined) return [[f.key, f.choices[0]!.value]]
        return entered[f.key] === undefined ? [] : [[f.key, entered[f.key]]]
      }),
    )
    const reading = s.wait && { c: s.wait.setC }
    await send('/api/ticks', { procedureId: id, step: s.key, values, reading, occurredAt: now() })
  }
}
