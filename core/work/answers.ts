import { type NextAnswer, type NextQuestion, nextVersion } from '../learn/next';

/** Answers of the learning engine that are kept: typing asks the same questions again and again. */
const MOST_ANSWERS = 40;

/** The last answers to questions about tries, handed on from one state of a job to the next. */
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
