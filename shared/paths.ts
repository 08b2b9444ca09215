/** What the browser needs of the API to ask anything: no schema. */

/** What a path's `{name}` are filled with. */
export type PathParams = Record<string, string | number>

/** A path with its `{name}` filled in. */
export const pathOf = (path: string, params: PathParams = {}): string =>
  path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(String(params[name] ?? '')))

/** Where a record is edited. */
export const EDIT_PATH = '/api/edit/{kind}/{id}'

/** The header in which a reading says which news made it be asked for. */
export const HEARD = 'iron-nozzle-heard'
