import { useState, type ReactNode } from 'react'

export type Line = { key: string; cells: ReactNode[]; details: () => ReactNode }
type Props = { heads: readonly string[]; lines: readonly Line[]; label: string }

/** A table whose rows open, one at a time. The first cell is the button. A row stays open while a search finds it again. */
export function Rows({ heads, lines, label }: Props) {
  const [open, setOpen] = useState<string | null>(null)
  if (lines.length === 0) return null
  return (
    <div className="overflow-x-auto">
      <table className="panel w-full text-[13px]" aria-label={label}>
        <thead className="label text-left">
          <tr className="border-b border-line">
            {heads.map((words) => (
              <th key={words} className="px-2.5 py-1.5 font-medium">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        {lines.map((line) => (
          <tbody key={line.key}>
            <tr className={`border-b border-hair hover:bg-accent-soft ${open === line.key ? 'bg-accent-soft' : ''}`}>
              {line.cells.map((cell, index) => (
                <td key={index} className={`px-2.5 py-1.5 tabular-nums ${index === 0 ? 'font-semibold' : ''}`}>
                  {index === 0 ? (
                    <button
                      type="button"
                      className="link text-left"
                      aria-expanded={open === line.key}
                      onClick={() => setOpen(open === line.key ? null : line.key)}
                    >
                      {cell}
                    </button>
                  ) : (
                    cell
                  )}
                </td>
              ))}
            </tr>
            {open === line.key && (
              <tr className="border-b border-line">
                <td colSpan={heads.length} className="px-2.5 py-3">
                  {line.details()}
                </td>
              </tr>
            )}
          </tbody>
        ))}
      </table>
    </div>
  )
}

/** A heading over facts. */
export function Facts({ words, children }: { words: string; children: ReactNode }) {
  return (
    <div className="min-w-0">
      <h2 className="label">{words}</h2>
      {children}
    </div>
  )
}
