import { askAll, questionText } from '../../rehearse';
import type { SiteCheck } from '../finding';

/** Kept questions whose answer is not the one expected: asked again at every change of anything they could hang on. */
const questionUnexpected: SiteCheck = {
  id: 'question-unexpected',
  station: 'rehearse',
  scope: 'site',
  *find(plan, today) {
    for (const { question, answer, asExpected } of askAll(plan, today)) {
      if (asExpected) continue;
      const wanted = question.expected === 'delivered' ? 'should get through' : 'should be stopped';
      yield {
        severity: 'fix',
        on: { table: 'question', id: question.id },
        what: `${questionText(plan, question)} ${wanted}`,
        because: `${answer.summary}.${question.why ? ` It is asked because ${question.why}.` : ''}`,
        // What would let it through may open more than was meant, so it is offered with the question and not here.
      };
    }
  },
};

export const questionChecks: readonly SiteCheck[] = [questionUnexpected];
