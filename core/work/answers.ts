import { type NextAnswer, type NextQuestion, nextVersion } from '../learn/next';

/** Remembered answers of the learning engine: typing asks the same questions again and again. */
const MOST_ANSWERS = 40;

/** The most recent answers, passed on from one state of a job to the next. */
export class Answers {
  private readonly kept = new Map<string, NextAnswer>();

  next = (question: NextQuestion): NextAnswer => {
    const key = JSON.stringify(question);
    const known = this.kept.get(key);
    if (known) return known;
    const answer = nextVersion(question);
    if (this.kept.size >= MOST_ANSWERS) this.kept.delete(this.kept.keys().next().value!);
    this.kept.set(key, answer);
    return answer;
  };
}
