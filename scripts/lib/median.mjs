/** The middle of some numbers; the upper of two middles. */
export const median = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)]
