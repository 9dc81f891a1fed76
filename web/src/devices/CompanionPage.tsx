import { Download } from 'lucide-react';
import { Front } from '../ui/Front';
import { t } from '../words';

/** Browsers that the companion is built for, each with its file and how that is put in. */
const BROWSERS = [
  {
    name: 'Chromium',
    file: '/extension/doodla-companion-chromium.zip',
    steps: [t('devices.unpackIt'), t('devices.openExtensions'), t('devices.loadUnpacked')],
  },
  {
    name: 'Firefox',
    file: '/extension/doodla-companion-firefox.zip',
    steps: [t('devices.openDebugging'), t('devices.loadTemporary'), t('devices.bySchoolPolicy')],
  },
];

/** Where the companion is fetched, from the school's own server, with how it is put into a browser. */
export default function CompanionPage() {
  return (
    <Front title={t('devices.theCompanion')}>
      <p className="mb-3">{t('devices.whatItDoes')}</p>
      <p className="mb-3">{t('devices.whatItMay')}</p>
      {BROWSERS.map(({ name, file, steps }) => (
        <section key={name} className="mt-5">
          <h2 className="mb-2 text-lg font-bold">{t('devices.forBrowser', { name })}</h2>
          <a
            href={file}
            download
            className="mb-2 inline-flex min-h-11 items-center gap-2 rounded-xl border-2 border-board bg-board px-4 font-bold text-paper hover:bg-board-light"
          >
            <Download aria-hidden size={20} />
            {t('devices.fetchFile', { name })}
          </a>
          <ol className="list-decimal ps-6">
            {steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        </section>
      ))}
      <p className="mt-5">{t('devices.thenPress')}</p>
    </Front>
  );
}
