import { Screen } from '../../testing/screen';
import { DescribeDialog } from './describe-dialog';

describe('the description of a picture', () => {
  it('begins with what was written before, and is kept without blanks around it', async () => {
    const screen = await Screen.show(DescribeDialog, { file: 'f', description: 'harbour' }, {});
    const said: string[] = [];
    screen.fixture.componentInstance.described.subscribe((words) => said.push(words));
    const field = document.querySelector<HTMLTextAreaElement>('textarea[name=description]')!;
    expect(field.value).toBe('harbour');
    field.value = ' The harbour of Solvik at night ';
    field.dispatchEvent(new Event('input'));
    await screen.press('Save');
    expect(said).toEqual(['The harbour of Solvik at night']);
  });
});
