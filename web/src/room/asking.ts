import type {
  AnswerMessage,
  AskMessage,
  HandMessage,
  Poll,
  PollMessage,
  PollValue,
  Reaction,
  ReactMessage,
} from '@doodla/core';
import { LIVE } from '@doodla/core';
import type { Line } from '@doodla/core/client';

/** Asking a class and answering, hands and reactions, as this browser sends them. Each resolves with whether it was taken. */
export class Asking {
  constructor(
    private readonly sitting: string,
    private readonly connection: Pick<Line, 'request'>,
    private readonly tellProblem: (sentence: string) => void,
  ) {}

  ask(poll: Poll): Promise<boolean> {
    return this.send(LIVE.ask, { sitting: this.sitting, poll } satisfies AskMessage);
  }

  answer(poll: string, value: PollValue): Promise<boolean> {
    return this.send(LIVE.answer, { sitting: this.sitting, poll, value } satisfies AnswerMessage);
  }

  /** Closes a poll, or opens it again; `away`: it is no longer shown. */
  change(poll: string, { open, away = false }: { open: boolean; away?: boolean }): Promise<boolean> {
    return this.send(LIVE.poll, { sitting: this.sitting, poll, open, away } satisfies PollMessage);
  }

  /** One's own hand, or, by the teacher, that of a student or of all down. */
  hand(up: boolean, who?: string): Promise<boolean> {
    const message: HandMessage = { sitting: this.sitting, up, ...(who !== undefined && { who }) };
    return this.send(LIVE.hand, message);
  }

  react(which: Reaction): Promise<boolean> {
    return this.send(LIVE.react, { sitting: this.sitting, which } satisfies ReactMessage);
  }

  private send(event: string, message: object): Promise<boolean> {
    return this.connection.request(event, message).then(
      () => true,
      (error: Error) => {
        this.tellProblem(error.message);
        return false;
      },
    );
  }
}
