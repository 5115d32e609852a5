import { Popover } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import type { AdviceBands } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** From where to where discussing is proposed, as the teacher sets it for this lesson. */
export function BandsMenu({ bands }: { bands: AdviceBands }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const [from, setFrom] = useState(bands.from)
  const [to, setTo] = useState(bands.to)
  const ends = [
    { words: 'asking.bandFrom', value: from, put: setFrom },
    { words: 'asking.bandTo', value: to, put: setTo },
  ]
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button look="quiet">{t('asking.bands')} …</Button>
      </Popover.Trigger>
      <Popover.Content
        align="end"
        sideOffset={6}
        className="z-30 w-80 rounded-xl border border-line bg-paper p-4 shadow-lg"
        aria-label={t('asking.bands')}
      >
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault()
            void lesson.give({ kind: 'bands', bands: { from, to } })
          }}
        >
          {ends.map(({ words, value, put }) => (
            <label key={words} className="flex items-center justify-between gap-2">
              {t(words)}
              <input
                type="number"
                min={0}
                max={100}
                value={value}
                onChange={(e) => put(e.target.valueAsNumber || 0)}
                className="w-20 rounded-lg border border-edge px-2 py-1 tabular-nums"
              />
            </label>
          ))}
          <p className="text-sm text-slate">{t('asking.bandsRest')}</p>
          <Button type="submit" look="main" disabled={from >= to}>
            {t('asking.setBands')}
          </Button>
        </form>
      </Popover.Content>
    </Popover.Root>
  )
}
