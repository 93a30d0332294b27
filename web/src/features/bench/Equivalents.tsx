import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState, type ClipboardEvent } from 'react'

import { Sources } from '../../ui/Sources'
import { useSettled } from '../../ui/useSettled'
import { Card } from './Card'
import { chemistryOf, pasted } from './chemistry'
import { equivalentsQuery } from './queries'

const ELEMENTS = ['C', 'Si', 'Mn', 'Cr', 'Mo', 'V', 'Ni', 'Cu', 'Nb', 'N', 'B']

/** Carbon equivalents and the like, from a composition in %. */
export function Equivalents() {
  const [typed, setTyped] = useState<Record<string, string>>({})
  const settled = useSettled(typed)
  const { chemistry } = chemistryOf(settled)
  const { wrong } = chemistryOf(typed)
  const any = Object.keys(chemistry).length > 0
  const found = useQuery({ ...equivalentsQuery(chemistry), enabled: any, placeholderData: keepPreviousData, retry: false })
  const paste = (event: ClipboardEvent) => {
    const elements = pasted(event.clipboardData.getData('text'))
    if (Object.keys(elements).length < 2) return
    event.preventDefault()
    setTyped((before) => ({ ...before, ...elements }))
  }
  return (
    <Card title="Carbon equivalents">
      <div className="grid grid-cols-6 gap-2" onPaste={paste}>
        {ELEMENTS.map((element) => (
          <label key={element} className="text-[12px] text-steel2">
            {element} %
            <input
              className={`field ${wrong.includes(element) ? 'border-breach!' : ''}`}
              aria-label={`${element} in %`}
              aria-invalid={wrong.includes(element) || undefined}
              inputMode="decimal"
              autoComplete="off"
              value={typed[element] ?? ''}
              onChange={(event) => setTyped((before) => ({ ...before, [element]: event.target.value }))}
            />
          </label>
        ))}
        <button type="button" className="link self-end pb-1 text-left text-[13px]" onClick={() => setTyped({})}>
          Clear
        </button>
      </div>
      {wrong.length > 0 && <p role="alert" className="mt-1 text-[12px] text-breach">{wrong.join(', ')}: a number in % is needed, such as 0.16 or 0,16.</p>}
      {found.isError && any && <p role="alert" className="mt-1 text-[13px] text-breach">{found.error.message}</p>}
      {!any && <p className="mt-2 text-[13px] text-steel2">Type a composition, or paste a line of a certificate: C 0.16 Si 0.40 Mn 1.45</p>}
      {any && !found.isError && found.data && (
        <>
          {found.data.hint && <p role="status" className="mt-2 text-[13px] text-caution">{found.data.hint}</p>}
          <table className="mt-2 w-full text-[13px] tabular-nums">
            <tbody>
              {found.data.items.map((one) => (
                <tr key={one.key} className="border-t border-hair align-top">
                  <th className="py-1 pr-3 text-left font-head text-[14px] font-semibold whitespace-nowrap">{one.words}</th>
                  <td className="py-1 pr-3 text-[16px] font-semibold">{one.value == null ? '—' : one.value.toFixed(one.key.endsWith('wrc92') ? 2 : 3)}</td>
                  <td className="py-1 text-steel">
                    {one.value == null ? `needs ${one.missing.join(' and ')}` : one.use}
                    {one.value != null && one.taken_as_zero.length > 0 && <span className="text-steel2">; {one.taken_as_zero.join(', ')} taken as zero</span>}
                    <Sources citations={[one.citation]} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </Card>
  )
}
