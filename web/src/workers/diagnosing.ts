import { type Diagnosis, hypothesesOf, predictions, rank } from '@uvanta/core/diagnosis'
import type { DiagnosisQuestion } from '@uvanta/core/visit'
import { expose } from 'comlink'

const diagnosing = {
  /** Asks the model what each thinkable fault would read, and says how far it has come, 0 … 1. */
  diagnose({ procedure, site, found }: DiagnosisQuestion, tell: (part: number) => void): Diagnosis {
    const all = hypothesesOf(site.kind).length
    const made = []
    let asked = 0
    for (const prediction of predictions(procedure, site)) {
      if (prediction) made.push(prediction)
      tell(++asked / all)
    }
    return rank(site.kind, found, made)
  },
}
export type Diagnosing = typeof diagnosing

expose(diagnosing)
