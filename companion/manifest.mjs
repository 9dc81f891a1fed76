/** Id by which Firefox keeps what the extension stores. */
const FIREFOX_ID = 'companion@doodla.example';
const ICONS = { 16: 'icons/16.png', 48: 'icons/48.png', 128: 'icons/128.png' };

/** The manifest (WebExtensions, Manifest V3) of a build for Chromium or Firefox; `version` is that of the project. */
export function manifestOf(browser, version) {
  return {
    manifest_version: 3,
    name: '__MSG_name__',
    description: '__MSG_description__',
    default_locale: 'en',
    version,
    icons: ICONS,
    // The least that works: a page is touched when its button or key is pressed, and then only that page.
    permissions: ['activeTab', 'scripting', 'storage'],
    action: { default_title: '__MSG_button__', default_icon: ICONS },
    commands: { _execute_action: { suggested_key: { default: 'Alt+Shift+D' } } },
    content_security_policy: { extension_pages: "script-src 'self'; object-src 'none'" },
    web_accessible_resources: [
      {
        resources: ['typing.html', 'fonts/*'],
        matches: ['<all_urls>'],
        // Another address at each start, so that no page can ask whether the companion is here.
        ...(browser === 'chromium' && { use_dynamic_url: true }),
      },
    ],
    ...(browser === 'chromium' ? CHROMIUM : FIREFOX),
  };
}

const CHROMIUM = { background: { service_worker: 'background.js' }, minimum_chrome_version: '120' };

const FIREFOX = {
  background: { scripts: ['background.js'] },
  browser_specific_settings: {
    gecko: {
      id: FIREFOX_ID,
      strict_min_version: '142.0',
      data_collection_permissions: { required: ['none'] },
    },
  },
};
