import { answerAsks } from './answers';
import { reopen, toggle } from './tabs';

chrome.action.onClicked.addListener((tab) => void toggle(tab));
chrome.tabs.onUpdated.addListener((id, change) => {
  if (change.status === 'complete') void reopen(id);
});
answerAsks();
