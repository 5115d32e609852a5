import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Download } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { call, codeOf } from '../../wire/http'
import type { Code, Making, OutputForm, PageSize, TakeOutWhat, Wish } from '../../wire/types.gen'
import { Button } from '../Button'
import { Pick } from '../fields/Pick'
import { Refusal } from '../Refusal'
import { Switch } from '../fields/Switch'
import { Dialog } from './Dialog'
import { Looks } from './Looks'

/** What can be taken out of a board, and of a lesson. */
const whats = { boards: ['board'], sessions: ['students', 'sheets', 'notes', 'board'] } as const
const lists: OutputForm[] = ['csv', 'markdown', 'opml']
const pictures: OutputForm[] = ['pdf', 'png', 'svg', 'inkml', 'photos']
const papers: PageSize[] = ['a4', 'a3', 'letter']
const perPages = [1, 2, 4, 6]
const widths = [1600, 2560, 3840]

/** How often is asked how far a file is. */
const ASK_MS = 400

type Named = { id: string; name: string }
type Props = {
  of: keyof typeof whats
  id: string
  title: string
  frames?: Named[]
  students?: Named[]
  onClose: () => void
}

/** Chooses what of a board or a lesson becomes a file, has it made, and gives it. */
export function TakeOut({ of, id, title, frames = [], students = [], onClose }: Props) {
  const { t } = useTranslation()
  const queries = useQueryClient()
  const [making, make] = useState<Making | null>(null)
  const [problem, tell] = useState<Code | null>(null)
  const begin = async (wish: Wish) => {
    tell(null)
    try {
      make(await call<Making>('POST', `/${of}/${id}/outputs`, wish))
    } catch (error) {
      tell(codeOf(error))
    }
  }
  const link = async (wish: Wish) => {
    tell(null)
    try {
      await call('POST', `/${of}/${id}/looks`, wish)
      await queries.invalidateQueries({ queryKey: ['looks', id] })
    } catch (error) {
      tell(codeOf(error))
    }
  }
  const drop = async () => {
    if (making) await call('DELETE', `/outputs/${making.id}`).catch((error: unknown) => tell(codeOf(error)))
    make(null)
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('out.title', { title })}>
      <Refusal code={problem} />
      {making ? (
        <Made making={making} onDrop={() => void drop()} onClose={onClose} />
      ) : (
        <Wishes
          of={of}
          frames={frames}
          students={students}
          onWish={(wish) => void begin(wish)}
          onLink={(wish) => void link(wish)}
        />
      )}
      {!making && <Looks of={of} id={id} />}
    </Dialog>
  )
}

type WishesProps = Omit<Props, 'id' | 'title' | 'frames' | 'students' | 'onClose'> & {
  frames: Named[]
  students: Named[]
  onWish: (wish: Wish) => void
  onLink: (wish: Wish) => void
}

