import { useTranslation } from 'react-i18next'
import type { Staff } from '../../wire/lesson'
import { groupOwner } from '../../wire/sheets'
import type { Front, FrontKind } from '../../wire/types.gen'
import { useLessonState } from '../../wire/hooks/useLesson'

/** How many frames stand side by side at most. */
const MOST = 6

type Props = { staff: Staff; choice: Front; onChoose: (choice: Front) => void }

/** Everything that a front screen can show. */
export function FrontChoices({ staff, choice, onChoose }: Props) {
  const { t } = useTranslation()
  const frame = staff.board.frames.find((f) => f.id === staff.state.frame)!
  const polls = frame.prepared.flatMap((m) => (m.kind === 'poll' && staff.state.polls[m.id] ? [m] : []))
  const kinds: FrontKind[] = ['gathering', 'frame', 'sheets', ...(polls.length > 0 ? ['poll' as const] : [])]
  const owners = choice.frame === frame.id || !choice.frame ? (choice.owners ?? []) : []
  function pick(kind: FrontKind) {
    if (kind === 'poll')
      onChoose({ kind, poll: polls.find((p) => p.id === choice.poll)?.id ?? polls[0]?.id, result: choice.result })
    else if (kind === 'sheets') onChoose({ kind, frame: frame.id, owners })
    else onChoose({ kind, ...(kind === 'words' && { words: choice.words ?? '' }) })
  }
  return (
    <fieldset className="flex min-w-0 flex-col gap-1.5">
      <legend className="sr-only">{t('front.choose')}</legend>
      {[...kinds, 'words' as const, 'nothing' as const].map((kind) => (
        <div key={kind} className="rounded-lg border border-line has-checked:border-dusk has-checked:bg-dusk-soft">
          <label className="flex cursor-pointer items-center gap-2.5 px-3 py-2 font-semibold">
            <input
              type="radio"
              name="front"
              checked={choice.kind === kind}
              onChange={() => pick(kind)}
              className="size-4 accent-dusk"
            />
            {t(`front.kind_${kind}`)}
          </label>
          {choice.kind === kind && kind === 'words' && (
            <textarea
              aria-label={t('front.words')}
              value={choice.words ?? ''}
              maxLength={200}
              rows={2}
              dir="auto"
              onChange={(e) => onChoose({ kind, words: e.target.value })}
              className="mx-3 mb-3 w-[calc(100%-1.5rem)] rounded-lg border border-edge bg-paper p-2"
            />
          )}
          {choice.kind === kind && kind === 'poll' && (
            <div className="flex flex-col gap-1.5 px-3 pb-3">
              {polls.length > 1 &&
                polls.map((p) => (
                  <label key={p.id} className="flex items-center gap-2">
                    <input
                      type="radio"
                      name="front poll"
                      checked={choice.poll === p.id}
                      onChange={() => onChoose({ ...choice, poll: p.id })}
                      className="size-4 accent-dusk"
                    />
                    <span className="truncate">{p.poll.text}</span>
                  </label>
                ))}
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  checked={choice.result ?? false}
                  onChange={(e) => onChoose({ ...choice, result: e.target.checked })}
                  className="size-4 accent-dusk"
                />
                {t('front.result')}
              </label>
            </div>
          )}
          {choice.kind === kind && kind === 'sheets' && (
            <Owners staff={staff} owners={owners} onOwners={(o) => onChoose({ kind, frame: frame.id, owners: o })} />
          )}
        </div>
      ))}
    </fieldset>
  )
}

/** Whose frames stand side by side: those of groups where groups share the frame, else of students. */
function Owners({ staff, owners, onOwners }: { staff: Staff; owners: string[]; onOwners: (o: string[]) => void }) {
  const { t } = useTranslation()
  const people = useLessonState((s) => s.people)
  const arrangement = staff.board.frames.find((f) => f.id === staff.state.frame)?.arrangement
  const all =
    arrangement === 'groups'
      ? (staff.state.groups ?? []).map((_, i) => ({ id: groupOwner(i + 1), name: t('run.group', { n: i + 1 }) }))
      : [...people.values()]
          .filter((p) => !p.removed)
          .map(({ id, name }) => ({ id, name }))
          .sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }))
  if (arrangement === 'class') return <p className="px-3 pb-3 text-slate">{t('front.sharedFrame')}</p>
  return (
    <div className="px-3 pb-3">
      <p className="mb-1.5 text-sm text-slate">{t('front.upTo', { count: MOST })}</p>
      <ul className="grid max-h-52 grid-cols-2 gap-x-3 overflow-auto">
        {all.map(({ id, name }) => (
          <li key={id}>
            <label className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                checked={owners.includes(id)}
                disabled={!owners.includes(id) && owners.length >= MOST}
                onChange={(e) => onOwners(e.target.checked ? [...owners, id] : owners.filter((o) => o !== id))}
                className="size-4 shrink-0 accent-dusk"
              />
              <span className="min-w-0 break-words">{name}</span>
            </label>
          </li>
        ))}
      </ul>
    </div>
  )
}
