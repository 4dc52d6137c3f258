import { readAnswersCsv } from './answers-csv';

/** Reads a file of answers. @see readAnswersCsv */
export default function parseAnswers(csv: string): ReturnType<typeof readAnswersCsv> {
  return readAnswersCsv(csv);
}
