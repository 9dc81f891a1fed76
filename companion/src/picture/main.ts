import { speakHere } from '../words/speakHere';
import '../classroom/class.css';

await speakHere();
const { begin } = await import('./begin');
begin();
