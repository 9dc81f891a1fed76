import { speakHere } from '../words/speakHere';
import './class.css';

await speakHere();
const { begin } = await import('./begin');
begin();
