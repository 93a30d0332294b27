/** Names between commas or semicolons. */
export function namesOf(text: string): string[] {
  return text
    .split(/[,;\n]/)
    .map((one) => one.trim())
    .filter(Boolean)
}
