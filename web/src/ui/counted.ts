/** A number with its noun: `1 chart`, `3 charts`. */
export const counted = (count: number, one: string, many = `${one}s`): string => `${String(count)} ${count === 1 ? one : many}`
