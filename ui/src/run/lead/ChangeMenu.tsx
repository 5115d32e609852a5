import { CirclePlus, Ellipsis, ListChecks, MessageCircleQuestionMark, PencilRuler } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { Changes } from '../../kit/windows/Changes'
import { Dialog } from '../../kit/windows/Dialog'
import type { Staff } from '../../wire/lesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { AskNow } from './AskNow'

const item = 'flex cursor-pointer items-center gap-2.5 rounded-lg px-3 py-2 outline-none data-highlighted:bg-mist'

/** Changes the lesson while it runs: a question or a frame on the spot, everything else where boards are prepared. */
export function ChangeMenu({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const { session = '' } = useParams()
  const lesson = useStaffLesson()
  const [open, setOpen] = useState<'ask' | 'changes' | null>(null)
  const here = staff.state.frame
  const next = staff.board.frames.findIndex((f) => f.id === here) + 1
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={t('rework.title')}
          title={t('rework.title')}
          className="grid min-h-10 w-10 shrink-0 place-items-center self-center rounded-lg border border-edge bg-paper hover:bg-mist"
        >
          <Ellipsis size={18} aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={6}
            className="z-30 min-w-64 rounded-xl border border-line bg-paper p-1.5 shadow-lg"
          >
            <DropdownMenu.Item className={item} onSelect={() => setOpen('ask')}>
              <MessageCircleQuestionMark size={17} aria-hidden="true" />
              {t('rework.ask')}
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={item}
              onSelect={() => void lesson.addFrame(next, { kind: 'blank', blank: {} })}
            >
              <CirclePlus size={17} aria-hidden="true" />
              {t('rework.newFrame')}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} asChild>
              <a href={`/boards/${session}?frame=${encodeURIComponent(here)}`} target="_blank">
                <PencilRuler size={17} aria-hidden="true" />
                {t('rework.prepare')}
              </a>
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 border-t border-line" />
            <DropdownMenu.Item className={item} onSelect={() => setOpen('changes')}>
              <ListChecks size={17} aria-hidden="true" />
              {t('rework.changes')}
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {open === 'ask' && <AskNow at={next} onClose={() => setOpen(null)} />}
      {open === 'changes' && (
        <Dialog open onOpenChange={() => setOpen(null)} title={t('rework.changesTitle')}>
          <Changes session={session} />
        </Dialog>
      )}
    </>
  )
}
