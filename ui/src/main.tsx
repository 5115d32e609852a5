import { Direction } from 'radix-ui'
import { lazy, StrictMode, Suspense, type ReactNode } from 'react'
import { createRoot } from 'react-dom/client'
import { useTranslation } from 'react-i18next'
import { BrowserRouter, Route, Routes } from 'react-router'
import { Start } from './join/Start'
import { Logo } from './kit/Logo'
import { Careful } from './kit/Stumbled'
import './styles.css'
import { patient } from './kit/part'
import { keepShell } from './kit/shell'
import { startWords } from './words/words'

// Screens are loaded when they are opened; the start page comes at once.
const CardIn = lazy(patient(() => import('./join/CardIn').then((m) => ({ default: m.CardIn }))))
// All that teachers open has its list in a part of its own: students load none of it.
const Teachers = lazy(patient(() => import('./teachers').then((m) => ({ default: m.Teachers }))))
const LookPage = lazy(patient(() => import('./look/LookPage').then((m) => ({ default: m.LookPage }))))
const GivenPage = lazy(patient(() => import('./given/GivenPage').then((m) => ({ default: m.GivenPage }))))
const StudentLesson = lazy(patient(() => import('./student/StudentLesson').then((m) => ({ default: m.StudentLesson }))))
const TryLesson = lazy(patient(() => import('./student/TryLesson').then((m) => ({ default: m.TryLesson }))))
const FrontPage = lazy(patient(() => import('./front/FrontPage').then((m) => ({ default: m.FrontPage }))))

startWords()
keepShell()

/** Tabs, menus and sliders run the way that the language does. */
function Way({ children }: { children: ReactNode }) {
  const { i18n } = useTranslation()
  return <Direction.Provider dir={i18n.dir()}>{children}</Direction.Provider>
}

function Loading() {
  const { t } = useTranslation()
  return (
    <main className="grid min-h-full place-items-center">
      <p role="status" className="flex flex-col items-center gap-3 text-slate">
        <Logo className="h-12" />
        {t('loading')}
      </p>
    </main>
  )
}

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <BrowserRouter>
      <Careful>
        <Way>
          <Suspense fallback={<Loading />}>
            <Routes>
              <Route path="/" element={<Start />} />
              <Route path="/join/:code" element={<Start />} />
              <Route path="/card" element={<CardIn />} />
              <Route path="/lesson/:session" element={<StudentLesson />} />
              <Route path="/given/:session" element={<GivenPage />} />
              <Route path="/look/:word" element={<LookPage />} />
              <Route path="/front" element={<FrontPage />} />
              <Route path="/front/:session" element={<FrontPage />} />
              <Route path="/try/:board/:frame" element={<TryLesson />} />
              <Route path="*" element={<Teachers />} />
            </Routes>
          </Suspense>
        </Way>
      </Careful>
    </BrowserRouter>
  </StrictMode>,
)