function Wishes({ of, frames, students, onWish, onLink }: WishesProps) {
  const { t } = useTranslation()
  const [wish, set] = useState<Wish>({
    what: whats[of][0],
    form: 'pdf',
    paper: 'a4',
    perPage: 1,
    width: 1600,
    names: false,
  })
  const change = (more: Partial<Wish>) => set({ ...wish, ...more })
  const forms = wish.what === 'notes' ? lists : pictures
  const one = (list: string[] | undefined) => list?.[0] ?? ''
  const only = (value: string) => (value ? [value] : undefined)
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault()
        onWish(wish)
      }}
    >
      {whats[of].length > 1 && (
        <Pick<TakeOutWhat>
          label={t('out.what')}
          value={wish.what}
          options={whats[of].map((value) => ({ value, name: t(`out.what_${value}`) }))}
          onPick={(what) =>
            change({
              what,
              form: what === 'notes' ? 'csv' : 'pdf',
              students: undefined,
              judged: false,
            })
          }
        />
      )}
      <Pick<OutputForm>
        label={t('out.form')}
        value={wish.form}
        options={forms.map((value) => ({ value, name: t(`out.form_${value}`) }))}
        onPick={(form) => change({ form })}
      />
      {frames.length > 1 && (
        <Pick
          label={t('out.frames')}
          value={one(wish.frames)}
          options={[{ value: '', name: t('out.allFrames') }, ...frames.map((f) => ({ value: f.id, name: f.name }))]}
          onPick={(value) => change({ frames: only(value) })}
        />
      )}
      {wish.what === 'students' && (
        <Pick
          label={t('out.students')}
          value={one(wish.students)}
          options={[{ value: '', name: t('out.allStudents') }, ...students.map((s) => ({ value: s.id, name: s.name }))]}
          onPick={(value) => change({ students: only(value) })}
        />
      )}
      {wish.form === 'pdf' && (
        <div className="flex flex-wrap gap-3">
          <Pick<PageSize>
            label={t('out.paper')}
            value={wish.paper ?? 'a4'}
            options={papers.map((value) => ({ value, name: t(`out.paper_${value}`) }))}
            onPick={(paper) => change({ paper })}
          />
          <Pick
            label={t('out.perPage')}
            value={String(wish.perPage)}
            options={perPages.map((n) => ({ value: String(n), name: t('out.onPage', { count: n }) }))}
            onPick={(n) => change({ perPage: Number(n) })}
          />
        </div>
      )}
      {wish.form === 'png' && (
        <Pick
          label={t('out.width')}
          value={String(wish.width)}
          options={widths.map((n) => ({ value: String(n), name: t('out.points', { width: n, height: (n * 5) / 8 }) }))}
          onPick={(n) => change({ width: Number(n) })}
        />
      )}
      {wish.what !== 'board' && (
        <Switch label={t('out.names')} on={wish.names ?? false} onSwitch={(names) => change({ names })} />
      )}
      {wish.what === 'students' && wish.form === 'pdf' && (
        <Switch label={t('out.judged')} on={wish.judged ?? false} onSwitch={(judged) => change({ judged })} />
      )}
      <Switch
        label={t('out.asClass')}
        help={t('out.asClassHelp')}
        on={wish.asClass ?? false}
        onSwitch={(asClass) => change({ asClass })}
      />
      <div className="flex flex-wrap items-center gap-3">
        <Button look="main" type="submit">
          {t('out.make')}
        </Button>
        {wish.what !== 'notes' && (
          <Button aria-describedby="link-help" onClick={() => onLink({ ...wish, form: 'svg' })}>
            {t('out.link')}
          </Button>
        )}
      </div>
      {wish.what !== 'notes' && (
        <p id="link-help" className="text-sm text-slate">
          {t('out.linkHelp')}
        </p>
      )}
    </form>
  )
}

function Made({ making, onDrop, onClose }: { making: Making; onDrop: () => void; onClose: () => void }) {
  const { t } = useTranslation()
  const { data: now = making, error } = useQuery({
    queryKey: ['output', making.id],
    queryFn: () => call<Making>('GET', `/outputs/${making.id}`),
    refetchInterval: ({ state }) => (state.data?.ready || state.data?.failed ? false : ASK_MS),
    gcTime: 0,
  })
  const failed = now.failed ?? (error ? codeOf(error) : null)
  return (
    <div className="flex flex-col gap-4">
      <Refusal code={failed} />
      <p role="status">
        {now.ready ? t('out.ready') : failed ? '' : t('out.making', { done: now.done, count: Math.max(1, now.all) })}
      </p>
      {!now.ready && !failed && (
        <progress
          className="h-3 w-full accent-dusk"
          max={Math.max(1, now.all)}
          value={now.done}
          aria-label={t('out.progress')}
        />
      )}
      <div className="flex flex-wrap gap-3">
        {now.ready && (
          <a
            href={`/api/outputs/${now.id}/file`}
            download
            onClick={onClose}
            className="inline-flex items-center gap-2 rounded-lg bg-dusk px-3.5 py-2 font-semibold text-paper hover:bg-night"
          >
            <Download size={17} aria-hidden="true" />
            {t('out.save')}
          </a>
        )}
        <Button onClick={onDrop}>{now.ready || failed ? t('out.another') : t('cancel')}</Button>
      </div>
    </div>
  )
}
