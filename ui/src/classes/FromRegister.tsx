import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import { Refusal } from '../kit/Refusal'
import { codeOf, send } from '../wire/http'
import type { Code, RegisterLook } from '../wire/types.gen'

/** Classes as the school's register has them: looked at first, then those that are wanted are taken. */
export function FromRegister({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const queries = useQueryClient()
  const [file, setFile] = useState<File | null>(null)
  const [look, setLook] = useState<RegisterLook | null>(null)
  const [wanted, want] = useState<string[]>([])
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<Code | null>(null)
  async function attempt(work: () => Promise<void>) {
    setBusy(true)
    setProblem(null)
    try {
      await work()
    } catch (error) {
      setProblem(codeOf(error))
    }
    setBusy(false)
  }
  const open = (chosen: File) =>
    attempt(async () => {
      setLook(await send<RegisterLook>('/register', chosen, () => undefined).done)
      setFile(chosen)
      want([])
    })
  const take = () =>
    attempt(async () => {
      const query = wanted.map((id) => `take=${encodeURIComponent(id)}`).join('&')
      await send<unknown>(`/register?${query}`, file!, () => undefined).done
      await queries.invalidateQueries({ queryKey: ['classes'] })
      await queries.invalidateQueries({ queryKey: ['boards'] })
      onClose()
    })
  return (
    <Dialog wide open onOpenChange={onClose} title={t('register.title')} text={t('register.text')}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault()
          void take()
        }}
      >
        <label className="flex flex-col gap-1 font-semibold">
          {t('register.file')}
          <input
            type="file"
            accept=".zip"
            className="rounded-xl border-2 border-edge bg-paper p-2 font-normal"
            onChange={(e) => {
              const [chosen] = e.target.files ?? []
              if (chosen) void open(chosen)
            }}
          />
        </label>
        {look && (
          <fieldset>
            <legend className="mb-2 font-semibold">{t('register.which')}</legend>
            {look.classes.length === 0 && <p className="text-slate">{t('register.none')}</p>}
            <ul className="grid max-h-[40vh] gap-x-5 gap-y-1 overflow-auto sm:grid-cols-2">
              {look.classes.map((c) => (
                <li key={c.id}>
                  <label className="flex items-center gap-2 rounded-lg px-2 py-1.5 hover:bg-mist">
                    <input
                      type="checkbox"
                      className="size-4 accent-dusk"
                      checked={wanted.includes(c.id)}
                      onChange={(e) => want(e.target.checked ? [...wanted, c.id] : wanted.filter((id) => id !== c.id))}
                    />
                    <bdi className="font-semibold">{c.name}</bdi>
                    <span className="text-slate">
                      {t('boards.students', { count: c.students })}
                      {c.there && ` · ${t('register.there')}`}
                    </span>
                  </label>
                </li>
              ))}
            </ul>
          </fieldset>
        )}
        {look && look.problems.length > 0 && (
          <details>
            <summary className="cursor-pointer font-semibold text-rose">
              {t('register.problems', { count: look.problems.length })}
            </summary>
            <ul className="mt-1 max-h-40 overflow-auto text-sm">
              {look.problems.map((p, i) => (
                <li key={i}>
                  {t('register.row', { file: p.file, n: p.row })}: {t(`register.why_${p.why}`)}
                </li>
              ))}
            </ul>
          </details>
        )}
        <Button type="submit" look="main" size="large" disabled={busy || wanted.length === 0}>
          {t('register.take', { count: wanted.length })}
        </Button>
        <Refusal code={problem} />
      </form>
    </Dialog>
  )
}
