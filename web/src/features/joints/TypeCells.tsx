import type { JointType } from '../../api/types'

type Props = { one: Pick<JointType, 'key' | 'words' | 'marks' | 'welds'>; open: boolean; onOpen: () => void }
const MOST_MARKS = 12

/** The first cells of a joint type in a table: its key, which opens it, the joint with its marks, its welds. */
export function TypeCells({ one, open, onOpen }: Props) {
  return (
    <>
      <td className="px-3 py-1.5">
        <button type="button" className="link min-h-6 font-head font-semibold" aria-expanded={open} onClick={onOpen}>
          {one.key}
        </button>
      </td>
      <td className="px-2 py-1.5">
        {one.words}
        <div className="max-w-md truncate text-[12.5px] text-steel2" title={one.marks.join(', ')}>
          {one.marks.slice(0, MOST_MARKS).join(', ')}
          {one.marks.length > MOST_MARKS && ' …'}
        </div>
      </td>
      <td className="px-2 py-1.5 text-right">{one.welds}</td>
    </>
  )
}
