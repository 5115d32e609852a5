import { FileUp, X } from 'lucide-react'
import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { FileButton } from '../kit/fields/FileButton'
import { call, codeOf, send } from '../wire/http'
import type { Code, FrameSource, Intake } from '../wire/types.gen'
import { ChooseFrames } from './ChooseFrames'

const ASK_MS = 400
const accept = '.pdf,.pptx,.csv,.tsv,.xlsx,.txt,.xml,.zip,.board,image/*'

/** Brings in a file: its pages become frames. Reading goes on beside other work and can be stopped. */
export function FromFile({ onAdd }: { onAdd: (from: FrameSource) => void }) {
  const { t, i18n } = useTranslation()
  const [up, setUp] = useState<{ name: string; share: number; cancel: () => void } | null>(null)
  const [intake, setIntake] = useState<Intake | null>(null)
  const [problem, setProblem] = useState<Code | null>(null)
  const id = intake?.id
  const reading = intake?.state === 'reading'
  useEffect(() => {
    if (!reading) return
    const timer = setInterval(() => {
      call<Intake>('GET', `/intakes/${id}`).then(setIntake, (error: unknown) => {
        if (codeOf(error) !== 'unavailable') setProblem(codeOf(error))
      })
    }, ASK_MS)
    return () => clearInterval(timer)
  }, [id, reading])
  useEffect(() => () => void (id && call('DELETE', `/intakes/${id}`).catch(() => {})), [id])

  async function bring(file: File) {
    setProblem(null)
    setIntake(null)
    const { done, cancel } = send<Intake>(
      `/intakes?name=${encodeURIComponent(file.name)}&language=${i18n.language}`,
      file,
      (share) => setUp({ name: file.name, share, cancel }),
    )
    setUp({ name: file.name, share: 0, cancel })
    try {
      setIntake(await done)
    } catch (error) {
      if (!(error instanceof DOMException)) setProblem(codeOf(error))
    }
    setUp(null)
  }
  function stop() {
    if (id) void call('DELETE', `/intakes/${id}`).catch(() => {})
    setIntake(null)
  }
  return (
    <div
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        const file = e.dataTransfer.files[0]
        if (file) void bring(file)
      }}
    >
      <div className="mb-4 rounded-xl border-2 border-dashed border-edge p-5 text-center">
        <p className="mb-3 text-slate">{t('add.fileText')}</p>
        <FileButton
          look="main"
          icon={FileUp}
          label={t('add.chooseFile')}
          accept={accept}
          onFile={(file) => void bring(file)}
        />
      </div>
      {up && <Progress name={t('add.sending', { name: up.name })} value={up.share} of={1} onStop={up.cancel} />}
      {reading && (
        <Progress
          name={t('add.reading', { name: intake.name, done: intake.done, of: intake.of || '?' })}
          value={intake.of ? intake.done : undefined}
          of={intake.of || 1}
          onStop={stop}
        />
      )}
      {(problem ?? intake?.problem) && (
        <p role="alert" className="mb-3 rounded-lg bg-rose-soft px-3 py-2 font-semibold text-rose">
          {t(`refusal.${problem ?? intake?.problem}`)}
        </p>
      )}
      {intake && intake.pages.length > 0 && (
        <ChooseFrames
          key={intake.id}
          alternatives={intake.kind === 'lines'}
          pages={intake.pages}
          questions={intake.kind === 'questions'}
          onAdd={(pages, row) => onAdd({ kind: 'intake', intake: { intake: intake.id, pages, row } })}
        />
      )}
    </div>
  )
}

type ProgressProps = { name: string; value: number | undefined; of: number; onStop: () => void }

function Progress({ name, value, of, onStop }: ProgressProps) {
  const { t } = useTranslation()
  return (
    <div className="mb-3 flex items-center gap-3">
      <span className="min-w-0 grow">
        <span role="status" className="block truncate text-sm">
          {name}
        </span>
        <progress aria-label={name} value={value} max={of} className="block h-2 w-full accent-dusk" />
      </span>
      <Button onClick={onStop}>
        <X size={17} aria-hidden="true" />
        {t('add.stop')}
      </Button>
    </div>
  )
}
