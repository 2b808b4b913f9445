import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'

import { modelQuery, type ModelPage } from '../../../api/identify'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button } from '../../../kit/Button'
import { ListTable, Scroll } from '../../../kit/ListTable'
import { Notice } from '../../../kit/Notice'
import { Faint, Page, PageHead, Title } from '../../../kit/Page'
import { PartIndex } from '../../../kit/PartIndex'
import { Part } from '../../../kit/Part'
import { Skeleton } from '../../../kit/Skeleton'
import { usePanel } from '../../../kit/usePanel'
import { SignTable } from '../../../features/signs/SignTable'
import { BesideOther } from './BesideOther'
import { BuiltDrawing } from './BuiltDrawing'
import { EditModel } from './EditModel'
import { ModelBoards } from './ModelBoards'
import { ToldFacts } from './ToldFacts'

/** A model of machines: what is told of it, what belongs in it, and the machines that are of it. */
export default function OneModel() {
  const id = Number(useParams().id)
  const model = useQuery(modelQuery(id))
  if (model.isPending) return <Page><Skeleton what="The model" lines={14} /></Page>
  if (!model.data) {
    return <Page><Title>Models</Title><Notice tone="stop" word="Not read.">{messageOf(model.error)}</Notice></Page>
  }
  return <One key={id} model={model.data} />
}

function One({ model }: { model: ModelPage }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [editing, setEditing] = usePanel('edit')
  return (
    <Page>
      <PageHead>
        <Title><Link to="/library/models">Models</Link> / {model.maker} {model.model}</Title>
        <Faint>{[model.made && `made ${model.made}`, model.source].filter(Boolean).join(' · ')}</Faint>
        {mayWrite && !editing && <Button onPress={() => { setEditing(true) }}>Edit</Button>}
      </PageHead>
      <PartIndex />
      {editing && <EditModel model={model} onDone={() => { setEditing(false) }} />}
      {model.variants && <p>Variants: {model.variants.split('\n').join(', ')}</p>}
      {model.note && <p>{model.note}</p>}
      <ToldFacts told={model.told} />
      <ModelBoards model={model} />
      <Part title="What it shows" faint="Lamps, beeps, screens and codes">
        {model.signs ? <SignTable table={model.shows} /> : <p><Faint>No signs are written down yet.</Faint></p>}
      </Part>
      {model.measured.length > 0 && (
        <Part title="Measured and shown"><ul>{model.measured.map((line) => <li key={line}>{line}</li>)}</ul></Part>
      )}
      <Part title="Machines" faint={`${String(model.machines)} in the collection`}>
        {model.built.length === 0 ? <p>None is in the collection.</p> : <BuiltDrawing model={model} />}
      </Part>
      <BesideOther model={model} />
      <Part title="ROM versions" faint="Read on its machines">
        {model.roms.length === 0 ? <p><Faint>Nothing was read yet.</Faint></p> : (
          <Scroll>
            <ListTable>
              <thead><tr><th>Image</th><th>Version</th><th>Machines</th></tr></thead>
              <tbody>
                {model.roms.map((rom) => (
                  <tr key={rom.sha256}>
                    <td><Link to={`/library/roms/${rom.sha256}`}>{rom.name || rom.sha256.slice(0, 12)}</Link></td>
                    <td>{rom.version}</td>
                    <td>{rom.machines}</td>
                  </tr>
                ))}
              </tbody>
            </ListTable>
          </Scroll>
        )}
      </Part>
      <Part title="How it is taken apart">
        {model.procedures.length === 0 ? <p><Faint>There is no procedure yet. The log of a machine makes one, in the stage
          Open up.</Faint></p> : <ul>{model.procedures.map((one) =>
          <li key={one.id}><Link to="/library/procedures">{one.title}</Link></li>)}</ul>}
      </Part>
    </Page>
  )
}
