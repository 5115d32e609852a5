import { SlidersHorizontal } from 'lucide-react'
import { Popover } from 'radix-ui'
import { useTranslation } from 'react-i18next'
import { Laying } from '../../kit/Laying'
import { Sharing, type Setting } from '../../kit/Sharing'
import type { Frame, Layout } from '../../wire/types.gen'
import { useWish } from '../useWish'
import { Words } from './Words'

/** How the frame is used, in words, and a place to change it while the lesson runs. */
export function UseMenu({ frame }: { frame: Frame }) {
  const { t } = useTranslation()
  const { arrangement, permission, replies } = frame
  const [wish, set] = useWish<Setting>({ arrangement, permission, replies }, (to) => ({
    kind: 'use',
    use: { frame: frame.id, ...to },
  }))
  const [layout, lay] = useWish<Layout>(frame.layout, (to) => ({ kind: 'lay', lay: { frame: frame.id, layout: to } }))
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
          aria-label={t('run.change')}
          className="z-30 max-h-(--radix-popover-content-available-height) w-80 overflow-auto rounded-xl border border-line bg-paper p-4 text-night shadow-lg"
        >
          <Sharing frame={wish} onSet={(to) => set({ ...wish, ...to })} />
          <hr className="my-3 border-line" />
          <Laying layout={layout} onSet={lay} />
          <hr className="my-3 border-line" />
          <Words key={frame.id} frame={frame} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
