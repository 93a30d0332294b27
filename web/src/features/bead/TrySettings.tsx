import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'

import type { BeadSettings, Range } from '../../api/types'
import { beadQuery } from '../../queries/calculators'
import { isTyping } from '../../session/keys'
import { Button } from '../../ui/Button'
import { Notice } from '../../ui/Notice'
import { useSettled } from '../../ui/useSettled'
import { BeadDrawing, halfOf } from './BeadDrawing'
import { CurePanel } from './CurePanel'
import { FiguresTable } from './FiguresTable'
import { JointDrawing, viewOf } from './JointDrawing'
import { PoolView } from './PoolView'
import { SettingsPanel } from './SettingsPanel'
import { settingWords } from './settings'
import { TracePanel } from './TracePanel'

const MOST_PINNED = 3
/** Short enough to follow a drag, long enough to ask once for each place of the slider. */
const PAUSE_MS = 25

type Props = {
  start: BeadSettings
  limits?: Readonly<Record<string, Range>>
  fixed?: boolean
  onLog?: (settings: BeadSettings) => void
}

/** Try settings: what they make of the weld, up to four side by side, and what would change it. */
export function TrySettings({ start, limits = {}, fixed = false, onLog }: Props) {
  const [settings, setSettings] = useState(start)
  const [pinned, setPinned] = useState<BeadSettings[]>([])
  const asked = useSettled(settings, PAUSE_MS)
  // The one that is changed comes last: the pinned ones are what it is compared with.
  const found = useQuery({ ...beadQuery([...pinned, asked]), placeholderData: keepPreviousData, retry: false })
  useLogKey(onLog ? () => onLog(settings) : null)
  const items = found.data?.items ?? []
  const now = items.at(-1)
  const half = Math.max(...items.map((one) => (one.picture ? halfOf(one.picture) : 6)), 6)
  const names = items.map((_, index) => (index === items.length - 1 ? t`Now` : t`Pin ${index + 1}`))
  return (
    <div
      className={`grid items-start gap-4 max-lg:grid-cols-1 ${fixed ? 'grid-cols-[290px_minmax(0,1fr)]' : 'grid-cols-[330px_minmax(0,1fr)]'}`}
    >
      <SettingsPanel settings={settings} limits={limits} onChange={setSettings} fixed={fixed} />
      <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-4">
        {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
        <section className="panel p-4" aria-label={t`Prediction`}>
          <div className="flex flex-wrap items-center gap-2">
            <Button
              disabled={pinned.length >= MOST_PINNED}
              onClick={() => setPinned((before) => [...before, settings])}
            >
              <Trans>Pin this setting</Trans>
            </Button>
            {onLog && (
              <Button onClick={() => onLog(settings)} aria-keyshortcuts="w" title={t`key w`}>
                <Trans>Weld it on scrap</Trans>
              </Button>
            )}
            {pinned.map((one, index) => (
              <span key={index} className="inline-flex items-center gap-1 text-[13px]">
                <button
                  type="button"
                  className="link"
                  aria-label={t`Go back to pin ${index + 1}`}
                  onClick={() => setSettings(one)}
                >
                  {t`Pin ${index + 1}`}
                </button>
                <button
                  type="button"
                  className="link"
                  aria-label={t`Remove pin ${index + 1}`}
                  onClick={() => setPinned((before) => before.filter((_, place) => place !== index))}
                >
                  ×
                </button>
              </span>
            ))}
            {pinned.length > 0 && now && (
              <p className="w-full text-[13px]" role="status">
                {now.changed.length === 0
                  ? t`Nothing is changed against pin 1.`
                  : now.changed.length === 1
                    ? t`Changed against pin 1, and nothing else: ${settingWords(now.changed[0] ?? '')}. ${now.sentence}`
                    : t`Changed against pin 1: ${now.changed.map(settingWords).join(', ')}. ${now.sentence}`}
              </p>
            )}
          </div>
          <div className={`mt-2 grid gap-3 ${items.length > 1 ? 'grid-cols-2 max-sm:grid-cols-1' : ''}`}>
            {items.map((item, index) => (
              <figure key={names[index]} className="min-w-0">
                {item.joint ? (
                  <JointDrawing
                    picture={item.joint}
                    view={viewOf(items)}
                    tint={item.figures.find((one) => one.key === 'tint_c')}
                  />
                ) : item.picture ? (
                  <BeadDrawing
                    picture={item.picture}
                    half={half}
                    tint={item.figures.find((one) => one.key === 'tint_c')}
                  />
                ) : (
                  <p className="py-10 text-center text-[13px] text-steel2">
                    <Trans>No drawing: there is no model for these settings.</Trans>
                  </p>
                )}
                {items.length > 1 && (
                  <figcaption className="text-center text-[12px] text-steel2">{names[index]}</figcaption>
                )}
              </figure>
            ))}
          </div>
        </section>
        <CurePanel settings={asked} limits={limits} goals={found.data?.goals ?? []} onUse={setSettings} />
        {now && (
          <section className="panel p-4" aria-label={t`Pool and arc`}>
            <PoolView item={now} travelMmMin={settings.travel_mm_min} thicknessMm={settings.thickness_mm} />
            {now.trace && <TracePanel trace={now.trace} />}
          </section>
        )}
      </div>
      <section className="panel col-span-full overflow-x-auto p-4" aria-label={t`Figures`}>
        <FiguresTable items={items} names={names} />
      </section>
    </div>
  )
}

/** W: what is tried goes to the trial weld. */
function useLogKey(log: (() => void) | null): void {
  const current = useRef(log)
  useEffect(() => {
    current.current = log
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'w' || event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event)) return
      current.current?.()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
}
