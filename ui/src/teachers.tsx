import { lazy } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, Route, Routes } from 'react-router'
import { useTitle } from './kit/hooks/useTitle'
import { patient } from './kit/part'

const Teaching = lazy(patient(() => import('./boards/Teaching').then((m) => ({ default: m.Teaching }))))
const SignIn = lazy(patient(() => import('./boards/SignIn').then((m) => ({ default: m.SignIn }))))
const Invitation = lazy(patient(() => import('./account/Invitation').then((m) => ({ default: m.Invitation }))))
const Staff = lazy(patient(() => import('./account/Staff').then((m) => ({ default: m.Staff }))))
const Account = lazy(patient(() => import('./account/Account').then((m) => ({ default: m.Account }))))
const Settings = lazy(patient(() => import('./account/Settings').then((m) => ({ default: m.Settings }))))
const School = lazy(patient(() => import('./account/School').then((m) => ({ default: m.School }))))
const Journal = lazy(patient(() => import('./account/Journal').then((m) => ({ default: m.Journal }))))
const Mailbox = lazy(patient(() => import('./account/Mailbox').then((m) => ({ default: m.Mailbox }))))
const Forgotten = lazy(patient(() => import('./boards/Forgotten').then((m) => ({ default: m.Forgotten }))))
const Classes = lazy(patient(() => import('./classes/Classes').then((m) => ({ default: m.Classes }))))
const ClassView = lazy(patient(() => import('./classes/ClassView').then((m) => ({ default: m.ClassView }))))
const CardsPage = lazy(patient(() => import('./classes/CardsPage').then((m) => ({ default: m.CardsPage }))))
const Boards = lazy(patient(() => import('./boards/Boards').then((m) => ({ default: m.Boards }))))
const Prepare = lazy(patient(() => import('./prepare/Prepare').then((m) => ({ default: m.Prepare }))))
const StartSession = lazy(patient(() => import('./boards/StartSession').then((m) => ({ default: m.StartSession }))))
const TakeCopy = lazy(patient(() => import('./boards/TakeCopy').then((m) => ({ default: m.TakeCopy }))))
const Run = lazy(patient(() => import('./run/Run').then((m) => ({ default: m.Run }))))
const Marking = lazy(patient(() => import('./records/marking/Marking').then((m) => ({ default: m.Marking }))))
const BetweenPage = lazy(patient(() => import('./records/BetweenPage').then((m) => ({ default: m.BetweenPage }))))
const StudentYear = lazy(patient(() => import('./classes/StudentYear').then((m) => ({ default: m.StudentYear }))))
const ReportPage = lazy(patient(() => import('./records/ReportPage').then((m) => ({ default: m.ReportPage }))))
const Letters = lazy(patient(() => import('./records/Letters').then((m) => ({ default: m.Letters }))))
const RecordPage = lazy(patient(() => import('./records/RecordPage').then((m) => ({ default: m.RecordPage }))))

/** The pages of those who teach, each loaded when it is opened. */
export function Teachers() {
  return (
    <Routes>
      <Route element={<Teaching />}>
        <Route path="/sign-in" element={<SignIn />} />
        <Route path="/invitation" element={<Invitation />} />
        <Route path="/staff" element={<Staff />} />
        <Route path="/classes" element={<Classes />} />
        <Route path="/classes/:class" element={<ClassView />} />
        <Route path="/classes/:class/students/:student" element={<StudentYear />} />
        <Route path="/classes/:class/cards" element={<CardsPage />} />
        <Route path="/account" element={<Account />} />
        <Route path="/settings" element={<Settings />} />
        <Route path="/school" element={<School />} />
        <Route path="/journal" element={<Journal />} />
        <Route path="/mailbox" element={<Mailbox />} />
        <Route path="/forgotten" element={<Forgotten />} />
        <Route path="/boards" element={<Boards />} />
        <Route path="/boards/:board" element={<Prepare />} />
        <Route path="/start/:board" element={<StartSession />} />
        <Route path="/copy/:word" element={<TakeCopy />} />
        <Route path="/run/:session" element={<Run />} />
        <Route path="/records/:session" element={<RecordPage />} />
        <Route path="/records/:session/marking" element={<Marking />} />
        <Route path="/records/:session/report" element={<ReportPage />} />
        <Route path="/records/:session/letters" element={<Letters />} />
        <Route path="/records/:session/between" element={<BetweenPage />} />
      </Route>
      <Route path="*" element={<Lost />} />
    </Routes>
  )
}

function Lost() {
  const { t } = useTranslation()
  useTitle(t('lost.title'))
  return (
    <main className="grid min-h-full place-items-center p-6 text-center">
      <div>
        <h1 className="mb-2 text-2xl">{t('lost.title')}</h1>
        <p className="mb-6 text-slate">{t('lost.text')}</p>
        <Link to="/" className="rounded-lg bg-dusk px-4 py-2 font-semibold text-paper">
          {t('lost.start')}
        </Link>
      </div>
    </main>
  )
}
