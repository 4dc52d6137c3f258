import type { ProblemDetail } from '#contracts/problem';
import { readAnswersCsv } from '../answers-csv';

/** A file of answers, ready to be stored: what the main thread has to look at is short. */
export interface ParsedAnswers {
  readonly count: number;
  /** Units and listeners as they are called in the file, each once. */
  readonly units: readonly string[];
  readonly listeners: readonly string[];
  readonly hasTies: boolean;
  /** Lines as JSON arrays of objects, in the order of the file, to be handed to the database as they are. */
  readonly batches: readonly string[];
  readonly problems: readonly ProblemDetail[];
}

/** Lines of one batch: as many as the database takes in while nobody notices. */
const BATCH = 250;

/** Reads a file of answers. @see readAnswersCsv */
export default function parseAnswers(csv: string): ParsedAnswers {
  const { answers, problems } = readAnswersCsv(csv);
  const lines = answers.map(({ winner, loser, isTie, count, weight, listener, day }) => ({
    winner: winner.toLowerCase(),
    loser: loser.toLowerCase(),
    outcome: isTie ? 0.5 : 1,
    weight: count * weight,
    listener,
    day,
  }));
  const batches: string[] = [];
  for (let from = 0; from < lines.length; from += BATCH) batches.push(JSON.stringify(lines.slice(from, from + BATCH)));
  return {
    count: answers.length,
    units: [...new Set(answers.flatMap((a) => [a.winner, a.loser]))],
    listeners: [...new Set(answers.flatMap((a) => a.listener ?? []))],
    hasTies: answers.some((a) => a.isTie),
    batches,
    problems,
  };
}
