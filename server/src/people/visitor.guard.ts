import type { CanActivate, ExecutionContext } from '@nestjs/common';
import { createParamDecorator, Injectable } from '@nestjs/common';
import type { Request } from 'express';
import { Problem, signInFirst } from '../http/problem.js';
import type { Teacher } from './teacher.entity.js';
import type { Visitor } from './visitor.js';
import { bearerToken, VisitorsService } from './visitors.service.js';

type VisitorRequest = Request & { visitor: Visitor };

/** Lets known visitors in and notes who they are. */
@Injectable()
export class VisitorGuard implements CanActivate {
  constructor(private readonly visitors: VisitorsService) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const request = context.switchToHttp().getRequest<VisitorRequest>();
    request.visitor = await this.visitors.of(bearerToken(request), request);
    if (request.visitor.role === 'nobody') throw signInFirst();
    return true;
  }
}

/** Lets signed-in teachers in. */
@Injectable()
export class TeacherGuard extends VisitorGuard {
  override async canActivate(context: ExecutionContext): Promise<boolean> {
    await super.canActivate(context);
    const { visitor } = context.switchToHttp().getRequest<VisitorRequest>();
    if (visitor.role !== 'teacher') throw signInFirst();
    return true;
  }
}

/** Lets those in who look after the school. */
@Injectable()
export class AdminGuard extends TeacherGuard {
  override async canActivate(context: ExecutionContext): Promise<boolean> {
    await super.canActivate(context);
    const { visitor } = context.switchToHttp().getRequest<VisitorRequest>();
    if (visitor.role === 'teacher' && visitor.teacher.admin) return true;
    throw new Problem(403, 'not-admin', 'Only whoever looks after the school can do that. Please ask them.');
  }
}

export const CurrentVisitor = createParamDecorator(
  (_: unknown, context: ExecutionContext): Visitor =>
    context.switchToHttp().getRequest<VisitorRequest>().visitor,
);

export const CurrentTeacher = createParamDecorator((_: unknown, context: ExecutionContext): Teacher => {
  const { visitor } = context.switchToHttp().getRequest<VisitorRequest>();
  if (visitor.role !== 'teacher') throw signInFirst();
  return visitor.teacher;
});
