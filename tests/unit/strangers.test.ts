/**
 * Who may speak to the app. Sources: Fetch standard and Fetch Metadata (W3C) for what a browser sends; DNS rebinding as
 * described by Jackson et al., Protecting Browsers from DNS Rebinding Attacks (2007).
 */
import { describe, expect, test } from 'vitest'
import { nameOfHost, ownNames, policyFor, strangerRefused, type Asker } from '../../server/doors/strangers'

const OURS: Asker = {
  method: 'POST',
  host: '192.168.1.20:4750',
  origin: 'http://192.168.1.20:4750',
  secFetchSite: 'same-origin',
  contentType: 'application/json',
}
const NAMES = ownNames('shop-pc, Printers.example ,')
const asks = (more: Partial<Asker>) => strangerRefused({ ...OURS, ...more }, NAMES)?.status ?? null
/** As a program that is no browser sends it. */
const plain = { origin: undefined, secFetchSite: undefined }

describe('the name it is called by', () => {
  test.each([
    ['127.0.0.1:4750', null],
    ['localhost:4750', null],
    ['LOCALHOST', null],
    ['[::1]:4750', null],
    ['192.168.1.20', null],
    ['shop-pc:4750', null],
    ['printers.example', null],
    ['printers.example.:4750', null],
    ['rebound.example:4750', 421],
    ['localhost.rebound.example', 421],
    ['127.0.0.1.rebound.example:4750', 421],
    ['a b', 400],
    ['', 400],
    ['[::1', 400],
    [undefined, 400],
  ])('%s', (host, status) => {
    for (const method of ['GET', 'POST']) expect(asks({ ...plain, method, host }), method).toBe(status)
  })
  test('the port is not part of it', () => {
    expect(nameOfHost('shop-pc:4750')).toBe('shop-pc')
    expect(nameOfHost('[FE80::1]:80')).toBe('fe80::1')
    expect(nameOfHost('shop-pc:port')).toBe(null)
  })
})

describe('what is entered', () => {
  test.each([
    ['by our own page', {}, null],
    ['by a program', plain, null],
    ['by a foreign page', { origin: 'http://elsewhere.example', secFetchSite: 'cross-site' }, 403],
    ['by a browser that does not say where from', { origin: 'http://elsewhere.example', secFetchSite: undefined }, 403],
    ['by another port of the same machine', { origin: 'http://192.168.1.20:80', secFetchSite: 'same-site' }, 403],
    ['out of a sandboxed frame', { origin: 'null', secFetchSite: 'cross-site' }, 403],
    ['with an origin of null alone', { origin: 'null', secFetchSite: undefined }, 403],
    ['by a link of another kind', { origin: 'file://', secFetchSite: undefined }, 403],
    ['cross-site without an origin', { origin: undefined, secFetchSite: 'cross-site' }, 403],
    ['as a form', { contentType: 'application/x-www-form-urlencoded' }, 415],
    ['as text', { contentType: 'text/plain' }, 415],
    ['as nothing', { contentType: undefined }, 415],
    ['as something like JSON', { contentType: 'application/jsonp' }, 415],
    ['as JSON with a charset', { contentType: 'application/json; charset=utf-8' }, null],
  ] as const)('%s', (_, more, status) => {
    for (const method of ['POST', 'PATCH']) expect(asks({ ...more, method }), method).toBe(status)
  })
  test('behind a proxy that ends https the origin has no port, and neither has the host', () => {
    expect(asks({ host: 'printers.example', origin: 'https://printers.example' })).toBe(null)
  })
  test('reading needs no origin: other pages cannot read the answer', () => {
    expect(asks({ ...plain, method: 'GET', contentType: undefined })).toBe(null)
    expect(asks({ method: 'GET', secFetchSite: 'cross-site', contentType: undefined })).toBe(null)
  })
})

test('data runs nothing; files of the app run what is the app’s own', () => {
  expect(policyFor('/api/floor')).toContain("default-src 'none'")
  expect(policyFor('/_nuxt/entry.js')).toContain("script-src 'self' 'wasm-unsafe-eval'")
  for (const path of ['/api/floor', '/']) expect(policyFor(path)).toContain("frame-ancestors 'none'")
})
