import { type Exercise, usePractise } from '../../api/practice'
import { Button, Buttons } from '../../kit/Button'
import { Mark } from '../../kit/Mark'
import { NotSaved } from '../../kit/NotSaved'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'

/** The ladder of the practice machine: what is in now is judged, one rung at a time. */
export function PracticeLadder({ exercise }: { exercise: Exercise }) {
  const practise = usePractise()
  const judge = (what: 'as-expected' | 'not') => { practise.mutate({ kind: 'judge', what }) }
  return (
    <Part title="Ladder" faint="The minimum first, then one addition at a time">
      <ol aria-label="Rungs, from the lowest">{exercise.ladder.map((rung) => (
        <li key={rung.step}><Mark kind={rung.result === 'not' ? 'problem' : rung.result ? 'done' : 'none'} />{' '}
          <strong>{rung.step}</strong>{rung.result && `: ${rung.result === 'not' ? 'not as expected' : 'as expected'}`}
          <br /><Faint>Expect: {rung.sign}. Stop: {rung.stop}.</Faint></li>
      ))}</ol>
      {!exercise.said && (
        <Buttons>
          <Button isPending={practise.isPending} onPress={() => { judge('as-expected') }}>It is as expected</Button>
          <Button isPending={practise.isPending} onPress={() => { judge('not') }}>It is not as expected</Button>
        </Buttons>
      )}
      <NotSaved error={practise.error} />
      <p><Faint>Before each addition: off, lead out, lamps dark. One thing at a time.</Faint></p>
    </Part>
  )
}
