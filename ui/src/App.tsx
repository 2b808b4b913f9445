import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense } from 'react'
import { Navigate, Route, Routes, useMatch } from 'react-router'

import { messageOf } from './api/problem'
import { sessionQuery } from './api/session'
import { Frame } from './frame/Frame'
import { SignIn } from './frame/SignIn'
import { Button } from './kit/Button'
import { Notice } from './kit/Notice'
import { Page, Title } from './kit/Page'
import { NewMachine } from './rooms/shelves/NewMachine'
import { Shelves } from './rooms/shelves/Shelves'

const Account = lazy(() => import('./rooms/account/Account'))
const Welcome = lazy(() => import('./frame/Welcome'))
const Bench = lazy(() => import('./rooms/bench/Bench'))
const PrintView = lazy(() => import('./rooms/bench/PrintView'))
const Library = lazy(() => import('./rooms/library/Library'))
const Stores = lazy(() => import('./rooms/stores/Stores'))
const OneLoose = lazy(() => import('./rooms/stores/OneLoose'))
const People = lazy(() => import('./rooms/library/people/People'))
const CollectionUnknowns = lazy(() => import('./unknowns/CollectionUnknowns'))
const Annotation = lazy(() => import('./annotation/Annotation'))
const Makers = lazy(() => import('./rooms/library/makers/Makers'))
const Models = lazy(() => import('./rooms/library/models/Models'))
const OneModel = lazy(() => import('./rooms/library/models/OneModel'))
const KnownAssemblies = lazy(() => import('./rooms/library/known/KnownAssemblies'))
const SignLists = lazy(() => import('./rooms/library/signs/SignLists'))
const Packs = lazy(() => import('./rooms/library/packs/Packs'))
const OneKnown = lazy(() => import('./rooms/library/known/OneKnown'))
const RomList = lazy(() => import('./rooms/library/roms/RomList'))
const OneRom = lazy(() => import('./rooms/library/roms/OneRom'))
const Arrivals = lazy(() => import('./rooms/arrivals/Arrivals'))
const NewLot = lazy(() => import('./rooms/arrivals/NewLot'))
const OneLot = lazy(() => import('./rooms/arrivals/OneLot'))
const Places = lazy(() => import('./rooms/stores/Places'))
const Diary = lazy(() => import('./rooms/diary/Diary'))
const OpenFirst = lazy(() => import('./rooms/diary/OpenFirst'))
const Ageing = lazy(() => import('./rooms/diary/Ageing'))
const Procedures = lazy(() => import('./rooms/library/procedures/Procedures'))
const WayOnPaper = lazy(() => import('./rooms/bench/stages/openup/WayOnPaper'))
const TrayLabels = lazy(() => import('./rooms/bench/stages/openup/TrayLabels'))
const ConditionReport = lazy(() => import('./rooms/bench/stages/judge/ConditionReport'))
const EmptyBench = lazy(() => import('./rooms/bench/EmptyBench'))

export function App() {
  const session = useQuery(sessionQuery)
  const atWelcome = useMatch('/welcome') !== null
  if (session.isPending) return null
  if (!session.data) {
    return (
      <Page>
        <Notice tone="stop" word="No answer.">{messageOf(session.error)}</Notice>
        <Button onPress={() => void session.refetch()}>Try again</Button>
      </Page>
    )
  }
  if (atWelcome) return <Suspense fallback={null}><Welcome /></Suspense>
  if (!session.data.account) return <SignIn />
  return (
    // Whoever signs in in the place of somebody else begins anew.
    <Suspense key={session.data.account.id} fallback={null}>
      <Routes>
        <Route element={<Frame />}>
          <Route index element={<Navigate to="/shelves" replace />} />
          <Route path="shelves" element={<Shelves />} />
          <Route path="shelves/new" element={<NewMachine />} />
          <Route path="shelves/arrivals" element={<Arrivals />} />
          <Route path="shelves/arrivals/new" element={<NewLot />} />
          <Route path="shelves/arrivals/:lotId" element={<OneLot />} />
          <Route path="stores/places" element={<Places />} />
          <Route path="library/people" element={<People />} />
          <Route path="library/unknowns" element={<CollectionUnknowns />} />
          <Route path="library/makers" element={<Makers />} />
          <Route path="library/models" element={<Models />} />
          <Route path="library/models/:id" element={<OneModel />} />
          <Route path="library/known" element={<KnownAssemblies />} />
          <Route path="library/signs" element={<SignLists />} />
          <Route path="library/packs" element={<Packs />} />
          <Route path="library/known/:id" element={<OneKnown />} />
          <Route path="library/roms" element={<RomList />} />
          <Route path="library/roms/:sha256" element={<OneRom />} />
          <Route path="stores" element={<Stores />} />
          <Route path="stores/:assemblyId" element={<OneLoose />} />
          <Route path="library" element={<Library />} />
          <Route path="diary" element={<Diary />} />
          <Route path="diary/open-first" element={<OpenFirst />} />
          <Route path="diary/ageing" element={<Ageing />} />
          <Route path="library/procedures" element={<Procedures />} />
          <Route path="account" element={<Account />} />
          <Route path="bench" element={<EmptyBench />} />
          <Route path="bench/:machineId" element={<Navigate to="at-a-glance" replace />} />
          <Route path="bench/:machineId/print" element={<PrintView />} />
          <Route path="bench/:machineId/condition-report" element={<ConditionReport />} />
          <Route path="bench/:machineId/way" element={<WayOnPaper />} />
          <Route path="bench/:machineId/tray-labels/:teardownId" element={<TrayLabels />} />
          <Route path="bench/:machineId/board-picture/:attachmentId" element={<Annotation />} />
          <Route path="bench/:machineId/:stage" element={<Bench />} />
          <Route path="*"
            element={<Page><Title>Nothing here</Title><p>The address names no room; choose one above.</p></Page>} />
        </Route>
      </Routes>
    </Suspense>
  )
}
