/** The step between the marks of an axis: that of the first limit which the span exceeds, else the finest. */
export const stepFor = (span: number, steps: readonly (readonly [limit: number, step: number])[], finest: number) =>
  steps.find(([limit]) => span > limit)?.[1] ?? finest
