import type { CanActivate, ExecutionContext } from '@nestjs/common';
import { createParamDecorator, Injectable } from '@nestjs/common';
import type { Request } from 'express';
import { signInFirst } from '../http/problem.js';
import type { Operator } from './operator.entity.js';
import { OperatorsService } from './operators.service.js';
import { sessionToken } from './visitors.service.js';

type OperatorRequest = Request & { operator?: Operator };

/** Lets those in who look after the installation. They are no visitors of anything else. */
@Injectable()
export class OperatorGuard implements CanActivate {
  constructor(private readonly operators: OperatorsService) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<OperatorRequest>();
    const operator = await this.operators.operatorOf(sessionToken(request));
    if (!operator) throw signInFirst();
    request.operator = operator;
    return true;
  }
}

export const CurrentOperator = createParamDecorator((_: unknown, context: ExecutionContext): Operator => {
  const { operator } = context.switchToHttp().getRequest<OperatorRequest>();
  if (!operator) throw signInFirst();
  return operator;
});
