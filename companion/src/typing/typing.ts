import { ask } from '../shared/messages';

const field = document.querySelector<HTMLTextAreaElement>('#text')!;

/** Tells the page what has been typed so far; a page that is gone needs it no more. */
function tell(isDone: boolean): void {
  ask({ ask: 'typed', text: field.value, isDone }).catch(() => undefined);
}

async function begin(): Promise<void> {
  const typing = await ask({ ask: 'typing' });
  if (!typing) return;
  const { text, look, label } = typing;
  field.value = text;
  field.setAttribute('aria-label', label);
  field.style.fontSize = `${look.size}px`;
  field.style.color = look.colour;
  field.style.fontWeight = look.bold ? '700' : '400';
  field.style.fontStyle = look.italic ? 'italic' : 'normal';
  field.focus();
  field.setSelectionRange(text.length, text.length);
}

field.addEventListener('input', () => tell(false));
field.addEventListener('blur', () => tell(true));
// Once the key is up: this frame goes then, and the page under it hears what comes after.
field.addEventListener('keyup', (event) => {
  if (event.key === 'Escape') tell(true);
});
// Without an answer there is nothing to be typed for.
begin().catch(() => undefined);
