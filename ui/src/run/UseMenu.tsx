import { SlidersHorizontal } from 'lucide-react'
import { Popover } from 'radix-ui'
import { useTranslation } from 'react-i18next'
import { Sharing } from '../kit/Sharing'
import type { Frame } from '../wire/types.gen'
import { useLesson } from '../wire/useLesson'

/** How the frame is used, in words, and a place to change it while the lesson runs. */
export function UseMenu({ frame }: { frame: Frame }) {
  const { t } = useTranslation()
  const lesson = useLesson()
  const { arrangement, permission } = frame
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={t('run.change')}
        title={t('run.change')}
        className="inline-flex items-center gap-1.5 rounded-lg px-2 py-1 hover:bg-mist hover:text-night"
      >
        {t(`run.${arrangement}`)} · {t(`run.${permission}`)}
        <SlidersHorizontal size={15} aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          className="z-30 w-80 rounded-xl border border-line bg-paper p-4 text-night shadow-lg"
        >
          <Sharing
            frame={frame}
            onSet={(to) =>
              void lesson
                .command({ kind: 'use', use: { frame: frame.id, arrangement, permission, ...to } })
                .catch(() => undefined)
            }
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
