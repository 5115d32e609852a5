import { useTranslation } from 'react-i18next'
import { Typed } from '../../kit/fields/Typed'
import type { Frame } from '../../wire/types.gen'
import { useWish } from '../useWish'

/** What the frame is called and asks for, in this lesson. */
export function Words({ frame }: { frame: Frame }) {
  const { t } = useTranslation()
  const [words, set] = useWish({ title: frame.title, prompt: frame.prompt }, (to) => ({
    kind: 'reword',
    reword: { frame: frame.id, ...to },
  }))
  return (
    <div className="flex flex-col gap-3">
      <Typed
        label={t('run.frameTitle')}
        value={words.title}
        limit={120}
        onChange={(title) => set({ ...words, title })}
      />
      <Typed
        label={t('run.frameTask')}
        value={words.prompt}
        limit={600}
        rows={2}
        onChange={(prompt) => set({ ...words, prompt })}
      />
    </div>
  )
}
