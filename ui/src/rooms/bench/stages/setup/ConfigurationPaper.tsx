import { useQuery } from '@tanstack/react-query'
import { useParams, useSearchParams } from 'react-router'

import { differenceQuery, setupQuery } from '../../../../api/setup'
import { Notice } from '../../../../kit/Notice'
import { Changes } from './Difference'
import { Meanings } from './Meanings'
import { OnPaper } from './OnPaper'

/** A configuration to lay beside the machine, or the list of what leads to it. */
export default function ConfigurationPaper() {
  const { machineId, configurationId } = useParams()
  const [search] = useSearchParams()
  const from = search.get('from')
  const id = Number(machineId)
  const told = useQuery(setupQuery(id))
  const difference = useQuery({ ...differenceQuery(id, Number(from ?? 0), Number(configurationId)),
    enabled: from !== null })
  const one = told.data?.configurations.find((each) => each.id === Number(configurationId))
  return (
    <OnPaper what={from === null ? 'How it is set up' : 'To set it up'}>
      {told.data && !one && <Notice tone="attention" word="Not there.">The configuration was deleted, or is of another
        machine.</Notice>}
      {one && <h2>{one.title}, {one.on}</h2>}
      {from !== null && difference.data && <Changes told={difference.data} />}
      {from === null && one && (
        <>
          {one.cards?.map((card, i) => (
            <section key={i}>
              <h3>{card.title}{card.slot && `, slot ${card.slot}`}</h3>
              <Meanings meanings={one.meanings[i] ?? []} />
            </section>
          ))}
          {one.firmware && <><h3>Kept by the firmware</h3><pre>{one.firmware}</pre></>}
          {one.media && <><h3>In the drives</h3><pre>{one.media}</pre></>}
          {one.files?.map(({ name, text }) => <section key={name}><h3>{name}</h3><pre>{text}</pre></section>)}
          {one.note && <p>{one.note}</p>}
        </>
      )}
    </OnPaper>
  )
}
