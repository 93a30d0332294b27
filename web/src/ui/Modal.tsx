import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react'
import type { ReactNode } from 'react'

type Props = { title: string; open: boolean; onClose: () => void; children: ReactNode; wide?: boolean }

/** A dialog over the page. */
export function Modal({ title, open, onClose, children, wide = false }: Props) {
  return (
    <Dialog open={open} onClose={onClose} className="relative z-40">
      <div className="fixed inset-0 bg-ink/40" aria-hidden="true" />
      <div className="fixed inset-0 grid place-items-start justify-center overflow-y-auto p-4 pt-[10vh]">
        <DialogPanel className={`panel w-[92vw] p-5 ${wide ? 'max-w-3xl' : 'max-w-md'}`}>
          <DialogTitle className="mb-3 font-head text-xl font-semibold">{title}</DialogTitle>
          {children}
        </DialogPanel>
      </div>
    </Dialog>
  )
}
