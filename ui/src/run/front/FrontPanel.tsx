import { ExternalLink } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import type { Staff } from '../../wire/lesson'
import type { Front } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { FrontChoices } from './FrontChoices'
import { FrontDevices } from './FrontDevices'
import { FrontPicture } from './FrontPicture'

type Props = { session: string; staff: Staff; first: Front; onClose: () => void }

/** Whether something can be shown as it is chosen. */
const complete = ({ kind, words, owners }: Front) =>
  kind === 'words' ? !!words?.trim() : kind === 'sheets' ? (owners?.length ?? 0) > 0 : true

/** What is chosen at first: what is shown; of another frame's question, the first one of this frame. */
function begin(staff: Staff, first: Front): Front {
  const here = staff.board.frames.find((f) => f.id === staff.state.frame)?.prepared.filter((m) => m.kind === 'poll')
  const other = first.kind === 'poll' && !here?.some((m) => m.id === first.poll)
  return { ...first, kind: first.kind || 'gathering', ...(other && here?.[0] && { poll: here[0].id }) }
}

/** What the front screen shows, and before it shows something, exactly what will be seen. */
export default function FrontPanel({ session, staff, first, onClose }: Props) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const [choice, choose] = useState<Front>(() => begin(staff, first))
  const [showing, setShowing] = useState(false)
  async function show() {
    setShowing(true)
    if (await lesson.give({ kind: 'front', front: choice })) onClose()
    setShowing(false)
  }
  return (
    <Dialog wide open onOpenChange={onClose} title={t('front.choose')}>
      <form
        className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]"
        onSubmit={(e) => {
          e.preventDefault()
          void show()
        }}
      >
        <FrontChoices staff={staff} choice={choice} onChoose={choose} />
        <div className="flex min-w-0 flex-col gap-3">
          <p className="font-semibold">{t('front.willBeSeen')}</p>
          {complete(choice) ? (
            <FrontPicture session={session} of={choice} label={t('front.willBeSeen')} />
          ) : (
            <p className="grid aspect-16/10 w-full place-items-center rounded-lg border border-dashed border-edge text-slate">
              {t('front.chooseMore')}
            </p>
          )}
          <div className="flex items-center justify-end gap-3">
            <Button type="submit" look="glow" size="large" disabled={showing || !complete(choice)}>
              {t('front.show')}
            </Button>
          </div>
        </div>
      </form>
      <div className="mt-4 grid gap-5 border-t border-line pt-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
        <FrontDevices session={session} count={staff.fronts} />
        <div className="flex items-start gap-4">
          <div className="w-56 shrink-0">
            <FrontPicture session={session} label={t('front.seenNow')} />
            <p className="mt-1 text-center text-sm text-slate">{t('front.seenNow')}</p>
          </div>
          <a
            href={`/front/${session}`}
            target="_blank"
            rel="noopener"
            className="inline-flex items-center gap-2 rounded-lg border border-edge bg-paper px-3 py-2 font-semibold hover:bg-mist"
          >
            <ExternalLink size={17} aria-hidden="true" />
            {t('front.openHere')}
          </a>
        </div>
      </div>
    </Dialog>
  )
}
