/**
 * Debian's Chromium for the browser's tests. Its build without windows is the same browser for half the work; what that
 * cannot do, as printing like a person's browser and keeping pages for the way back, is tested in the whole one.
 */
import { existsSync } from 'node:fs'

const AT = '/usr/bin'
export const LIGHT = `${AT}/chromium-headless-shell`
export const WHOLE = `${AT}/chromium`

/** The system's packages that are not there yet. */
export const missingBrowsers = () => [LIGHT, WHOLE].filter(b => !existsSync(b)).map(b => b.slice(AT.length + 1))
