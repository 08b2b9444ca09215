/** The description of the API with its shared schemas written where they stand. */
export interface Components {
  schemas: Record<string, unknown>
}

export function written<T extends { components: Components }>(api: T): T {
  const put = (v: unknown): unknown => {
    if (Array.isArray(v)) return v.map(put)
    if (typeof v !== 'object' || v === null) return v
    const name = /^#\/components\/schemas\/(\w+)$/.exec(String((v as { $ref?: unknown }).$ref))?.[1]
    if (name !== undefined) return put(api.components.schemas[name])
    return Object.fromEntries(Object.entries(v).map(([key, inner]) => [key, put(inner)]))
  }
  return put(api) as T
}
