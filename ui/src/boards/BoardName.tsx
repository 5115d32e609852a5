import { useState, type Ref } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { codeOf } from '../wire/http'
import type { BoardItem, Code } from '../wire/types.gen'

type Props = {
  board: BoardItem
  /** Whether the name is just being changed, in its place. */
  editing: boolean
  onSave: (name: string) => Promise<void>
  onDone: () => void
  /** The field, to be focused when the menu has gone. */
  field: Ref<HTMLInputElement>
}

/** A board's name; changed in its place: Enter and leaving it save, Escape leaves it as it was. */
export function BoardName({ editing, ...rest }: Props) {
  const { board } = rest
  if (editing) return <NameField {...rest} />
  return (
    <h2 className="text-lg">
      <Link
        to={`/boards/${board.id}`}
        title={board.title}
        className="line-clamp-2 break-words underline-offset-4 hover:underline"
      >
        {board.title}
      </Link>
    </h2>
  )
}

function NameField({ board, onSave, onDone, field }: Omit<Props, 'editing'>) {
  const { t } = useTranslation()
  const [name, setName] = useState(board.title)
  const [problem, setProblem] = useState<Code | null>(null)
  async function save() {
    const next = name.trim()
    if (next === '' || next === board.title) return onDone()
    try {
      await onSave(next)
      onDone()
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault()
        void save()
      }}
    >
      <input
        ref={field}
        aria-label={t('boards.nameOf', board)}
        aria-describedby={problem ? `problem-${board.id}` : undefined}
        value={name}
        maxLength={120}
        className="w-full rounded-lg border-2 border-dusk bg-paper px-2 py-1 font-display text-lg font-semibold"
        onChange={(e) => setName(e.target.value)}
        onBlur={() => void save()}
        onKeyDown={(e) => e.key === 'Escape' && onDone()}
      />
      {problem && (
        <p id={`problem-${board.id}`} role="alert" className="text-sm font-semibold text-rose">
          {t(`refusal.${problem}`)}
        </p>
      )}
    </form>
  )
}
