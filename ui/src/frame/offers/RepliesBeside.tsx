import { useTranslation } from 'react-i18next'
import type { Reply } from '../../rules/pieces'
import type { Element } from '../../wire/types.gen'
import { useHand } from '../hand/useHand'
import { Replies } from '../Replies'

/** What was answered to the note that is selected, beside the frame. */
export default function RepliesBeside({ note, replies }: { note: Element; replies: readonly Reply[] }) {
  const { t } = useTranslation()
  const hand = useHand()
  const { sheet, me, works, frame } = hand.ground
  if (sheet === null) return null
  return (
    <section
      aria-label={t('replies.title')}
      data-part="replies"
      data-own-hand
      className="flex shrink-0 flex-col gap-2 overflow-auto border-line bg-mist p-2 max-sm:max-h-56 max-sm:border-t sm:w-60 sm:border-s"
    >
      <h3 className="text-sm font-semibold">{t('replies.title')}</h3>
      <Replies
        key={note.id}
        note={note}
        replies={replies}
        sheet={sheet}
        me={me}
        may={works && (frame.replies ?? false)}
        nameOf={hand.nameOf}
      />
    </section>
  )
}
