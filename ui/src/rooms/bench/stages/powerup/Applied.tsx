import { type PowerUpView, useVoidPowerUp } from '../../../../api/power'
import { gateName } from '../../../../features/power/states'
import { Button } from '../../../../kit/Button'
import { Scroll, StackedTable, Whole } from '../../../../kit/ListTable'
import { Mark } from '../../../../kit/Mark'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import type { PowerProps } from './PowerUp'

/** Each time that power was applied, also against the gate. */
export function Applied({ power, mayWrite }: PowerProps) {
  if (power.ups.length === 0) return null
  return (
    <Part title="Power applied" faint={`${String(power.ups.length)}, the newest first`}>
      <Scroll>
        <StackedTable>
          <thead><tr><th>When</th><th>With</th><th>Result</th><th>Gate then</th>
            <th><span className="only-read">Change</span></th></tr></thead>
          <tbody>{power.ups.map((up) => <Row key={up.id} up={up} mayWrite={mayWrite} />)}</tbody>
        </StackedTable>
      </Scroll>
    </Part>
  )
}

function Row({ up, mayWrite }: { up: PowerUpView; mayWrite: boolean }) {
  const voiding = useVoidPowerUp()
  return (
    <tr>
      <Whole>{up.on}<br /><Faint>{up.by}</Faint></Whole>
      <td>{up.steps.join('; ')}{up.steps.length > 1 && <><br /><Faint>all at once</Faint></>}</td>
      <td><Mark kind={up.result === 'not' ? 'problem' : 'done'} /> {up.result === 'not' ? 'not as expected' : 'as expected'}
        {up.seen && <><br />{up.seen}</>}</td>
      <td>{gateName(up.gate)}{up.decidedBy && <><br /><Faint>decided by {up.decidedBy}: {up.why}</Faint></>}</td>
      <td>{mayWrite && <Button $tone="quiet" isPending={voiding.isPending} aria-label={`Delete the power-up of ${up.on}`}
        onPress={() => { voiding.mutate(up) }}>Delete</Button>}
        <NotSaved error={voiding.error} /></td>
    </tr>
  )
}
