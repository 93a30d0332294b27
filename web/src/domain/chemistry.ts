/** A composition as it is typed: numbers with points or commas; what is no number is named. */
export function chemistryOf(typed: Readonly<Record<string, string>>): {
  chemistry: Record<string, number>
  wrong: string[]
} {
  const chemistry: Record<string, number> = {}
  const wrong: string[] = []
  for (const [element, text] of Object.entries(typed)) {
    const clean = text.trim().replace('%', '').replace(',', '.').trim()
    if (clean === '') continue
    if (/^(\d+(\.\d*)?|\.\d+)$/.test(clean)) chemistry[element] = Number(clean)
    else wrong.push(element)
  }
  return { chemistry, wrong }
}

const PART = /\b(C|Si|Mn|P|S|Cr|Mo|Ni|Cu|V|Nb|Ti|Al|B|N)\b\s*[:=]?\s*(\d*[.,]?\d+)\s*%?/g

/** A whole line from a certificate: "C 0,16 Si 0,40 Mn 1,45". Nothing where it holds no element. */
export function pasted(text: string): Record<string, string> {
  return Object.fromEntries([...text.matchAll(PART)].map((match) => [match[1] ?? '', match[2] ?? '']))
}

/** A composition as it is shown in its fields. */
export function typedOf(chemistry: Readonly<Record<string, number>> | null | undefined): Record<string, string> {
  return Object.fromEntries(Object.entries(chemistry ?? {}).map(([element, share]) => [element, String(share)]))
}
