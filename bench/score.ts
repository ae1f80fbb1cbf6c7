/** Answers scored a second in core, over all kinds that are marked by themselves. */
import { rightAnswer, wrongAnswer } from '../core/trial'
import { bank } from '../demo/bank'
import { kindOf, scoreAnswer } from '../core/question'

const tasks = bank
  .filter(({ question }) => !kindOf(question.kind).byHand && !question.vary)
  .flatMap(({ question }) => {
    let n = 0
    return [rightAnswer(question), wrongAnswer(question, (bound) => n++ % bound)].map((answer) => ({
      question,
      answer,
    }))
  })
const run = (seconds: number) => {
  const began = performance.now()
  let done = 0
  while (performance.now() - began < seconds * 1000)
    for (const { question, answer } of tasks) {
      scoreAnswer(question, {}, answer)
      done++
    }
  return done / ((performance.now() - began) / 1000)
}
run(1)
console.log(JSON.stringify({ 'score.rate': { value: Math.round(run(3)), unit: 'answers/s' } }))
