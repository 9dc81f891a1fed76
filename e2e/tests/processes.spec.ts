import { bringIn, expect, joinAs, startWriting, TEACHER, test } from '../support/fixtures';
import { canShare, Installation } from '../support/installation';
import { plainPdf } from '../support/pdfs';
import { draw, expectMarks, stageState, wave } from '../support/stage';

test('a class goes on when one of two processes is killed, and then the other', async ({ browser }) => {
  test.skip(!canShare, 'needs PostgreSQL and Redis');
  const school = await Installation.start();
  const { url } = school.front;
  try {
    const context = await browser.newContext({ baseURL: url });
    const teacher = await context.newPage();
    await context.request.post(`${url}/api/setup`, { data: TEACHER });
    await teacher.goto('/');
    await bringIn(teacher, { name: 'bridges.pdf', bytes: await plainPdf(2) });
    const code = await startWriting(teacher);
    const students = [await joinAs(browser, url, code, 'Wren'), await joinAs(browser, url, code, 'Lark')];
    const all = [teacher, ...students];
    let count = 0;
    const writeAndSee = async () => {
      await Promise.all(all.map((page, i) => draw(page, wave(60, 80 + 40 * ((count + i) % 12)))));
      count += all.length;
      for (const page of all) await expectMarks(page, count);
    };
    await writeAndSee();
    const [one, other] = school.processes;
    await one!.kill();
    await writeAndSee();
    await one!.run();
    await other!.kill();
    await writeAndSee();
    // In one order for all.
    const [first, ...others] = await Promise.all(
      all.map(async (page) => (await stageState(page)).marks.map(({ id }) => id)),
    );
    for (const ids of others) expect(ids).toEqual(first);
    await expect(teacher.getByRole('button', { name: /^Students: 2/ })).toBeVisible();
  } finally {
    await school.remove();
  }
});
