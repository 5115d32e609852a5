import { useQuery } from '@tanstack/react-query'
import { Play } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useParams } from 'react-router'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { Button } from '../kit/Button'
import { call, codeOf } from '../wire/http'
import type { Boards, Code, Pace, Started, StartSession as Ask } from '../wire/types.gen'
import { useMe } from '../wire/hooks/useMe'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'

const select = 'w-full rounded-xl border-2 border-edge bg-paper px-3 py-2.5'

/** One screen from a board to a running session: sensible defaults, Enter starts. */
export function StartSession() {
  const { t } = useTranslation()
  useTitle(t('start.title'))
  const { board = '' } = useParams()
  const navigate = useNavigate()
  // A board that has just been made is there, too.
  const list = useQuery({
    queryKey: ['boards'],
    queryFn: () => call<Boards>('GET', '/boards'),
    refetchOnMount: 'always',
  })
  const [chosen, setChosen] = useState(board)
  const [klass, setClass] = useState<string | null>(null)
  const own = useMe().data?.teacher?.settings
  // As the teacher is used to, until something else is chosen.
  const [chosenNames, setNames] = useState<'free' | 'listed' | null>(null)
  const [chosenPace, setPace] = useState<Pace | null>(null)
  const [chosenSeen, setSeen] = useState<'named' | 'nameless' | null>(null)
  const names = chosenNames ?? (own?.listed === false ? 'free' : 'listed')
  const pace = chosenPace ?? own?.pace ?? 'led'
  const seen = chosenSeen ?? (own?.named === false ? 'nameless' : 'named')
  const [problem, setProblem] = useState<Code | null>(null)
  const [busy, setBusy] = useState(false)
  if (list.isError && codeOf(list.error) === 'sign-in-needed') return <ToSignIn />
  if (!list.data)
    return (
      <main className="grid min-h-full place-items-center">
        <p role="status">{t(list.isError ? `refusal.${codeOf(list.error)}` : 'loading')}</p>
      </main>
    )
  const boards = list.data.boards.filter((b) => !b.archived || b.id === board)
  const card = boards.find((b) => b.id === chosen)
  const of = klass ?? list.data.classes[0]?.id ?? ''

  async function start() {
    setBusy(true)
    try {
      const { session } = await call<Started>('POST', `/boards/${chosen}/sessions`, {
        class: of,
        listed: of !== '' && names === 'listed',
        nameless: seen === 'nameless',
        pace,
      } satisfies Ask)
      void navigate(`/run/${session}`)
    } catch (error) {
      setProblem(codeOf(error))
      setBusy(false)
    }
  }
  return (
    <main className="mx-auto flex min-h-full max-w-4xl flex-col justify-center gap-6 p-6">
      <h1 className="text-3xl">{t('start.title')}</h1>
      <form
        className="grid gap-8 rounded-2xl border border-line bg-paper p-6 md:grid-cols-2"
        onSubmit={(e) => {
          e.preventDefault()
          void start()
        }}
      >
        <div className="self-start overflow-hidden rounded-xl border border-line">
          {card && <Thumbnail frame={card.first} marks={[]} width={400} label={card.title} />}
        </div>
        <div className="flex flex-col gap-4">
          <label>
            <span className="mb-1 block font-semibold">{t('start.board')}</span>
            <select className={select} value={chosen} onChange={(e) => setChosen(e.target.value)}>
              {boards.map((b) => (
                <option key={b.id} value={b.id}>
                  {b.title}
                </option>
              ))}
            </select>
          </label>
          <label>
            <span className="mb-1 block font-semibold">{t('start.class')}</span>
            <select className={select} value={of} onChange={(e) => setClass(e.target.value)}>
              {list.data.classes.map((c) => (
                <option key={c.id} value={c.id}>
                  {t('boards.classOption', { name: c.name, count: c.students })}
                </option>
              ))}
              <option value="">{t('boards.noClass')}</option>
            </select>
          </label>
          <Radios
            name="names"
            values={['listed', 'free']}
            value={of === '' ? 'free' : names}
            onPick={setNames}
            disabled={of === ''}
          />
          <Radios name="pace" values={['led', 'own']} value={pace} onPick={setPace} />
          <Radios name="seen" values={['named', 'nameless']} value={seen} onPick={setSeen} />
          <div className="mt-auto flex items-center gap-3">
            {/* The one thing to do here has the focus. */}
            {/* oxlint-disable-next-line jsx-a11y/no-autofocus */}
            <Button look="main" size="large" type="submit" autoFocus disabled={busy || !card}>
              <Play size={19} aria-hidden="true" />
              {t('start.go')}
            </Button>
            <span className="text-sm text-slate">{t('start.hint')}</span>
          </div>
          {problem && (
            <p role="alert" className="font-semibold text-rose">
              {t(`refusal.${problem}`)}
            </p>
          )}
        </div>
      </form>
      <Link to={`/boards/${board}`} className="self-start text-dusk underline underline-offset-4">
        {t('start.back')}
      </Link>
    </main>
  )
}

type RadiosProps<V extends string> = {
  name: string
  values: V[]
  value: V
  onPick: (value: V) => void
  disabled?: boolean
}

function Radios<V extends string>({ name, values, value, onPick, disabled }: RadiosProps<V>) {
  const { t } = useTranslation()
  return (
    <fieldset disabled={disabled}>
      <legend className="mb-1 font-semibold">{t(`start.${name}`)}</legend>
      {values.map((v) => (
        <label key={v} className="flex items-center gap-2 py-1">
          <input
            type="radio"
            name={name}
            className="size-4 accent-dusk"
            checked={v === value}
            onChange={() => onPick(v)}
          />
          {t(`start.${name}_${v}`)}
        </label>
      ))}
    </fieldset>
  )
}
