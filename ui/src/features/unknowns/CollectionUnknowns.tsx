import { Link } from 'react-router'

import { Identifications } from '../identifications/Identifications'
import { Page, Title } from '../../kit/Page'
import { Unknowns } from './Unknowns'

/** What nobody in the collection knows yet. */
export default function CollectionUnknowns() {
  return (
    <Page>
      <Title><Link to="/library">Library</Link> / Unknowns</Title>
      <Unknowns machineId={0} />
      <Identifications machineId={0} assemblies={[]} />
    </Page>
  )
}
