import { useQueryClient } from '@tanstack/react-query'
import { Ellipsis, Play } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { Button } from '../kit/Button'
import { Confirm } from '../kit/windows/Confirm'
import { TakeOut } from '../kit/windows/TakeOut'
import { call, Refused, download } from '../wire/http'
import type { BoardItem, BoardMade, Edits, EditsReply, FoundFrame, NewBoard, SetCard } from '../wire/types.gen'
import { when } from '../words/words'
import { AskName } from './AskName'
import { BoardName } from './BoardName'
import { QuestionFile } from './QuestionFile'
import { ShareDialog } from './ShareDialog'

type Props = {
  board: BoardItem
  /** The frames on which what is searched for was found. */
  found: FoundFrame[]
  folders: string[]
  onSet: (card: SetCard) => void
}

/** How many of the frames that were found a card names. */
const NAMED = 3

/** A board with a picture of its first frame, and what can be done with it. */
export function BoardCard({ board, found, folders, onSet }: Props) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [open, setOpen] = useState<'rename' | 'copy' | 'folder' | 'share' | 'questions' | 'pages' | 'lessons' | null>(
    null,
  )
  const close = () => setOpen(null)
  const more = useRef<HTMLButtonElement>(null)
  const name = useRef<HTMLInputElement>(null)
  async function rename(title: string) {
    const edit = { id: uuidv7(), kind: 'board' as const, board: { title } }
    const reply = await call<EditsReply>('POST', `/boards/${board.id}/edits`, {
      since: Number.MAX_SAFE_INTEGER,
      edits: [edit],
    } satisfies Edits)
    if (reply.results[0]?.problem) throw new Refused(reply.results[0].problem.code)
    await queries.invalidateQueries({ queryKey: ['boards'] })
  }
  async function copy(title: string) {
    const made = await call<BoardMade>('POST', `/boards/${board.id}/copies`, { title } satisfies NewBoard)
    void navigate(`/boards/${made.board}`)
  }
  const items: Array<[string, () => void]> = [
    ['rename', () => setOpen('rename')],
    ['copy', () => setOpen('copy')],
    ['setFolder', () => setOpen('folder')],
    ['share', () => setOpen('share')],
    ['questions', () => setOpen('questions')],
    ['pages', () => setOpen('pages')],
    ['export', () => location.assign(`/api/boards/${board.id}/file`)],
    ['exportLessons', () => setOpen('lessons')],
    [board.archived ? 'unarchive' : 'archive', () => onSet({ archived: !board.archived })],
    ['delete', () => onSet({ deleted: true })],
  ]
  return (
    <li className="overflow-hidden rounded-2xl border border-line bg-paper">
      <Link
        to={`/boards/${board.id}`}
        aria-label={t('boards.prepareOf', board)}
        className="block border-b border-line hover:opacity-85"
      >
        <Thumbnail frame={board.first} marks={[]} width={480} label={board.first.title || board.title} />
      </Link>
      <div className="flex items-start gap-2 p-4">
        <div className="min-w-0 grow">
          <BoardName
            board={board}
            editing={open === 'rename'}
            field={name}
            onSave={rename}
            onDone={() => {
              close()
              requestAnimationFrame(() => more.current?.focus())
            }}
          />
          <p className="text-sm text-slate">
            {board.folder && `${board.folder} · `}
            {t('boards.frames', { count: board.frames })} · {t('boards.changed', { when: when(board.changedAt) })}
          </p>
          {found.length > 0 && (
            <ul aria-label={t('boards.found')} className="mt-1.5 text-sm">
              {found.slice(0, NAMED).map((f) => (
                <li key={f.frame} className="truncate">
                  <Link
                    to={`/boards/${board.id}?frame=${f.frame}`}
                    className="font-semibold text-dusk underline underline-offset-4"
                  >
                    {t(f.title ? 'boards.foundOn' : 'boards.foundOnBare', { n: f.number, title: f.title })}
                  </Link>
                </li>
              ))}
              {found.length > NAMED && (
                <li className="text-slate">{t('boards.foundMore', { count: found.length - NAMED })}</li>
              )}
            </ul>
          )}
        </div>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger asChild>
            <Button ref={more} look="quiet" aria-label={t('boards.more', board)}>
              <Ellipsis size={18} aria-hidden="true" />
            </Button>
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="end"
              // What was chosen takes the focus: a window, or the name in its place.
              onCloseAutoFocus={(e) => {
                if (open) e.preventDefault()
                name.current?.select()
              }}
              className="z-30 min-w-56 rounded-xl border border-line bg-paper p-1.5 shadow-lg"
            >
              {items.map(([item, act]) => (
                <DropdownMenu.Item
                  key={item}
                  onSelect={act}
                  className={`cursor-pointer rounded-lg px-3 py-1.5 outline-none data-highlighted:bg-mist ${item === 'delete' ? 'text-rose' : ''}`}
                >
                  {t(`boards.${item}`)}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      <div className="px-4 pb-4">
        <Link
          to={`/start/${board.id}`}
          aria-label={t('boards.startOf', board)}
          className="flex items-center justify-center gap-2 rounded-lg border border-dusk px-3 py-1.5 font-semibold text-dusk hover:bg-dusk-soft"
        >
          <Play size={17} aria-hidden="true" />
          {t('boards.start')}
        </Link>
      </div>
      {open === 'copy' && (
        <AskName
          title={t('boards.copy')}
          text={t('boards.copyText')}
          label={t('boards.newName')}
          value={t('boards.copyName', board)}
          onSave={copy}
          onClose={close}
        />
      )}
      {open === 'folder' && (
        <AskName
          title={t('boards.setFolder')}
          label={t('boards.newFolder')}
          value={board.folder}
          known={folders}
          onSave={async (folder) => {
            onSet({ folder })
            close()
          }}
          onClose={close}
        />
      )}
      {open === 'questions' && <QuestionFile board={board} onClose={close} />}
      {open === 'pages' && <TakeOut of="boards" id={board.id} title={board.title} onClose={close} />}
      {open === 'lessons' && (
        <Confirm
          open
          onOpenChange={close}
          title={t('boards.exportLessons')}
          text={t('boards.exportLessonsText')}
          yes={t('boards.exportYes')}
          onYes={async () => {
            await download(`/boards/${board.id}/file?lessons=1`)
            close()
          }}
        />
      )}
      {open === 'share' && <ShareDialog board={board} onClose={close} />}
    </li>
  )
}
