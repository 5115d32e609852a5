import { Mic, Square, Upload } from 'lucide-react'
import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../../kit/Button'
import { FileButton } from '../../kit/fields/FileButton'
import { codeOf, send } from '../../wire/http'
import type { Code, Recorded } from '../../wire/types.gen'
import { Listen } from './Listen'
import { toWav } from './wav'

type Props = {
  label: string
  /** Where recordings are kept: those of questions with the pictures of boards, others with a lesson. */
  to?: string
  sound?: string
  onSound: (id: string | undefined) => void
}

/** The longest recording, in milliseconds; as core/sound has it. */
const LONGEST_MS = 120_000

/** Something to hear: recorded here, or brought in. */
export function SoundField({ label, to = '/sounds', sound, onSound }: Props) {
  const { t } = useTranslation()
  const [recorder, setRecorder] = useState<MediaRecorder | null>(null)
  const [seconds, setSeconds] = useState(0)
  const [problem, setProblem] = useState<Code | 'microphone' | null>(null)
  const [busy, setBusy] = useState(false)
  /** A recording that could not be sent: it is kept, to be sent again. */
  const [unsent, setUnsent] = useState<Blob | null>(null)
  useEffect(() => {
    if (!recorder) return
    const timer = setInterval(() => setSeconds((s) => s + 1), 1000)
    return () => {
      clearInterval(timer)
      recorder.stream.getTracks().forEach((track) => track.stop())
    }
  }, [recorder])

  async function keep(from: Blob) {
    setBusy(true)
    try {
      let wav: Blob
      try {
        wav = await toWav(await from.arrayBuffer())
      } catch {
        setProblem('sound-unreadable')
        return
      }
      await give(wav)
    } finally {
      setBusy(false)
    }
  }

  async function give(wav: Blob) {
    setProblem(null)
    setBusy(true)
    try {
      onSound((await send<Recorded>(to, wav, () => undefined).done).sound)
      setUnsent(null)
    } catch (error) {
      setProblem(codeOf(error))
      setUnsent(codeOf(error) === 'unavailable' || codeOf(error) === 'too-many' ? wav : null)
    } finally {
      setBusy(false)
    }
  }

  async function record() {
    setProblem(null)
    setSeconds(0)
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
      const made = new MediaRecorder(stream)
      const parts: Blob[] = []
      made.ondataavailable = (e) => parts.push(e.data)
      made.onstop = () => {
        setRecorder(null)
        void keep(new Blob(parts, { type: made.mimeType }))
      }
      made.start()
      setTimeout(() => made.state === 'recording' && made.stop(), LONGEST_MS)
      setRecorder(made)
    } catch {
      setProblem('microphone')
    }
  }

  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">{label}</legend>
      {sound && <Listen sound={sound} />}
      <div className="flex flex-wrap items-center gap-2">
        {recorder ? (
          <Button look="glow" onClick={() => recorder.stop()}>
            <Square size={15} aria-hidden="true" />
            {t('question.stop')}
          </Button>
        ) : (
          <Button disabled={busy} onClick={() => void record()}>
            <Mic size={17} aria-hidden="true" />
            {t('question.record')}
          </Button>
        )}
        <FileButton
          icon={Upload}
          label={t('question.soundFile')}
          accept="audio/*"
          disabled={busy || recorder !== null}
          onFile={(file) => {
            setProblem(null)
            void keep(file)
          }}
        />
        {unsent && (
          <Button look="main" disabled={busy || recorder !== null} onClick={() => void give(unsent)}>
            {t('question.sendAgain')}
          </Button>
        )}
        {sound && (
          <Button look="quiet" onClick={() => onSound(undefined)}>
            {t('question.dropSound')}
          </Button>
        )}
      </div>
      <p role="status" className="empty:hidden">
        {recorder && t('question.recording', { count: seconds })}
      </p>
      {problem && (
        <p role="alert" className="rounded-lg bg-rose-soft px-3 py-1.5 text-rose">
          {problem === 'microphone'
            ? t('question.noMicrophone')
            : unsent
              ? t('question.soundWaits')
              : t(`refusal.${problem}`)}
        </p>
      )}
    </fieldset>
  )
}
