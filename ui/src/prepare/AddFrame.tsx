import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Trash2 } from 'lucide-react'
import { Tabs } from 'radix-ui'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Thumbnail } from '../frame/paint/Thumbnail'
import { Dialog } from '../kit/windows/Dialog'
import { call, codeOf } from '../wire/http'
import type { Frame, FrameSource, TemplateGroup, Templates } from '../wire/types.gen'
import { FromBoards } from './FromBoards'
import { FromFile } from './FromFile'
import { useDesk } from './useDesk'

type Props = { at: number; onClose: () => void; onAdded: (frames: string[]) => void }

const groups: TemplateGroup[] = ['think', 'arrange', 'measure', 'check']

/** Where new frames come from: a blank one, a template, another board, or a file. */
export function AddFrame({ at, onClose, onAdded }: Props) {
  const { t } = useTranslation()
  const desk = useDesk()
  const [busy, setBusy] = useState(false)
  const adding = useRef(false)
  async function add(from: FrameSource) {
    // Two quick presses add one.
    if (adding.current) return
    adding.current = true
    setBusy(true)
    try {
      onAdded(await desk.add(at, from))
    } catch (error) {
      desk.tell(codeOf(error))
      setBusy(false)
      adding.current = false
    }
  }
  const tab =
    'rounded-lg px-3 py-1.5 text-slate hover:bg-mist data-[state=active]:bg-dusk-soft data-[state=active]:font-semibold data-[state=active]:text-dusk'
  return (
    <Dialog open wide onOpenChange={onClose} title={t('add.title')}>
      <Tabs.Root defaultValue="templates" className="min-h-[60dvh]" aria-busy={busy}>
        <Tabs.List aria-label={t('add.title')} className="mb-4 flex flex-wrap gap-1">
          {(['templates', 'boards', 'file'] as const).map((name) => (
            <Tabs.Trigger key={name} value={name} className={tab}>
              {t(`add.${name}`)}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Tabs.Content value="templates">
          <Choose onAdd={(from) => void add(from)} />
        </Tabs.Content>
        <Tabs.Content value="boards">
          <FromBoards onAdd={(from) => void add(from)} />
        </Tabs.Content>
        <Tabs.Content value="file">
          <FromFile onAdd={(from) => void add(from)} />
        </Tabs.Content>
      </Tabs.Root>
    </Dialog>
  )
}

/** A blank frame, the house's templates by what they are for, and one's own. */
function Choose({ onAdd }: { onAdd: (from: FrameSource) => void }) {
  const { t } = useTranslation()
  const desk = useDesk()
  const queries = useQueryClient()
  const templates = useQuery({ queryKey: ['templates'], queryFn: () => call<Templates>('GET', '/templates') })
  const take = (template: string) => onAdd({ kind: 'template', template: { template } })
  async function remove(id: string) {
    try {
      await call('DELETE', `/templates/${id}`)
      await queries.invalidateQueries({ queryKey: ['templates'] })
    } catch (error) {
      desk.tell(codeOf(error))
    }
  }
  const grid = 'grid grid-cols-2 gap-3 sm:grid-cols-4 lg:grid-cols-5'
  return (
    <div className="flex flex-col gap-5">
      <ul className={grid}>
        <Card
          frame={{
            id: '',
            title: '',
            prompt: '',
            paper: { kind: 'plain' },
            arrangement: 'class',
            layout: {},
            permission: 'add',
            prepared: [],
          }}
          name={t('add.blank')}
          onPick={() => onAdd({ kind: 'blank', blank: {} })}
        />
      </ul>
      {templates.data && templates.data.own.length > 0 && (
        <section aria-labelledby="own-templates">
          <h3 id="own-templates" className="mb-2 font-semibold">
            {t('add.own')}
          </h3>
          <ul className={grid}>
            {templates.data.own.map((o) => (
              <Card
                key={o.id}
                frame={o.frame}
                name={o.name}
                onPick={() => take(o.id)}
                onRemove={() => void remove(o.id)}
              />
            ))}
          </ul>
        </section>
      )}
      {templates.data &&
        groups.map((group) => (
          <section key={group} aria-labelledby={`group-${group}`}>
            <h3 id={`group-${group}`} className="mb-2 font-semibold">
              {t(`add.group_${group}`)}
            </h3>
            <ul className={grid}>
              {templates.data.ready
                .filter((r) => r.group === group)
                .map((r) => (
                  <Card key={r.id} frame={r.frame} name={r.name} onPick={() => take(r.id)} />
                ))}
            </ul>
          </section>
        ))}
    </div>
  )
}

type CardProps = { frame: Frame; name: string; onPick: () => void; onRemove?: () => void }

function Card({ frame, name, onPick, onRemove }: CardProps) {
  const { t } = useTranslation()
  return (
    <li className="relative">
      <button
        type="button"
        onClick={onPick}
        className="w-full overflow-hidden rounded-xl border-2 border-line text-start hover:border-dusk"
      >
        <span aria-hidden="true" className="block">
          <Thumbnail frame={frame} marks={[]} width={220} label={name} />
        </span>
        <span className="block border-t border-line px-2.5 py-1.5 text-sm font-semibold">{name}</span>
      </button>
      {onRemove && (
        <button
          type="button"
          aria-label={t('add.removeTemplate', { name })}
          onClick={onRemove}
          className="absolute end-1.5 top-1.5 rounded-md bg-paper p-1.5 text-slate shadow hover:text-rose"
        >
          <Trash2 size={15} aria-hidden="true" />
        </button>
      )}
    </li>
  )
}
